"""Where what is followed is: on the canvas, and within a layer that lies on it."""

from __future__ import annotations

import numpy as np

from kitecore.document import AdjustmentClip, ClipBase, Document, Pictured, VideoClip
from kitecore.document.properties import Vector
from kitecore.errors import EditRefused
from kitecore.motion.posing import pose_at
from kitecore.render.frame import stage_of
from kitecore.render.sources import Sources
from kitecore.render.stage import Stage
from kitecore.render.tracked import seen_at, within_picture


def leader_of(document: Document, tracker: str) -> VideoClip:
    """The video in which something is followed by that name.

    Raises
    ------
    EditRefused
        If there is none.
    """
    for _, one in document.clips():
        if isinstance(one, VideoClip) and any(each.id == tracker for each in one.trackers):
            return one
    raise EditRefused("Nothing is followed by that name.", todo="Follow a thing of a video first.")


def spot_of(leader: VideoClip, tracker: str, local: int, stage: Stage) -> Vector:
    """Canvas pixels of the middle of what is followed, at a tick of the video."""
    shown = leader.shown_at(local, stage.step)
    seen = seen_at(leader, tracker, leader.source_in, shown, stage.sources)
    assert seen is not None
    pivot = pose_at(leader, local, stage.area).pivot
    onto = within_picture(leader, pivot, stage.area, stage.sources)
    x, y, depth = stage.frame_of(leader, local) @ onto @ (*seen.now.mean(axis=0), 1.0)
    return float(x / depth), float(y / depth)


def within_layer(
    clip: Pictured, local: int, spot: Vector, stage: Stage, drawn: bool = False
) -> Vector:
    """A spot of the canvas as points of effects count: canvas pixels from the middle of the layer's
    picture, before it is flipped and turned; as ``drawn``, before it is sized, too.
    """
    middle = np.array(stage.area) / 2
    if isinstance(clip, AdjustmentClip):
        x, y = np.array(spot) - middle
        return float(x), float(y)
    pose = pose_at(clip, local, stage.area)
    x, y, depth = np.linalg.inv(stage.frame_of(clip, local)) @ (*spot, 1.0)
    signs = (-1 if clip.place.mirrored else 1), (-1 if clip.place.upside_down else 1)
    across, down = (
        (place / depth + pivot) * sign * (1.0 if drawn else abs(size))
        for place, pivot, size, sign in zip((x, y), pose.pivot, pose.size, signs, strict=True)
    )
    return float(across), float(down)


def spots_along(
    document: Document, clip: ClipBase, tracker: str, sources: Sources, drawn: bool = False
) -> list[Vector]:
    """Where what is followed is within a layer, in each of its frames; beyond the video as at its ends.

    ``drawn`` as of `within_layer`.

    Raises
    ------
    EditRefused
        If nothing is followed by that name, or the clip is no layer.
    """
    if not isinstance(clip, Pictured):
        raise EditRefused("Only a layer has points that could go along.")
    leader, step = leader_of(document, tracker), document.rate.exact.frame_ticks
    stage = stage_of(document, (16, 16), sources)
    found = []
    for tick in range(clip.start, clip.end, step):
        local = min(max(tick - leader.start, 0), leader.length - step)
        spot = spot_of(leader, tracker, local, stage)
        found.append(within_layer(clip, tick - clip.start, spot, stage, drawn))
    return found

"""Masks that go along with what is tracked in their clip."""

from __future__ import annotations

from typing import Any

import numpy as np

from kitecore.document import Mask, VideoClip
from kitecore.document.masks import BrushMask, BrushStroke, EllipseMask, PathMask, RectangleMask
from kitecore.document.paths import Contour, Node
from kitecore.document.properties import Keys, Vector
from kitecore.motion import still_at
from kitecore.motion.matrices import Matrix, parts, turned
from kitecore.motion.matrices import moved as shifted
from kitecore.motion.plain import contours, number, painted_by, pair
from kitecore.render.sources import Sources
from kitecore.render.tracked import seen_at
from kitecore.tracking.quads import carried


def masks_that_follow(clip: VideoClip) -> list[Mask]:
    """Those of the layer and of the zones of its grade; none where nothing is followed."""
    if not clip.trackers:
        return []
    zones = clip.grade.zones if clip.grade is not None else ()
    every = (*clip.masks, *(mask for zone in zones for mask in zone.masks))
    return [mask for mask in every if mask.tracker or _has_led_nodes(mask)]


def _has_led_nodes(mask: Mask) -> bool:
    """Whether points of it go along by themselves, at whatever moment."""
    if not isinstance(mask, PathMask):
        return False
    paths = mask.contours
    every = [key.value for key in paths.keys] if isinstance(paths, Keys) else [paths]
    return any(node.tracker for path in every for contour in path for node in contour.nodes)


def goes_along(clip: VideoClip) -> bool:
    """Whether anything on a clip's picture goes along with one of its trackers, or it is held by one."""
    strokes = any(one.tracker for one in clip.working_strokes)
    return strokes or clip.steady is not None or bool(masks_that_follow(clip))


def with_masks_along(clip: VideoClip, local: int, step: int, sources: Sources) -> VideoClip:
    """The clip with its masks, without keys, where they have gone at a tick of it."""
    if not masks_that_follow(clip):
        return clip

    def along(masks: tuple[Mask, ...]) -> tuple[Mask, ...]:
        return tuple(_along(clip, mask, local, step, sources) for mask in masks)

    update: dict[str, Any] = {"masks": along(clip.masks)}
    if clip.grade is not None:
        zones = (one.model_copy(update={"masks": along(one.masks)}) for one in clip.grade.zones)
        update["grade"] = clip.grade.model_copy(update={"zones": tuple(zones)})
    return clip.model_copy(update=update)


def _along(clip: VideoClip, mask: Mask, local: int, step: int, sources: Sources) -> Mask:
    tick = clip.shown_at(local, step)
    seen = seen_at(clip, mask.tracker, mask.since, tick, sources)
    led = _has_led_nodes(mask)
    if seen is None and not led:
        return mask
    kept = still_at(mask, local)
    # A mask is turned and sized; one of a surface by what comes nearest to that.
    moved = kept if seen is None else moved_by(kept, seen.similar)
    if led:
        moved = _with_led_nodes(clip, kept, moved, tick, sources)
    return moved


def _with_led_nodes(
    clip: VideoClip, kept: Mask, moved: Mask, tick: int, sources: Sources
) -> PathMask:
    """A mask that has moved, with the points that go along by themselves where those are led."""
    assert isinstance(kept, PathMask) and isinstance(moved, PathMask)
    onto, back = _frame(kept), np.linalg.inv(_frame(moved))

    def led(before: Node, after: Node) -> Node:
        seen = seen_at(clip, before.tracker, before.since, tick, sources)
        if seen is None:
            return after
        at = np.array(before.at)
        spots = np.stack([at, at + before.before, at + before.after])
        there = carried(back @ seen.whole @ onto, spots)
        update = {
            "at": tuple(there[0].tolist()),
            "before": tuple((there[1] - there[0]).tolist()),
            "after": tuple((there[2] - there[0]).tolist()),
        }
        return after.model_copy(update=update)

    paths = tuple(
        two.model_copy(update={"nodes": tuple(map(led, one.nodes, two.nodes))})
        for one, two in zip(contours(kept.contours), contours(moved.contours), strict=True)
    )
    return moved.model_copy(update={"contours": paths})


def _frame(mask: Mask) -> Matrix:
    """From a mask's own measure to that of the picture."""
    return np.asarray(shifted(*pair(mask.centre)) @ turned(number(mask.turn)))


def moved_by(mask: Mask, change: Matrix) -> Mask:
    """A mask without keys after a shift, turn and size of the picture."""
    size, _, turn, _ = parts(change)
    x, y = carried(change, np.array([pair(mask.centre)]))[0]
    update: dict[str, Any] = {"centre": (float(x), float(y)), "turn": number(mask.turn) + turn}
    update |= {name: number(getattr(mask, name)) * size for name in ("grow", "inwards", "outwards")}
    if isinstance(mask, EllipseMask | RectangleMask):
        update["size"] = _sized(pair(mask.size), size)
    if isinstance(mask, RectangleMask):
        update["radius"] = number(mask.radius) * size
    if isinstance(mask, PathMask):
        update["contours"] = tuple(_contour(one, size) for one in contours(mask.contours))
    if isinstance(mask, BrushMask):
        update["strokes"] = tuple(_stroke(one, size) for one in painted_by(mask))
    return mask.model_copy(update=update)


def _contour(contour: Contour, by: float) -> Contour:
    """About the middle of its mask, from which its points count."""
    nodes = (
        node.model_copy(
            update={name: _sized(getattr(node, name), by) for name in ("at", "before", "after")}
        )
        for node in contour.nodes
    )
    return contour.model_copy(update={"nodes": tuple(nodes)})


def _stroke(stroke: BrushStroke, by: float) -> BrushStroke:
    points = tuple(_sized(spot, by) for spot in stroke.points)
    return stroke.model_copy(update={"points": points, "width": stroke.width * by})


def _sized(vector: Vector, by: float) -> Vector:
    return vector[0] * by, vector[1] * by

"""The strokes that mend a clip's picture, where they have gone by now."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import cv2
import numpy as np

from kitecore.arrays import Box, Size
from kitecore.document import ClipBase, Document, VideoClip
from kitecore.document.clips import Retouchable
from kitecore.document.strokes import FillStroke, HealStroke, Sourcing, Stroke
from kitecore.errors import BadInput
from kitecore.media.pixels import fitting
from kitecore.motion.matrices import Matrix, moved, parts, sized
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.picture.retouch import Touching, retouch, touched
from kitecore.picture.retouch.completing import completed
from kitecore.picture.retouch.sourcing import source_of
from kitecore.render.sources import Sources
from kitecore.render.tracked import seen_at
from kitecore.tracking.quads import between, carried

SIDE: Final = 960
"""Pixels of the longer side of a picture in which a source is looked for."""
_LENGTHS: Final = ("width", "spots", "keeps", "radius")
"""Of strokes, that grow with what they go along with."""


@dataclass(frozen=True)
class Shown:
    """What of a clip is shown: a take; of a video also the tick of its file, and whose lane reads it."""

    media: str
    tick: int = 0
    lane: str = ""


def strokes_of(clip: ClipBase) -> tuple[Stroke, ...]:
    """Those that do something to a clip's picture."""
    return clip.working_strokes if isinstance(clip, Retouchable) else ()


def retouched(pixels: Rgba, clip: Retouchable, shown: Shown, sources: Sources) -> Rgba:
    """The picture of a clip as it came, after its strokes: a new one if there are any."""
    strokes = clip.working_strokes
    return _after(pixels, clip, strokes, shown, sources) if strokes else pixels


def _after(
    pixels: Rgba, clip: Retouchable, strokes: tuple[Stroke, ...], shown: Shown, sources: Sources
) -> Rgba:
    out = pixels.copy()
    info = sources.picture(shown.media)
    grid = Grid(pixels.shape[1], pixels.shape[0], info.width / info.height)
    for number, stroke in enumerate(strokes):
        change, there = _gone(clip, stroke, shown, sources)
        if there <= 0:
            continue
        now = moved_stroke(stroke, change)
        now = now.model_copy(update={"strength": now.strength * there})
        patch = None
        if isinstance(stroke, FillStroke):
            patch = _patch(clip, strokes[: number + 1], (now, change), shown, grid, sources)
        retouch(out, now, grid, patch)
    return out


def _gone(
    clip: Retouchable, stroke: Stroke, shown: Shown, sources: Sources
) -> tuple[Matrix | None, float]:
    """How what a stroke goes along with has changed since it was painted, and how far it is there."""
    seen = seen_at(clip, stroke.tracker, stroke.since, shown.tick, sources)
    return (None, 1.0) if seen is None else (between(*seen[:3]), seen.there)


def moved_stroke(stroke: Stroke, change: Matrix | None) -> Stroke:
    """A stroke after a change of the picture, in heights of it from its middle."""
    if change is None:
        return stroke
    points = np.array(stroke.points)
    there = carried(change, points)
    size = parts(change)[0]
    update: dict[str, Any] = {"points": tuple(map(tuple, there.tolist()))}
    update |= {one: getattr(stroke, one) * size for one in _LENGTHS if hasattr(stroke, one)}
    if isinstance(stroke, Sourcing):
        middle = points.mean(axis=0, keepdims=True)
        ends = carried(change, np.concatenate([middle, middle + stroke.source]))
        update["source"] = tuple((ends[1] - ends[0]).tolist())
    return stroke.model_copy(update=update)


def _patch(
    clip: Retouchable,
    strokes: tuple[Stroke, ...],
    now: tuple[Stroke, Matrix | None],
    shown: Shown,
    grid: Grid,
    sources: Sources,
) -> Rgba | None:
    """What closes the hole of the last of some strokes, where that is now.

    It is made once, of the picture at the moment at which the stroke was painted, with what the
    strokes before it did to that; then it goes along.
    """
    stroke, change = now
    here, painted = touched(stroke, grid), touched(strokes[-1], grid)
    if here is None or painted is None:
        return None
    key = (
        shown.media,
        sources.stamp(shown.media),
        (grid.width, grid.height),
        tuple(one.model_dump_json() for one in strokes),
    )

    def make() -> Rgba:
        left, top, right, bottom = painted.box
        picture = _painted_on(clip, strokes, shown, (grid.width, grid.height), sources)
        return np.ascontiguousarray(_closed(picture, painted)[top:bottom, left:right])

    return _carried(sources.cache.get(key, make), painted.box, here.box, change, grid)


def _painted_on(
    clip: Retouchable, strokes: tuple[Stroke, ...], shown: Shown, size: Size, sources: Sources
) -> Rgba:
    """The picture on which the last of some strokes was painted."""
    # A lane of its own: the clip's reader goes on where it is.
    then = Shown(shown.media, strokes[-1].since, f"{shown.lane} painted")
    return _after(_taken(clip, then, size, sources), clip, strokes[:-1], then, sources)


def _taken(clip: Retouchable, shown: Shown, size: Size, sources: Sources) -> Rgba:
    """The picture of a clip as it was taken."""
    if isinstance(clip, VideoClip):
        number = sources.frame_number(shown.media, shown.tick)
        return sources.video(shown.media, number, shown.lane, size)
    return sources.still(shown.media, size)


def _closed(picture: Rgba, painted: Touching) -> Rgba:
    left, top, right, bottom = painted.box
    hole = np.zeros(picture.shape[:2], np.bool_)
    hole[top:bottom, left:right] = painted.cover > 0
    return completed(picture, hole)


def _carried(patch: Rgba, of: Box, onto: Box, change: Matrix | None, grid: Grid) -> Rgba:
    """A part of the picture as it lies in another part after a change."""
    if change is None:
        return patch
    heights = moved(grid.width / 2, grid.height / 2) @ sized(grid.width / grid.aspect, grid.height)
    whole = heights @ change @ np.linalg.inv(heights)
    half = moved(-0.5, -0.5)
    matrix = half @ moved(-onto[0], -onto[1]) @ whole @ moved(of[0], of[1]) @ np.linalg.inv(half)
    size = onto[2] - onto[0], onto[3] - onto[1]
    return np.asarray(
        cv2.warpPerspective(
            patch, matrix, size, flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REFLECT_101
        )
    )


def stroke_source(
    document: Document, clip_id: str, tick: int, stroke: dict[str, Any], sources: Sources
) -> dict[str, Any]:
    """From where a stroke on a clip's picture at a tick takes what it lays: ``source``, or None."""
    _, clip = document.find_clip(clip_id)
    if not isinstance(clip, Retouchable):
        raise BadInput("What is in hand is no picture of a take.", todo="Take a video or a still.")
    local = min(max(tick - clip.start, 0), clip.length - 1)
    media = clip.media_at(local)
    info = sources.picture(media)
    size = fitting(info.width, info.height, SIDE)
    shown = Shown(media)
    if isinstance(clip, VideoClip):
        shown = Shown(media, clip.shown_at(local, document.rate.exact.frame_ticks), clip.id)
    pixels = retouched(_taken(clip, shown, size, sources), clip, shown, sources)
    grid = Grid(size[0], size[1], info.width / info.height)
    return {"source": source_of(pixels, HealStroke.model_validate(stroke), grid)}

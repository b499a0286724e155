"""Pictures of 10 bits for formats that hold them.

A source of more than 8 bits that covers the canvas keeps its bits through its grade; what lies over
it in normal mode is laid over it in 16 bits. Wherever else such a source or a gradient is seen (under
blends, keys, masks, adjustments, in transitions and groups) the picture is drawn several times in 8
bits, the bits that are cut off rounded otherwise each time, and the mean is what is finer
(decision 34).
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.document import (
    AdjustmentClip,
    Document,
    Grade,
    Holding,
    Pictured,
    VideoClip,
    Zone,
)
from kitecore.document.grade import grade_of
from kitecore.media.coding import coded_deep
from kitecore.media.pixels import is_deep
from kitecore.motion import still_at
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import add_levels, lay_over_deep, widen_mean
from kitecore.render.compose import draw_showing, draw_tracks
from kitecore.render.frame import render, stage_of, tagged
from kitecore.render.grading import Deep, changes, steps, zone_mask, zone_share
from kitecore.render.gradual import is_gradual
from kitecore.render.painters.video import shown_number
from kitecore.render.passing import fills_canvas
from kitecore.render.showing import Crossing, Showing, showing_at
from kitecore.render.sources import TO_NEAREST, Sources
from kitecore.render.stage import Stage

TURNS: Final = 4
"""Pictures of 8 bits whose mean has 10."""
_MOST = np.float32(65535)


def render_deep_planes(
    document: Document, tick: int, size: Size, sources: Sources
) -> av.VideoFrame:
    """The picture at ``tick`` as yuv420p10le, BT.709, limited range."""
    return tagged(coded_deep(render_deep(document, tick, size, sources)))


def render_deep(document: Document, tick: int, size: Size, sources: Sources) -> Deep:
    """The picture in 16 bits, RGB, shape (height, width, 3), with all bits that its sources have."""
    exact = render_exact(document, tick, size, sources)
    if exact is not None:
        return exact
    total = np.zeros((size[1], size[0], 3), np.uint16)
    return _mean(total, document, tick, sources, lambda: render(document, tick, size, sources))


def render_deep_clear(document: Document, tick: int, size: Size, sources: Sources) -> Deep:
    """The same without the canvas's colour: premultiplied RGBA, shape (height, width, 4)."""

    def draw() -> Rgba:
        pixels = np.zeros((size[1], size[0], 4), np.uint8)
        draw_tracks(pixels, document.tracks, tick, stage_of(document, size, sources))
        return pixels

    return _mean(np.zeros((size[1], size[0], 4), np.uint16), document, tick, sources, draw)


def _mean(
    total: Deep, document: Document, tick: int, sources: Sources, draw: Callable[[], Rgba]
) -> Deep:
    """``total``, which is empty, filled with the first of the channels of what is drawn.

    It is the mean of pictures whose sources were rounded at another place each, where that tells more.
    """
    showing, step = showing_at(document.tracks, tick), document.rate.exact.frame_ticks
    if not any(_shows_deep(one, tick, step, sources) for one in showing):
        np.multiply(draw()[..., : total.shape[2]], 257, out=total, dtype=np.uint16)
        return total
    try:
        for turn in range(TURNS):
            sources.rounding = (turn + 0.5) / TURNS
            add_levels(total, draw())
    finally:
        sources.rounding = TO_NEAREST
    widen_mean(total, TURNS)
    return total


def _shows_deep(showing: Showing, tick: int, step: int, sources: Sources) -> bool:
    """Whether anything of more than 8 bits is in it."""
    if isinstance(showing, Crossing):
        both = (showing.before, showing.after)
        return any(_shows_deep(clip, tick, step, sources) for clip in both)
    if isinstance(showing, VideoClip):
        return is_deep(sources.picture(showing.media))
    if not isinstance(showing, Holding):
        return is_gradual(showing)
    at = showing.shown_at(tick - showing.start, step)
    held = showing_at(showing.seen(at, at + step), at)
    return any(_shows_deep(one, at, step, sources) for one in held)


def render_exact(document: Document, tick: int, size: Size, sources: Sources) -> Deep | None:
    """The same where one source covers the canvas and nothing but layers in normal mode lie over it;
    None elsewhere.
    """
    showing = showing_at(document.tracks, tick)
    index = _base(document, showing, tick, sources)
    if index is None:
        return None
    clip, stage = showing[index], stage_of(document, size, sources)
    assert isinstance(clip, VideoClip)
    local = tick - clip.start
    picture = sources.video16(clip.media, shown_number(clip, local, stage), clip.id, size)
    if changes(clip.grade):
        assert clip.grade is not None
        aspect = document.canvas.width / document.canvas.height
        picture = _graded(picture, still_at(clip.grade, local), stage, aspect)
    above = showing[index + 1 :]
    if above:
        over = np.zeros((size[1], size[0], 4), np.uint8)
        draw_showing(over, above, tick, stage)
        picture = picture.copy()
        lay_over_deep(picture, over)
    return picture


def _base(document: Document, showing: list[Showing], tick: int, sources: Sources) -> int | None:
    """Index of the deep video that covers the canvas, if what lies over it can be laid after it."""
    for index in range(len(showing) - 1, -1, -1):
        one = showing[index]
        if isinstance(one, VideoClip) and fills_canvas(one, document, tick, sources):
            return index if is_deep(sources.picture(one.media)) else None
        alone = isinstance(one, Pictured) and not isinstance(one, AdjustmentClip)
        if not alone or one.blend != "normal" or one.clipped or is_gradual(one):  # type: ignore[union-attr, arg-type]
            return None
    return None


def _graded(picture: Deep, grade: Grade, stage: Stage, aspect: float) -> Deep:
    rgb = picture.astype(np.float32) / _MOST
    coding = Grade(input=grade.input)
    first = stage.sources.tables.of(coding).at(rgb) if changes(coding) else rgb
    for step in steps(grade):
        if isinstance(step, Zone):
            rgb = _zoned(rgb, step, first if step.original else rgb, stage, aspect)
        elif changes(step):
            rgb = stage.sources.tables.of(step).at(rgb)
    return np.asarray(np.rint(np.clip(rgb, 0, 1) * _MOST), np.uint16)


def _zoned(
    rgb: NDArray[Any], zone: Zone, seen: NDArray[Any], stage: Stage, aspect: float
) -> NDArray[Any]:
    """After a zone, whose ranges look at ``seen``."""
    inside = grade_of(zone.adjust)
    if not changes(inside):
        return rgb
    opaque = np.full((*rgb.shape[:2], 1), 255, np.uint8)
    bytes_ = np.rint(np.clip(seen, 0, 1) * 255).astype(np.uint8)
    mask = zone_mask(np.concatenate([bytes_, opaque], axis=2), zone, stage, aspect)
    share = mask.astype(np.float32)[..., None] * np.float32(zone_share(zone) / 255)
    return np.asarray(rgb + (stage.sources.tables.of(inside).at(rgb) - rgb) * share)

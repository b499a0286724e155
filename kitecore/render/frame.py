"""Document and time to a picture: the one function behind stills, playing and export."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import av
import cv2
import numpy as np
from av.video.reformatter import ColorPrimaries, ColorRange, Colorspace, ColorTrc
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.document import AdjustmentClip, Document, Grade, Pictured, VideoClip
from kitecore.media.coding import to_planes
from kitecore.media.pixels import fitting, planes_of
from kitecore.media.planes import rows_of
from kitecore.oklab import rgb_of
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, Rgba, moved, solid
from kitecore.render.adjusting import area_of
from kitecore.render.compose import draw_tracks, picture_of, solitary
from kitecore.render.grading import Step, passes_at, plan_of
from kitecore.render.onion import lay_skins
from kitecore.render.painters.video import shown_number
from kitecore.render.passing import covering_at
from kitecore.render.reaching import reach
from kitecore.render.showing import cuts_holes, showing_at
from kitecore.render.sources import Sources
from kitecore.render.stage import Stage

COVER_SIDE: Final = 240
"""Pixels of the longer side in which it is found out what pictures cover."""


def render(
    document: Document,
    tick: int,
    size: Size,
    sources: Sources,
    *,
    matte: str = "",
    onion: str = "",
) -> Rgba:
    """The picture at ``tick``, opaque RGBA, uint8, shape (height, width, 4).

    Parameters
    ----------
    size
        Width and height of the output, of the canvas's shape.
    matte
        Id of a zone, or of a clip, that is shown as what it lets through.
    onion
        Id of a clip that is shown, thin, at its neighbouring keys too.
    """
    stage = stage_of(document, size, sources, matte)
    showing = showing_at(document.tracks, tick)
    for one in showing:
        if matte and isinstance(one, Pictured) and one.id == matte:
            return matte_of_clip(one, tick, stage)
    canvas = picture_of(showing, tick, stage, rgb_of(document.canvas.colour))
    if cuts_holes(showing):
        # Through a hole the canvas itself is seen.
        ground = solid(*size, rgb_of(document.canvas.colour))
        lay(ground, Layer(canvas, moved(0, 0)))
        canvas = ground
    if onion:
        lay_skins(canvas, document, onion, tick, stage)
    return canvas


def covered_at(
    document: Document, tick: int, size: Size, sources: Sources
) -> NDArray[np.bool_] | None:
    """Which pixels of the output are wholly covered by pictures, shape (height, width).

    None for all of them. It is drawn small; pixels in doubt count as not covered.
    """
    if covering_at(document, tick, sources) is not None:
        return None
    small = fitting(*size, COVER_SIDE)
    drawn = np.zeros((small[1], small[0], 4), np.uint8)
    draw_tracks(drawn, document.tracks, tick, stage_of(document, small, sources))
    alpha = np.ascontiguousarray(drawn[..., 3])
    return np.asarray(cv2.resize(alpha, size, interpolation=cv2.INTER_LINEAR) == 255)


def matte_of_clip(clip: Pictured, tick: int, stage: Stage) -> Rgba:
    """A clip's alpha in grey, without its effects; of an adjustment, where it works."""
    plain = clip.model_copy(update={"effects": (), "opacity": 1.0})
    if isinstance(plain, AdjustmentClip):
        area = area_of(plain, tick - plain.start, stage)
        alpha = np.full(stage.size[::-1], 255, np.uint8) if area is None else area
    else:
        alpha = solitary(plain, tick, replace(stage, matte=""))[..., 3]
    return np.dstack([alpha, alpha, alpha, np.full_like(alpha, 255)])


def stage_of(document: Document, size: Size, sources: Sources, matte: str = "") -> Stage:
    """The whole canvas of a document in a size."""
    canvas = document.canvas
    area = (float(canvas.width), float(canvas.height))
    step = document.rate.exact.frame_ticks
    return Stage(canvas, size, sources, step, draw_tracks, reach, area, matte, document.tracks)


def render_planes(document: Document, tick: int, size: Size, sources: Sources) -> av.VideoFrame:
    """The same picture as planes for an encoder: yuv420p, BT.709, limited range.

    Where nothing is done to a video but scaling and grading, its planes go through without a detour
    by RGB.
    """
    bare = covering_at(document, tick, sources)
    if bare is not None:
        planes = _graded_planes(bare, document, tick, size, sources)
        if planes is not None:
            return tagged(planes)
    pixels = render(document, tick, size, sources)
    frame = av.VideoFrame(size[0], size[1], "yuv420p")
    luma, cb, cr = (rows_of(plane) for plane in frame.planes)
    to_planes(pixels, luma, cb, cr)
    return tagged(frame)


def _graded_planes(
    clip: VideoClip, document: Document, tick: int, size: Size, sources: Sources
) -> av.VideoFrame | None:
    """The planes of a video that covers the canvas; None if its grade needs more than one pass."""
    local = tick - clip.start
    passes: tuple[Step, ...] = ()
    if clip.grade is not None and plan_of(clip.grade, sources).changes:
        passes = passes_at(clip.grade, local, sources)
        if len(passes) > 1 or sources.picture(clip.media).depth > 8:
            return None
    number = shown_number(clip, local, stage_of(document, size, sources))
    decoded, picture = sources.decoded(clip.media, number, clip.id, size)
    planes = planes_of(decoded, picture, size)
    if not passes:
        return planes
    [grade] = passes
    assert isinstance(grade, Grade)
    done = av.VideoFrame(size[0], size[1], "yuv420p")
    luma, cb, cr = (rows_of(plane) for plane in planes.planes)
    new_luma, new_cb, new_cr = (rows_of(plane) for plane in done.planes)
    table = sources.tables.of_planes(grade)
    table.over((luma, cb, cr), (new_luma, new_cb, new_cr), size)
    return done


def tagged(frame: av.VideoFrame) -> av.VideoFrame:
    """The frame marked as BT.709 in limited range."""
    frame.colorspace = Colorspace.ITU709
    frame.color_range = ColorRange.MPEG
    frame.color_primaries = ColorPrimaries.BT709
    frame.color_trc = ColorTrc.BT709
    return frame

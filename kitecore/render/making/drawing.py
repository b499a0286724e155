"""The frames of a file in the pixels that its encoder takes."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any, Final

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.media.clearcoding import coded_clear, coded_clear_deep, coded_whole_deep
from kitecore.media.coding import coded, coded_deep
from kitecore.oklab import rgb_of
from kitecore.picture.layer import Rgba
from kitecore.render.compose import draw_tracks
from kitecore.render.deep import render_deep, render_deep_clear, render_deep_planes
from kitecore.render.frame import render, render_planes, stage_of, tagged
from kitecore.render.making.following import corner_at
from kitecore.render.making.work import Work
from kitecore.render.repeats import DrawPlanes, frames_of
from kitecore.render.sources import Sources


def drawn(work: Work, numbers: range, pixels: str, sources: Sources) -> Iterator[av.VideoFrame]:
    """Frames in a row as ``pixels`` (FFmpeg's name); the same object again where nothing changes."""
    shown, draw = (work.own_number(number) for number in numbers), _drawer(work, pixels)
    if work.framing.follows:
        # The window goes along even over what stands still.
        start, size = work.document.rate.exact.start_of, work.framing.drawn
        return (draw(work.document, start(number), size, sources) for number in shown)
    return frames_of(work.document, shown, work.framing.drawn, sources, draw)


def picture(work: Work, tick: int, sources: Sources) -> Rgba:
    """RGBA of one moment in the file's size: opaque, or straight where the file is see-through."""
    document, size = work.document, work.framing.drawn
    at = corner_at(work, tick, sources)
    if not work.clear:
        ground = np.array((*rgb_of(document.canvas.colour), 255), np.uint8)
        return work.framing.laid(render(document, tick, size, sources), ground, at)
    pixels = np.zeros((size[1], size[0], 4), np.uint8)
    draw_tracks(pixels, document.tracks, tick, stage_of(document, size, sources))
    straight: Rgba = cv2.cvtColor(pixels, cv2.COLOR_mRGBA2RGBA)
    return work.framing.laid(straight, np.zeros(4, np.uint8), at)


def _deep_picture(work: Work, tick: int, sources: Sources) -> NDArray[np.uint16]:
    document, size = work.document, work.framing.drawn
    ground = np.array(rgb_of(document.canvas.colour), np.uint16) * 257
    at = corner_at(work, tick, sources)
    return work.framing.laid(render_deep(document, tick, size, sources), ground, at)


def _deep_clear_picture(work: Work, tick: int, sources: Sources) -> NDArray[np.uint16]:
    """Straight RGBA of 16 bits."""
    pixels = render_deep_clear(work.document, tick, work.framing.drawn, sources)
    share = pixels[..., 3:].astype(np.float32)
    colours = pixels[..., :3] * np.divide(65535, share, out=np.zeros_like(share), where=share > 0)
    pixels[..., :3] = np.rint(np.minimum(colours, 65535))
    return work.framing.laid(pixels, np.zeros(4, np.uint16), corner_at(work, tick, sources))


def as_bgra(pixels: Rgba) -> av.VideoFrame:
    """For encoders without loss."""
    return av.VideoFrame.from_ndarray(pixels, format="rgba").reformat(format="bgra")


_WHOLE: Final[dict[str, DrawPlanes]] = {
    "yuv420p": render_planes,
    "yuv420p10le": render_deep_planes,
}
"""The quick ways, where the canvas is the picture."""
_CODED: Final[dict[str, Callable[[Any], av.VideoFrame]]] = {
    "yuv420p": lambda pixels: tagged(coded(pixels)),
    "yuva420p": lambda pixels: tagged(coded_clear(pixels)),
    "bgra": as_bgra,
}
_CODED_DEEP: Final[dict[str, Callable[[Any], av.VideoFrame]]] = {
    "yuv420p10le": lambda pixels: tagged(coded_deep(pixels)),
    "yuv444p10le": lambda pixels: tagged(coded_whole_deep(pixels)),
    "yuva444p10le": lambda pixels: tagged(coded_clear_deep(pixels)),
}


def _drawer(work: Work, pixels: str) -> DrawPlanes:
    if work.framing.whole and pixels in _WHOLE:
        return _WHOLE[pixels]
    deep = pixels in _CODED_DEEP
    code = _CODED_DEEP[pixels] if deep else _CODED[pixels]
    fine = _deep_clear_picture if work.clear else _deep_picture
    look = fine if deep else picture
    return lambda _, tick, size, sources: code(look(work, tick, sources))

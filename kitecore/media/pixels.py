"""From a decoded frame to upright RGBA, and to plain planes."""

from __future__ import annotations

from fractions import Fraction
from threading import local
from typing import Any, Final

import av
import numpy as np
from av.video.reformatter import (
    ColorPrimaries,
    ColorRange,
    Colorspace,
    ColorTrc,
    Interpolation,
    VideoReformatter,
)
from numpy.typing import NDArray

from kitecore.kept import Kept
from kitecore.media.info import Colours, PictureInfo
from kitecore.media.orientation import upright
from kitecore.media.premultiply import premultiply

Rgba = NDArray[np.uint8]
Rgb16 = NDArray[np.uint16]

HDR_TRANSFERS: Final = (16, 18)
"""H.273 numbers of PQ and HLG."""

_CONVERTERS: Final = 6
"""Conversions that a thread keeps."""
_mine = local()

_UNTAGGED: Final = (0, 2, 3)

_SPACES: Final = {
    1: Colorspace.ITU709,
    4: Colorspace.FCC,
    5: Colorspace.ITU601,
    6: Colorspace.ITU601,
    7: Colorspace.SMPTE240M,
    9: Colorspace.BT2020,
    10: Colorspace.BT2020,
}
"""By H.273 number of the matrix."""


def matrix_of(colours: Colours, width: int, height: int) -> int:
    """H.273 number of the matrix; where it is not tagged BT.709 for HD, BT.601 below.

    HD is what has 1280 pixels one way or 720 the other, as wide films cut to their shape do.
    """
    if colours.matrix not in _UNTAGGED:
        return colours.matrix
    return 1 if max(width, height) >= 1280 or min(width, height) >= 720 else 6


def scaled(
    frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int], pixels: str
) -> av.VideoFrame:
    """The frame in another size and pixel format, still turned as in the file.

    PQ and HLG are brought to BT.709 with their reference white at white; what is brighter clips.

    Parameters
    ----------
    size
        Width and height after turning upright.
    pixels
        ``"rgba"`` or ``"rgb48le"``; or ``"yuv420p"`` or ``"yuv420p10le"`` for BT.709 in limited range.
    """
    is_rgb = pixels.startswith("rgb")
    width, height = size[::-1] if picture.turn % 180 else size
    shrinks = width * height < frame.width * frame.height
    hdr = picture.colours.transfer in HDR_TRANSFERS
    how: dict[str, Any] = {
        "width": width,
        "height": height,
        "format": pixels,
        "src_colorspace": _space(picture, frame),
        "dst_colorspace": Colorspace.ITU709,
        "src_color_range": _range(picture.colours, frame),
        "dst_color_range": ColorRange.JPEG if is_rgb else ColorRange.MPEG,
        "dst_color_trc": ColorTrc.BT709 if hdr else None,
        "dst_color_primaries": ColorPrimaries.BT709 if hdr else None,
        "interpolation": _interpolation(width, shrinks, pixels),
        # Several would write over each other's rows where a width is no multiple of 16 (FFmpeg 8).
        "threads": 1,
    }
    return _converter(frame, how).reformat(frame, **how)


def _converter(frame: av.VideoFrame, how: dict[str, Any]) -> VideoReformatter:
    """What converts frames like this one in this thread.

    Made anew for each frame, as a frame does by itself, PQ and HLG take seconds: the tables of their
    curves are worked out every time.
    """
    if not hasattr(_mine, "converters"):
        _mine.converters = Kept(_CONVERTERS)
    tags = (frame.colorspace, frame.color_range, frame.color_trc, frame.color_primaries)
    kind = (frame.width, frame.height, frame.format.name, *map(int, tags), *how.values())
    found: VideoReformatter = _mine.converters.get(kind, VideoReformatter)
    return found


def _interpolation(width: int, shrinks: bool, pixels: str) -> Interpolation:
    way = Interpolation.AREA if shrinks else Interpolation.BICUBIC
    # The fast conversion to RGB leaves the last columns of some widths unwritten (FFmpeg 8).
    ragged = pixels == "rgba" and 0 < width % 16 < 8
    return way | Interpolation.ACCURATE_RND if ragged else way


def _space(picture: PictureInfo, frame: av.VideoFrame) -> Colorspace:
    if frame.format.is_rgb:
        return Colorspace.ITU709
    number = matrix_of(picture.colours, frame.width, frame.height)
    return _SPACES.get(number, Colorspace.ITU709)


def _range(colours: Colours, frame: av.VideoFrame) -> ColorRange:
    full = colours.full_range or frame.format.is_rgb or frame.format.name.startswith("yuvj")
    return ColorRange.JPEG if full else ColorRange.MPEG


def to_rgba(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Rgba:
    """Upright premultiplied RGBA, uint8, shape (height, width, 4)."""
    array: Rgba = np.asarray(scaled(frame, picture, size, "rgba").to_ndarray(), np.uint8)
    array = upright(array, picture)
    return premultiply(array) if picture.alpha else array


def to_rgb16(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Rgb16:
    """Upright RGB of 16 bits, shape (height, width, 3), for sources of more than 8 bits."""
    array: Rgb16 = np.asarray(scaled(frame, picture, size, "rgb48le").to_ndarray(), np.uint16)
    return upright(array, picture)


def fitting(width: int, height: int, long_side: int) -> tuple[int, int]:
    """Even size of the same shape whose longer side is at most ``long_side``."""
    factor = min(Fraction(1), Fraction(long_side, max(width, height)))
    return max(2, round(width * factor / 2) * 2), max(2, round(height * factor / 2) * 2)

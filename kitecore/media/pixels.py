"""From a decoded frame to upright RGBA, and to plain planes."""

from __future__ import annotations

from fractions import Fraction
from threading import local
from typing import Any, Final

import av
import numpy as np
from av.video.reformatter import (
    ColorRange,
    Colorspace,
    Interpolation,
    VideoReformatter,
)
from numpy.typing import NDArray

from kitecore.kept import Kept
from kitecore.media.coding import coded, coded_deep
from kitecore.media.hdr import HDR_TRANSFERS, shown_in_sdr
from kitecore.media.info import Colours, PictureInfo
from kitecore.media.orientation import upright
from kitecore.media.planes import Halved, rows_of
from kitecore.media.premultiply import premultiply
from kitecore.media.rgb import Factors, factors_of, fill_cut, fill_rgb16, fill_rgba

Rgba = NDArray[np.uint8]
Rgb16 = NDArray[np.uint16]

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


def planes_of(
    frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int], pixels: str = "yuv420p"
) -> av.VideoFrame:
    """The frame as planes of BT.709 in limited range, in another size, turned as in the file.

    Parameters
    ----------
    size
        Width and height after turning upright.
    pixels
        ``"yuv420p"`` or ``"yuv420p10le"``.
    """
    if _is_plain(frame, picture):
        return _sized(frame, picture, size, pixels)
    if pixels == "yuv420p":
        return coded(_rgba(frame, picture, size))
    return coded_deep(_rgb16(frame, picture, size))


def halved_of(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Halved | None:
    """The frame's own planes in another size; None if its colours, or how it lies, ask for more."""
    turned = picture.turn or picture.mirrored or picture.alpha or picture.stacked
    if turned or picture.depth > 8 or not (_is_plain(frame, picture) and _is_halved(frame)):
        return None
    sized = _sized(frame, picture, size, "yuv420p")
    luma, cb, cr = (rows_of(plane) for plane in sized.planes)
    return Halved((luma, cb, cr), size)


def _is_plain(frame: av.VideoFrame, picture: PictureInfo) -> bool:
    """Whether its planes are of BT.709 in limited range."""
    plain = _space(picture, frame) == Colorspace.ITU709 and not frame.format.is_rgb
    limited = _range(picture.colours, frame) == ColorRange.MPEG
    return plain and limited and picture.colours.transfer not in HDR_TRANSFERS


def _converter(frame: av.VideoFrame, how: dict[str, Any]) -> VideoReformatter:
    """What scales frames like this one in this thread: its filters are worked out once."""
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
    if picture.stacked:
        return _unstacked(frame, picture, size)
    array = upright(_rgba(frame, picture, size), picture)
    return premultiply(array) if picture.alpha else array


def to_rgb16(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Rgb16:
    """Upright RGB of 16 bits, shape (height, width, 3), for sources of more than 8 bits."""
    return upright(_rgb16(frame, picture, size), picture)


def rgba_of(halved: Halved) -> Rgba:
    """Opaque RGBA of planes."""
    width, height = halved.size
    array = np.empty((height, width, 4), np.uint8)
    factors = factors_of(1, full_range=False)
    fill_rgba(*halved.planes, array.view(np.uint32)[..., 0], factors)
    return array


def is_deep(picture: PictureInfo) -> bool:
    """Whether there is more to be had of a video in 16 bits than in 8."""
    return picture.depth > 8 and not picture.alpha


def cut_to_8(deep: Rgb16, rounding: float = 0.5) -> Rgba:
    """Opaque RGBA of 8 bits, ``rounding`` of a level added before what is finer is cut off."""
    out = np.empty((*deep.shape[:2], 4), np.uint8)
    fill_cut(np.ascontiguousarray(deep), out, rounding)
    return out


def _rgba(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Rgba:
    """Still turned as in the file, and not premultiplied."""
    if frame.format.is_rgb:
        return np.asarray(_sized(frame, picture, size, "rgba").to_ndarray(), np.uint8)
    if picture.colours.transfer in HDR_TRANSFERS:
        return cut_to_8(_rgb16(frame, picture, size))
    return _from_planes(frame, picture, size)


def _rgb16(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Rgb16:
    """Still turned as in the file."""
    if frame.format.is_rgb:
        array = np.asarray(_sized(frame, picture, size, "rgb48le").to_ndarray(), np.uint16)
    else:
        sized = _sized(frame, picture, size, "yuv444p16le")
        luma, cb, cr = (rows_of(plane).view(np.uint16) for plane in sized.planes)
        array = np.empty((sized.height, sized.width, 3), np.uint16)
        fill_rgb16(luma, cb, cr, array, _factors(frame, picture, deep=True))
    hdr = picture.colours.transfer in HDR_TRANSFERS
    return shown_in_sdr(array, picture.colours) if hdr else array


def _from_planes(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Rgba:
    """RGBA of luma and chroma, still turned as in the file and not premultiplied."""
    pixels = "yuva444p" if picture.alpha else "yuv420p" if _is_halved(frame) else "yuv444p"
    sized = _sized(frame, picture, size, pixels)
    luma, cb, cr = (rows_of(plane) for plane in sized.planes[:3])
    array = np.empty((sized.height, sized.width, 4), np.uint8)
    fill_rgba(luma, cb, cr, array.view(np.uint32)[..., 0], _factors(frame, picture))
    if picture.alpha:
        array[..., 3] = rows_of(sized.planes[3])[:, : sized.width]
    return array


def _factors(frame: av.VideoFrame, picture: PictureInfo, *, deep: bool = False) -> Factors:
    matrix = matrix_of(picture.colours, frame.width, frame.height)
    full = _range(picture.colours, frame) == ColorRange.JPEG
    return factors_of(matrix, full_range=full, deep=deep)


def _is_halved(frame: av.VideoFrame) -> bool:
    """Whether four pixels have one sample of chroma."""
    chroma = [one for one in frame.format.components if not (one.is_luma or one.is_alpha)]
    return all((one.width, one.height) != (frame.width, frame.height) for one in chroma) and all(
        2 * one.height <= frame.height + 1 for one in chroma
    )


def _sized(
    frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int], pixels: str
) -> av.VideoFrame:
    """The frame in another size and form of planes, its colours as they are coded."""
    width, height = size[::-1] if picture.turn % 180 else size
    own, reach = _space(picture, frame), _range(picture.colours, frame)
    how: dict[str, Any] = {
        "width": width,
        "height": height,
        "format": pixels,
        "src_colorspace": own,
        "dst_colorspace": own,
        "src_color_range": reach,
        "dst_color_range": reach,
        "interpolation": _interpolation(width, width * height < frame.width * frame.height, pixels),
        "threads": 1,
    }
    return _converter(frame, how).reformat(frame, **how)


def _unstacked(frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int]) -> Rgba:
    width, height = size
    opaque = picture.model_copy(update={"alpha": False})
    both = _from_planes(frame, opaque, (width, 2 * height))
    alpha = both[height:, :, 1:2]
    # What coding spoils never makes colours brighter than their alpha lets them be.
    return np.concatenate([np.minimum(both[:height, :, :3], alpha), alpha], axis=2)


def stacked(rgba: Rgba) -> av.VideoFrame:
    """Premultiplied RGBA as a frame without alpha (see `PictureInfo.stacked`): yuv420p, BT.709."""
    alpha = np.repeat(rgba[..., 3:], 4, axis=2)
    return coded(np.vstack([rgba, alpha]))


def fitting(width: int, height: int, long_side: int) -> tuple[int, int]:
    """Even size of the same shape whose longer side is at most ``long_side``."""
    factor = min(Fraction(1), Fraction(long_side, max(width, height)))
    return max(2, round(width * factor / 2) * 2), max(2, round(height * factor / 2) * 2)

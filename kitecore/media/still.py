"""Stills as pictures."""

from __future__ import annotations

import io
from functools import cache
from typing import Any, Final

import cv2
import numpy as np
from PIL import Image, ImageCms, ImageOps

from kitecore.errors import BrokenMedia, MediaMissing
from kitecore.media.averaging import averaged
from kitecore.media.folder import MediaFolder
from kitecore.media.pictures import DAMAGED, open_still
from kitecore.media.pixels import Rgba
from kitecore.media.premultiply import premultiply

_DEEP_GREYS: Final = {"I", "I;16", "I;16B", "I;16L", "I;16N"}
"""Pillow's modes for greys of 16 bits, which it cuts off at 255 instead of scaling them."""
_PROFILED: Final = {"L", "RGB", "CMYK"}
"""Modes that a colour profile may speak of."""


def read_still(folder: MediaFolder) -> Rgba:
    """The still in its own size, turned upright by its EXIF tag, premultiplied sRGB and alpha.

    Colours of another profile are brought to sRGB as they would be measured (ICC.1, relative
    colorimetric, black point compensated); what lies outside of it comes to its edge.
    """
    try:
        with open_still(folder.original) as image:
            upright = ImageOps.exif_transpose(image)
            pixels = np.array(_in_srgb(_of_8_bits(upright), image.info.get("icc_profile")))
    except FileNotFoundError as error:
        raise MediaMissing("The file of this picture is missing.") from error
    except DAMAGED as error:
        raise BrokenMedia("The picture cannot be decoded any more.") from error
    return premultiply(pixels)


def _of_8_bits(image: Image.Image) -> Image.Image:
    if image.mode not in _DEEP_GREYS:
        return image
    levels = np.clip(np.asarray(image).astype(np.int64), 0, 65535)
    return Image.fromarray(((levels * 255 + 32767) // 65535).astype(np.uint8))


def _in_srgb(image: Image.Image, profile: bytes | None) -> Image.Image:
    """RGBA in sRGB; a profile that cannot be used changes nothing."""
    shown = image.convert("RGBA")
    if not profile:
        return shown
    plain = image if image.mode in _PROFILED else image.convert("RGB")
    try:
        own: Any = ImageCms.ImageCmsProfile(io.BytesIO(profile))
        seen = ImageCms.profileToProfile(
            plain,
            own,
            _srgb(),
            renderingIntent=ImageCms.Intent.RELATIVE_COLORIMETRIC,
            outputMode="RGB",
            flags=ImageCms.Flags.BLACKPOINTCOMPENSATION,
        )
    except (ImageCms.PyCMSError, OSError):
        return shown
    if seen is None:
        return shown
    seen.putalpha(shown.getchannel("A"))
    return seen


@cache
def _srgb() -> Any:
    return ImageCms.createProfile("sRGB")


def resized(pixels: Rgba, size: tuple[int, int]) -> Rgba:
    """The picture in another width and height, area-averaged where smaller."""
    if size == (pixels.shape[1], pixels.shape[0]):
        return pixels
    across, down = pixels.shape[1] / size[0], pixels.shape[0] / size[1]
    if 1 < across < 2 and 1 < down < 2:
        # What OpenCV is slowest at, and what slow zooms ask for in each frame.
        return averaged(pixels, size)
    method = cv2.INTER_AREA if size[0] < pixels.shape[1] else cv2.INTER_LINEAR
    return np.asarray(cv2.resize(pixels, size, interpolation=method))


def halved(pixels: Rgba) -> Rgba:
    """The picture in half its width and height, rounded up."""
    size = ((pixels.shape[1] + 1) // 2, (pixels.shape[0] + 1) // 2)
    return np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA))

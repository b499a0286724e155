"""Stills as pictures."""

from __future__ import annotations

import cv2
import numpy as np
from PIL import Image, ImageOps

from kitecore.errors import BrokenMedia, MediaMissing
from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import Rgba
from kitecore.media.premultiply import premultiply


def read_still(folder: MediaFolder) -> Rgba:
    """The still in its own size, turned upright by its EXIF tag, premultiplied RGBA."""
    try:
        with Image.open(folder.original) as image:
            upright = ImageOps.exif_transpose(image)
            pixels = np.array(upright.convert("RGBA"))
    except FileNotFoundError as error:
        raise MediaMissing("The file of this picture is missing.") from error
    except (OSError, SyntaxError, ValueError) as error:
        raise BrokenMedia("The picture cannot be decoded any more.") from error
    return premultiply(pixels)


def resized(pixels: Rgba, size: tuple[int, int]) -> Rgba:
    """The picture in another width and height, area-averaged where smaller."""
    if size == (pixels.shape[1], pixels.shape[0]):
        return pixels
    method = cv2.INTER_AREA if size[0] < pixels.shape[1] else cv2.INTER_LINEAR
    return np.asarray(cv2.resize(pixels, size, interpolation=method))

"""Stills as pictures."""

from __future__ import annotations

import cv2
import numpy as np
from PIL import Image, ImageOps

from kitecore.errors import BrokenMedia, MediaMissing
from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import Rgba
from kitecore.media.premultiply import premultiply


def read_still(folder: MediaFolder, size: tuple[int, int] | None = None) -> Rgba:
    """The still, turned upright by its EXIF tag, premultiplied RGBA.

    Parameters
    ----------
    size
        Width and height; area-averaged where smaller. Default: as in the file.
    """
    try:
        with Image.open(folder.original) as image:
            upright = ImageOps.exif_transpose(image)
            pixels = np.array(upright.convert("RGBA"))
    except FileNotFoundError as error:
        raise MediaMissing("The file of this picture is missing.") from error
    except (OSError, SyntaxError, ValueError) as error:
        raise BrokenMedia("The picture cannot be decoded any more.") from error
    pixels = premultiply(pixels)
    if size is None or size == (pixels.shape[1], pixels.shape[0]):
        return pixels
    smaller = size[0] < pixels.shape[1]
    method = cv2.INTER_AREA if smaller else cv2.INTER_LINEAR
    return np.asarray(cv2.resize(pixels, size, interpolation=method))

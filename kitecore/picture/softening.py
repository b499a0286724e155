"""Wide blurs, done small: at a fraction of the size the same blur is cheap and hardly differs."""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.block_means import block_means

MARGIN: Final = 16
"""Pixels on a side that one of the smaller picture may stand for."""
_HALVED: Final = 4.0
_QUARTERED: Final = 8.0
"""Sigmas in pixels from which on a blur is made at a half and at a quarter of the size."""


def softened(pixels: NDArray[Any], sigma: float) -> NDArray[Any]:
    """Gaussian of ``sigma`` pixels; the edges go on as they are.

    Wide ones are made at a smaller size and enlarged again. Both steps blur, too: by so much less is
    blurred between them.
    """
    if sigma < 0.1:
        return pixels
    factor = _factor(sigma)
    if factor == 1:
        return np.asarray(cv2.GaussianBlur(pixels, (0, 0), sigma, borderType=cv2.BORDER_REPLICATE))
    height, width = pixels.shape[:2]
    small = block_means(pixels, factor)
    size = small.shape[1] * factor, small.shape[0] * factor
    # Variances of a mean over so many pixels, and of the straight lines between them.
    rest = sigma**2 - (factor**2 - 1) / 12 - factor**2 / 6
    small = cv2.GaussianBlur(
        small, (0, 0), float(np.sqrt(rest)) / factor, borderType=cv2.BORDER_REPLICATE
    )
    large = cv2.resize(small, size, interpolation=cv2.INTER_LINEAR)
    return np.ascontiguousarray(large[:height, :width])


def _factor(sigma: float) -> int:
    if sigma < _HALVED:
        return 1
    return 2 if sigma < _QUARTERED else min(max(4, int(sigma / 4)), MARGIN)

"""Straight to premultiplied alpha, the form in which all pictures are kept."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

Rgba = NDArray[np.uint8]


@njit(cache=True, nogil=True)
def _premultiply(pixels: Rgba) -> None:
    height, width, _ = pixels.shape
    for y in range(height):
        for x in range(width):
            alpha = np.uint32(pixels[y, x, 3])
            if alpha != 255:
                for c in range(3):
                    product = np.uint32(pixels[y, x, c]) * alpha + np.uint32(128)
                    pixels[y, x, c] = np.uint8(
                        (product + (product >> np.uint32(8))) >> np.uint32(8)
                    )


def premultiply(pixels: Rgba) -> Rgba:
    """Colour times alpha, exactly rounded, in place; uint8, shape (height, width, 4)."""
    pixels = np.ascontiguousarray(pixels)
    _premultiply(pixels)
    return pixels

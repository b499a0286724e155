"""Colours by tables: of premultiplied pixels, as if nothing shone through them."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba


@njit(cache=True, nogil=True)
def by_levels(pixels: Rgba, table: NDArray[np.uint8]) -> Rgba:
    """Each channel by a table of 256 levels."""
    out = np.empty_like(pixels)
    for row in range(pixels.shape[0]):
        for column in range(pixels.shape[1]):
            alpha = int(pixels[row, column, 3])
            out[row, column, 3] = alpha
            for channel in range(3):
                level = int(pixels[row, column, channel])
                if alpha == 255:
                    out[row, column, channel] = table[level]
                else:
                    straight = min((level * 255 + alpha // 2) // max(alpha, 1), 255)
                    out[row, column, channel] = (int(table[straight]) * alpha + 127) // 255
    return out


@njit(cache=True, nogil=True)
def by_luma(pixels: Rgba, table: NDArray[np.uint8]) -> Rgba:
    """Each pixel by the luma of its colour (BT.709) and a table of 256 colours."""
    out = np.empty_like(pixels)
    for row in range(pixels.shape[0]):
        for column in range(pixels.shape[1]):
            at = pixels[row, column]
            alpha = int(at[3])
            luma = int(at[0]) * 13933 + int(at[1]) * 46871 + int(at[2]) * 4732
            if alpha < 255:
                luma = luma * 255 // max(alpha, 1)
            level = min((luma + 32768) >> 16, 255)
            out[row, column, 3] = alpha
            for channel in range(3):
                out[row, column, channel] = (int(table[level, channel]) * alpha + 127) // 255
    return out

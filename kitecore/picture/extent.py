"""Where there is something of a picture."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.arrays import Box
from kitecore.picture.layer import Rgba, packed


def box_seen(pixels: Rgba) -> Box:
    """The box of what is not clear; without width and height if all is.

    Little more is read than what is clear around it.
    """
    left, top, right, bottom = _box(packed(pixels))
    return (left, top, right, bottom) if right else (0, 0, 0, 0)


@njit(cache=True, nogil=True)
def _box(pixels: NDArray[np.uint32]) -> tuple[int, int, int, int]:
    height, width = pixels.shape
    left, top, right, bottom = width, height, 0, 0
    clear = np.uint32(1 << 24)
    for y in range(height):
        line, first, last = pixels[y, :], 0, width
        while first < width and line[first] < clear:
            first += 1
        if first == width:
            continue
        while last > right and line[last - 1] < clear:
            last -= 1
        left, right = min(left, first), max(right, last)
        top, bottom = min(top, y), y + 1
    return left, top, right, bottom

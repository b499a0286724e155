"""A picture made smaller by a whole number: each pixel the mean of a square block."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import packed

Words = NDArray[np.uint32]


def block_means(pixels: NDArray[Any], side: int) -> NDArray[Any]:
    """Means of blocks of ``side`` by ``side`` pixels, rounded; the last ones go on as their edge.

    Parameters
    ----------
    pixels
        One channel or several, shape (height, width) or (height, width, channels).
    side
        1 to 16.

    Returns
    -------
    ndarray
        Of ceil(height / side) by ceil(width / side) pixels, of the same kind.
    """
    height, width = pixels.shape[:2]
    down, across = -height % side, -width % side
    if down or across:
        pixels = cv2.copyMakeBorder(pixels, 0, down, 0, across, cv2.BORDER_REPLICATE)
    size = pixels.shape[1] // side, pixels.shape[0] // side
    if side == 2 or pixels.dtype != np.uint8 or pixels.shape[2:] != (4,):
        return np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA))
    out = np.empty((size[1], size[0], 4), np.uint8)
    _means(packed(np.ascontiguousarray(pixels)), side, packed(out))
    return out


@njit(cache=True, nogil=True)
def _means(pixels: Words, side: int, out: Words) -> None:
    """Two channels in a word of 32 bits: up to 256 bytes fit into 16 bits."""
    pairs, eight, sixteen = np.uint32(0x00FF00FF), np.uint32(8), np.uint32(16)
    low, half, three = np.uint32(0xFFFF), np.uint32(1 << 23), np.uint32(24)
    share = np.uint32(np.rint((1 << 24) / side**2))
    even, odd = np.empty(pixels.shape[1], np.uint32), np.empty(pixels.shape[1], np.uint32)
    columns = out.shape[1]
    first, second = np.empty(columns, np.uint32), np.empty(columns, np.uint32)
    for row in range(out.shape[0]):
        even[:] = np.uint32(0)
        odd[:] = np.uint32(0)
        for y in range(row * side, (row + 1) * side):
            line = pixels[y, :]
            for x in range(len(line)):
                even[x] += line[x] & pairs
                odd[x] += (line[x] >> eight) & pairs
        _together(even, side, first)
        _together(odd, side, second)
        line = out[row, :]
        for x in range(columns):
            red = ((first[x] & low) * share + half) >> three
            green = ((second[x] & low) * share + half) >> three
            blue = ((first[x] >> sixteen) * share + half) >> three
            alpha = ((second[x] >> sixteen) * share + half) >> three
            line[x] = red | (green << eight) | (blue << sixteen) | (alpha << three)


@njit(inline="always")
def _together(sums, side, out):  # type: ignore[no-untyped-def]
    """Sums of so many neighbours."""
    if side == 4:
        # The usual one, written out: the compiler does it many at a time.
        for x in range(len(out)):
            out[x] = sums[4 * x] + sums[4 * x + 1] + sums[4 * x + 2] + sums[4 * x + 3]
        return
    for x in range(len(out)):
        total = np.uint32(0)
        for i in range(side * x, side * x + side):
            total += sums[i]
        out[x] = total

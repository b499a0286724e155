"""Pictures made a little smaller: each pixel the mean of what it covers."""

from __future__ import annotations

from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.arrays import Size

Rgba = NDArray[np.uint8]
Taps = tuple[NDArray[np.int64], NDArray[np.uint32]]
"""Where what is covered begins, and by how much each of a few in a row counts: shape (n, few)."""

_ROUGH: Final = 1 << 8
_FINE: Final = 1 << 16
"""What weights come to together: down, and across."""


def averaged(pixels: Rgba, size: Size) -> Rgba:
    """The mean of what each pixel covers, as OpenCV's area interpolation, within a level of it.

    Parameters
    ----------
    pixels
        RGBA, shape (height, width, 4).
    size
        Width and height, none of them larger.
    """
    height, width = pixels.shape[:2]
    out = np.empty((size[1], size[0], 4), np.uint8)
    down, across = _covered(height, size[1], _ROUGH), _covered(width, size[0], _FINE)
    rows = np.ascontiguousarray(pixels).reshape(height, 4 * width)
    _average(rows, down, across, out.reshape(size[1], 4 * size[0]))
    return out


def _covered(count: int, wanted: int, one: int) -> Taps:
    """How much of each of ``count`` in a row is covered by each of ``wanted``."""
    each = count / wanted
    begins = np.arange(wanted) * each
    first = np.floor(begins + 1e-9).astype(np.int64)
    few = min(int(np.ceil(each)) + 1, count)
    first = np.minimum(first, count - few)
    places = first[:, None] + np.arange(few)
    shares = np.minimum(places + 1, begins[:, None] + each) - np.maximum(places, begins[:, None])
    weights = np.rint(np.maximum(shares, 0) / each * one).astype(np.int64)
    # Together exactly one: what rounding took or gave falls to the heaviest.
    heaviest = weights.argmax(axis=1)
    weights[np.arange(wanted), heaviest] += one - weights.sum(axis=1)
    return first, weights.astype(np.uint32)


@njit(cache=True, nogil=True)
def _average(pixels: Rgba, down: Taps, across: Taps, out: Rgba) -> None:
    """Rows together first, many levels at a time; then each pixel."""
    total = np.empty(pixels.shape[1], np.uint32)
    rows, row_weights = down
    columns, weights = across
    half, last, one = np.uint32(_FINE * _ROUGH // 2), np.uint32(24), np.uint64(1)
    few = weights.shape[1]
    for y in range(out.shape[0]):
        total[:] = np.uint32(0)
        for tap in range(row_weights.shape[1]):
            line, weight = pixels[rows[y] + tap, :], row_weights[y, tap]
            for k in range(len(total)):
                total[k] += np.uint32(line[k]) * weight
        drawn = out[y, :]
        for x in range(len(columns)):
            at, to = np.uint64(4 * columns[x]), np.uint64(4 * x)
            red = green = blue = alpha = half
            for tap in range(few):
                weight, there = weights[x, tap], at + np.uint64(4 * tap)
                red += total[there] * weight
                green += total[there + one] * weight
                blue += total[there + one + one] * weight
                alpha += total[there + one + one + one] * weight
            drawn[to], drawn[to + one] = np.uint8(red >> last), np.uint8(green >> last)
            drawn[to + one + one] = np.uint8(blue >> last)
            drawn[to + one + one + one] = np.uint8(alpha >> last)

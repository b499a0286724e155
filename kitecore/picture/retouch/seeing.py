"""Whether a place still shows what it showed when a stroke was painted on it, or something passes."""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.picture.layer import Rgba

_SAME: Final = 12.0
_OTHER: Final = 28.0
"""Levels by which a place may differ and be the same, and from which on it is another."""
_CELL: Final = 4
"""Pixels of the side of a square in which differences are averaged: grain is none."""
_EDGES: Final = 0.25
"""Share of the range within such a square that an edge, which lies a little off, may differ by."""
_EVERY: Final = 3
"""One pixel of so many, across and down, tells how the light has changed."""

Array = NDArray[Any]


def still_seen(now: Rgba, then: Rgba) -> Coverage:
    """How far each pixel shows the same as then, 0..255, in whatever light."""
    # Parts of a picture come as views: one layout is one kernel, compiled at set-up.
    now, then = np.ascontiguousarray(now), np.ascontiguousarray(then)
    cells = _seen(now, then, _change_of_light(now, then))
    height, width = cells.shape[0] * _CELL, cells.shape[1] * _CELL
    whole = cv2.resize(cells, (width, height), interpolation=cv2.INTER_LINEAR)
    return np.ascontiguousarray(whole[: now.shape[0], : now.shape[1]])


@njit(cache=True, nogil=True)
def _change_of_light(now: Array, then: Array) -> Array:
    """By how much each colour has changed: the median, which what passes hardly moves."""
    height, width, _ = now.shape
    out = np.empty(3, np.float32)
    for c in range(3):
        counts = np.zeros(511, np.int64)
        many = 0
        for y in range(0, height, _EVERY):
            for x in range(0, width, _EVERY):
                counts[np.int64(now[y, x, c]) - np.int64(then[y, x, c]) + 255] += 1
                many += 1
        below, value = counts[0], 0
        while 2 * below < many:
            value += 1
            below += counts[value]
        out[c] = value - 255
    return out


@njit(cache=True, nogil=True)
def _seen(now: Array, then: Array, light: Array) -> Array:
    """How far each cell shows the same; edges count from a pixel around it."""
    height, width, _ = now.shape
    rows, columns = (height + _CELL - 1) // _CELL, (width + _CELL - 1) // _CELL
    out = np.empty((rows, columns), np.uint8)
    for row in range(rows):
        for column in range(columns):
            top, left = row * _CELL, column * _CELL
            bottom, right = min(top + _CELL, height), min(left + _CELL, width)
            total, spread = np.float32(0), np.float32(0)
            for y in range(top, bottom):
                for x in range(left, right):
                    gap = np.float32(0)
                    for c in range(3):
                        other = np.float32(now[y, x, c]) - np.float32(then[y, x, c]) - light[c]
                        gap = max(gap, abs(other))
                    total += gap
            for c in range(3):
                low, high = np.int64(255), np.int64(0)
                for y in range(max(top - 1, 0), min(bottom + 1, height)):
                    for x in range(max(left - 1, 0), min(right + 1, width)):
                        low, high = min(low, then[y, x, c]), max(high, then[y, x, c])
                spread = max(spread, np.float32(high - low))
            mean = total / np.float32((bottom - top) * (right - left))
            over = mean - np.float32(_EDGES) * spread
            share = (np.float32(_OTHER) - over) / np.float32(_OTHER - _SAME)
            out[row, column] = np.uint8(min(max(share, np.float32(0)), np.float32(1)) * 255 + 0.5)
    return out

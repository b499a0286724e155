"""Planes of 4:2:0 through a table by Cb, Cr and Y, in whole numbers.

An entry is one number with three lanes of 21 bits: wide enough for weights that sum to 256. Weights
are made once for the two by two pixels that share their chroma: of the three nearest nodes, as on a
cut through a lattice of tetrahedra (see `kitecore.colour.lattice`). A row is worked on in loops of
one kind each: the compiler does what needs no reading of tables many pixels at a time.
"""

# mypy: disable-error-code="no-untyped-def"
from __future__ import annotations

from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.colour.lookup import STEPS, colour_of

PLANE_STEPS: Final = 32
"""Of an entry to a level of luma or chroma."""

Words = NDArray[np.uint64]
Plane = NDArray[np.uint8]
Planes = tuple[Plane, Plane, Plane]
"""Luma, Cb and Cr, C-contiguous; rows may be padded."""
Cells = tuple[NDArray[np.uint32], NDArray[np.uint32], tuple[Words, Words, Words]]
"""Of each chroma of a row: where its cell begins, the way to its middle corner, and three weights."""


@njit(cache=True, nogil=True)
def _room(columns: int) -> Cells:
    return (
        np.empty(columns, np.uint32),
        np.empty(columns, np.uint32),
        (
            np.empty(columns, np.uint64),
            np.empty(columns, np.uint64),
            np.empty(columns, np.uint64),
        ),
    )


@njit(inline="always")
def _find(cb, cr, size, cells):
    """The cells of a row of chroma."""
    begin, middle, weights = cells
    bits = np.uint32(3 if size == 33 else 4)
    side, many = np.uint32(1 << bits), np.uint32(size)
    low, up = np.uint32(side - np.uint32(1)), np.uint32(np.uint32(8) - bits)
    across, down = np.uint32(256), np.uint32(size * 256)
    near, between, far = weights
    for pair in range(len(begin)):
        u, v = np.uint32(cb[pair]), np.uint32(cr[pair])
        pu, pv = np.uint32(u & low), np.uint32(v & low)
        most, least = max(pu, pv), min(pu, pv)
        begin[pair] = np.uint32(np.uint32((u >> bits) * many + (v >> bits)) * np.uint32(256))
        middle[pair] = down if pu > pv else across
        near[pair] = np.uint64(np.uint32(np.uint32(side - most) << up))
        between[pair] = np.uint64(np.uint32(np.uint32(most - least) << up))
        far[pair] = np.uint64(np.uint32(least << up))


@njit(inline="always")
def _mixed(words, size, cells, pair, level):
    """Three lanes, 256 times an entry's."""
    begin, middle, (near, between, far) = cells
    at = np.uint32(begin[pair] + np.uint32(level))
    total = words[at] * near[pair] + words[np.uint32(at + middle[pair])] * between[pair]
    return total + words[np.uint32(at + np.uint32(size * 256 + 256))] * far[pair]


@njit(cache=True, nogil=True)
def rgba_through(planes: Planes, words: Words, size: int, out: NDArray[np.uint32]) -> None:
    """Opaque RGBA, of entries as in a lattice; chroma has half the size, rounded up."""
    luma, cb, cr = planes
    height, width = out.shape
    columns = (width + 1) // 2
    cells = _room(columns)
    mixed = np.empty(width, np.uint64)
    for row in range((height + 1) // 2):
        _find(cb[row, :], cr[row, :], size, cells)
        for y in range(2 * row, min(2 * row + 2, height)):
            lights, line = luma[y, :], out[y, :]
            for x in range(width):
                mixed[x] = _mixed(words, size, cells, x >> 1, lights[x])
            for x in range(width):
                line[x] = colour_of(mixed[x], np.int32(STEPS // 2))


@njit(inline="always")
def _level(mixed, lane):
    """A level from 256 times ``PLANE_STEPS`` of it in a lane."""
    value = np.uint32((mixed >> np.uint64(8 + 21 * lane)) & np.uint64(8191))
    return np.uint8((value + np.uint32(PLANE_STEPS // 2)) // np.uint32(PLANE_STEPS))


@njit(cache=True, nogil=True)
def planes_through(
    planes: Planes, words: Words, size: int, shape: tuple[int, int], out: Planes
) -> None:
    """Planes again, ``shape`` their width and height, both even; chroma at the mean of four lumas."""
    luma, cb, cr = planes
    new_luma, new_cb, new_cr = out
    width, height = shape
    columns = width // 2
    cells = _room(columns)
    mixed, means = np.empty(width, np.uint64), np.empty(columns, np.uint32)
    for row in range(height // 2):
        _find(cb[row, :], cr[row, :], size, cells)
        upper, lower = luma[2 * row, :], luma[2 * row + 1, :]
        for pair in range(columns):
            total = np.uint32(upper[2 * pair]) + np.uint32(upper[2 * pair + 1])
            total += np.uint32(lower[2 * pair]) + np.uint32(lower[2 * pair + 1])
            means[pair] = (total + np.uint32(2)) >> np.uint32(2)
        for y in range(2 * row, 2 * row + 2):
            lights, line = luma[y, :], new_luma[y, :]
            for x in range(width):
                mixed[x] = _mixed(words, size, cells, x >> 1, lights[x])
            for x in range(width):
                line[x] = _level(mixed[x], 0)
        blue, red = new_cb[row, :], new_cr[row, :]
        for pair in range(columns):
            mixed[pair] = _mixed(words, size, cells, pair, means[pair])
        for pair in range(columns):
            blue[pair], red[pair] = _level(mixed[pair], 1), _level(mixed[pair], 2)

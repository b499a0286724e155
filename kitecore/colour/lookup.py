"""Colours through a lattice: tetrahedral interpolation in whole numbers (see `kitecore.colour.lattice`).

An entry of a lattice is one number with red, green and blue in lanes of 21 bits: wide enough for
weights that sum to 256. A row is worked on in loops of one kind each: the compiler does what needs
no reading of tables many pixels at a time.
"""

# mypy: disable-error-code="no-untyped-def"
from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.colour.axis import Places
from kitecore.colour.rgb import Rgb

STEPS: Final = 1 << 4
"""Of an entry to a level of 255."""
BELOW: Final = 0.5
"""How far entries reach below black and above white: what is cut off is so after interpolation."""
_FLOOR: Final = round(BELOW * 255 * STEPS)
_MOST: Final = round((1 + 2 * BELOW) * 255 * STEPS)
_PART_BITS: Final = 10
"""Of how far a value lies into its cell, 0..256."""

Words = NDArray[np.uint64]


def packed_entries(values: Rgb) -> Words:
    """Colours, shape (..., 3), as one number each; 0..1 with ``BELOW`` around."""
    whole = np.clip(np.rint(values * (255 * STEPS)) + _FLOOR, 0, _MOST).astype(np.uint64)
    lanes: Words = whole[..., 0] | whole[..., 1] << np.uint64(21) | whole[..., 2] << np.uint64(42)
    return lanes


def packed_lattice(values: Rgb, size: int) -> Words:
    """Entries of a lattice of colours, red being the slowest axis."""
    words = packed_entries(values).reshape(-1)
    # Reading the far corner of the last cell with weight 0 must not leave the table.
    return np.concatenate([words, np.zeros(size**2 + size + 1, np.uint64)])


@dataclass(frozen=True)
class Axes:
    """For each level of red, green and blue: where its cell begins, and how far it lies into it.

    One number each, the begin in its upper half and the part in a place of its own in the lower, so
    that the sum of three has all that there is to know of a colour.
    """

    red: Words
    green: Words
    blue: Words

    @classmethod
    def of(cls, places: Places, levels: int) -> Axes:
        """Of a lattice whose colours lie at ``places`` along each axis, 0 to 1."""
        size, at = len(places), np.arange(levels) / (levels - 1)
        begin = np.clip(np.searchsorted(places, at, side="right") - 1, 0, size - 2)
        low, high = places[begin], places[begin + 1]
        part = np.rint((at - low) / (high - low) * 256).astype(np.uint64)
        cell, upper, bits = begin.astype(np.uint64), np.uint64(32), _PART_BITS
        return cls(
            (cell * np.uint64(size**2)) << upper | part,
            (cell * np.uint64(size)) << upper | part << np.uint64(bits),
            cell << upper | part << np.uint64(2 * bits),
        )

    @property
    def all(self) -> tuple[Words, Words, Words]:
        return self.red, self.green, self.blue


@njit(inline="always")
def _corners(cell, parts, size):
    """Of the tetrahedron that a colour lies in: entries, the nearest to black first, and weights."""
    at, ten, field = np.int32(cell), np.uint32(_PART_BITS), np.uint32((1 << _PART_BITS) - 1)
    pr, pg = np.int32(parts & field), np.int32((parts >> ten) & field)
    pb = np.int32(parts >> np.uint32(2 * _PART_BITS))
    red, green, one = np.int32(size * size), np.int32(size), np.int32(1)
    far = np.int32(red + green + one)
    high, low = max(max(pr, pg), pb), min(min(pr, pg), pb)
    middle = np.int32(pr + pg + pb - high - low)
    first = red if pr == high else (green if pg == high else one)
    last = one if pb == low else (green if pg == low else red)
    entries = np.uint32(at), np.uint32(at + first), np.uint32(at + far - last), np.uint32(at + far)
    weights = (
        np.uint32(np.int32(256) - high),
        np.uint32(high - middle),
        np.uint32(middle - low),
        np.uint32(low),
    )
    return entries, weights


@njit(inline="always")
def _byte(lane, more):
    """A level from what 256 weights made of entries, ``more`` steps added before it is cut."""
    level = np.int32(np.int32(lane) - np.int32(_FLOOR) + more) >> np.int32(4)
    return np.uint32(min(max(level, np.int32(0)), np.int32(255)))


@njit(inline="always")
def colour_of(mixed, more):
    """Opaque RGBA of three lanes, each 256 times an entry's."""
    lane = np.uint64(8191)
    r = _byte(np.uint32((mixed >> np.uint64(8)) & lane), more)
    g = _byte(np.uint32((mixed >> np.uint64(29)) & lane), more)
    b = _byte(np.uint32(mixed >> np.uint64(50)), more)
    low = np.uint32(r | np.uint32(g << np.uint32(8)))
    return np.uint32(low | np.uint32(b << np.uint32(16)) | np.uint32(0xFF000000))


@njit(inline="always")
def _one(table, size, place, more):
    """One colour; ``place`` is the sum of what the axes say."""
    cell, parts = np.uint32(place >> np.uint64(32)), np.uint32(place)
    (a, b, c, d), (w, x, y, z) = _corners(cell, parts, size)
    mixed = table[a] * np.uint64(w) + table[b] * np.uint64(x)
    return colour_of(mixed + table[c] * np.uint64(y) + table[d] * np.uint64(z), more)


@njit(cache=True, nogil=True)
def look_up(
    pixels: NDArray[np.uint32],
    table: Words,
    size: int,
    axes: tuple[Words, Words, Words],
    out: NDArray[np.uint32],
) -> None:
    """Premultiplied RGBA through a lattice of ``size`` colours along each axis."""
    rows, columns = pixels.shape
    byte, eight, sixteen = np.uint32(255), np.uint32(8), np.uint32(16)
    red, green, blue = axes
    a, b, c = (
        np.empty(columns, np.uint32),
        np.empty(columns, np.uint32),
        np.empty(columns, np.uint32),
    )
    # First how far into its cell, then weights.
    near, far = np.empty(columns, np.uint32), np.empty(columns, np.uint32)
    mixed = np.empty(columns, np.uint64)
    last, half = np.uint32(size * size + size + 1), np.uint32(0xFFFF)
    for y in range(rows):
        line, done = pixels[y, :], out[y, :]
        solid = np.uint32(0xFF000000)
        for x in range(columns):
            word = line[x]
            solid &= word
            place = (
                red[word & byte] + green[(word >> eight) & byte] + blue[(word >> sixteen) & byte]
            )
            a[x], near[x] = np.uint32(place >> np.uint64(32)), np.uint32(place)
        if solid != np.uint32(0xFF000000):
            _look_through(line, table, size, axes, done)
            continue
        for x in range(columns):
            (_, b[x], c[x], _), (w0, w1, w2, w3) = _corners(a[x], near[x], size)
            near[x] = np.uint32(w0 | np.uint32(w1 << sixteen))
            far[x] = np.uint32(w2 | np.uint32(w3 << sixteen))
        for x in range(columns):
            w, v = near[x], far[x]
            total = table[a[x]] * np.uint64(w & half) + table[b[x]] * np.uint64(w >> sixteen)
            total += table[c[x]] * np.uint64(v & half)
            mixed[x] = total + table[np.uint32(a[x] + last)] * np.uint64(v >> sixteen)
        for x in range(columns):
            done[x] = colour_of(mixed[x], np.int32(STEPS // 2))


@njit(cache=True, nogil=True)
def _look_through(
    line: NDArray[np.uint32],
    table: Words,
    size: int,
    axes: tuple[Words, Words, Words],
    out: NDArray[np.uint32],
) -> None:
    """A row that lets something through: of each pixel its own colour."""
    red, green, blue = axes
    byte, eight, sixteen = np.uint32(255), np.uint32(8), np.uint32(16)
    for x in range(len(line)):
        word = line[x]
        alpha = word >> np.uint32(24)
        if alpha == 0:
            out[x] = np.uint32(0)
            continue
        half = alpha // np.uint32(2)
        r = min(((word & byte) * byte + half) // alpha, byte)
        g = min((((word >> eight) & byte) * byte + half) // alpha, byte)
        b = min((((word >> sixteen) & byte) * byte + half) // alpha, byte)
        place = red[r] + green[g] + blue[b]
        done = _one(table, size, place, np.int32(STEPS // 2))
        half = np.uint32(127)
        r = ((done & byte) * alpha + half) // byte
        g = (((done >> eight) & byte) * alpha + half) // byte
        b = (((done >> sixteen) & byte) * alpha + half) // byte
        out[x] = np.uint32(r | g << eight | b << sixteen | alpha << np.uint32(24))


@njit(cache=True, nogil=True)
def look_up_deep(
    pixels: NDArray[np.uint16],
    table: Words,
    size: int,
    axes: tuple[Words, Words, Words],
    out: NDArray[np.uint32],
    rounding: float,
) -> None:
    """RGB of 16 bits, to opaque RGBA of 8: ``rounding`` of a level is added before it is cut."""
    rows, columns, _ = pixels.shape
    red, green, blue = axes
    more = np.int32(rounding * STEPS)
    for y in range(rows):
        for x in range(columns):
            r, g, b = pixels[y, x, 0], pixels[y, x, 1], pixels[y, x, 2]
            out[y, x] = _one(table, size, red[r] + green[g] + blue[b], more)

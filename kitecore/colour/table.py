"""A grade baked into one lattice, and applied in one pass.

The lattice keeps values from -½ to 1½, so that a curve that leaves black or white is cut off after
interpolation, at its exact place, and not within a cell.
"""

from __future__ import annotations

from functools import cached_property, lru_cache
from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.colour.axis import LEVEL, Places, even_places, places_for
from kitecore.colour.chain import graded
from kitecore.colour.cube import FindLook
from kitecore.colour.lattice import lattice, sampled
from kitecore.colour.looks import shipped
from kitecore.colour.qualify import matte_of
from kitecore.colour.rgb import Rgb
from kitecore.document import Grade, Zone
from kitecore.document.grade import Input

FINE: Final = 65
"""Colours along each axis of a table for a finished film."""
DRAFT: Final = 33
"""For watching: baked anew within the time of a frame."""

_LOWEST, _SPAN = -0.5, 2.0
_MOST: Final = 8191

_TRIED: Final = np.concatenate(
    [
        np.random.default_rng(1).random((3000, 3), np.float32),
        np.repeat(np.linspace(0, 1, 256, dtype=np.float32)[:, None], 3, axis=1),
    ]
)
"""Colours at which two tables of a grade are compared."""

Pixels = NDArray[np.uint8]


class Table:
    """Colours by colour.

    Parameters
    ----------
    values
        float32, shape (n, n, n, 3), by red, green, blue.
    places
        Where its colours lie along each axis, 0 to 1 (see `kitecore.colour.axis`); in even steps if
        not given.
    """

    def __init__(self, values: NDArray[np.float32], places: Places | None = None) -> None:
        self.values = values
        self.places = even_places(len(values)) if places is None else places

    @property
    def size(self) -> int:
        return len(self.values)

    @cached_property
    def _packed(self) -> NDArray[np.uint64]:
        """All three channels of an entry in one word, 13 bits each in lanes of 21."""
        whole = np.rint((self.values.reshape(-1, 3) - _LOWEST) * (_MOST / _SPAN))
        r, g, b = np.clip(whole, 0, _MOST).astype(np.uint64).T
        words = r | g << np.uint64(21) | b << np.uint64(42)
        # Reading the far corner of the last cell with weight 0 must not leave the table.
        return np.concatenate([words, np.zeros(self.size**2 + self.size + 1, np.uint64)])

    def _cells(self, levels: int) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
        """For each of so many levels: the cell it lies in, and how far into it, in 256ths."""
        at = np.arange(levels) / (levels - 1)
        begin = np.clip(np.searchsorted(self.places, at, side="right") - 1, 0, self.size - 2)
        low, high = self.places[begin], self.places[begin + 1]
        return begin, np.rint((at - low) / (high - low) * 256).astype(np.int64)

    @cached_property
    def _stops(self) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
        """For each value of a byte: where its cell begins along each axis, and how far into it."""
        begin, parts = self._cells(256)
        return np.stack([begin * self.size**2, begin * self.size, begin]), parts

    @cached_property
    def _deep_stops(self) -> tuple[NDArray[np.int16], NDArray[np.int16]]:
        """For each value of 16 bits: its cell, and how far into it."""
        begin, parts = self._cells(65536)
        return begin.astype(np.int16), parts.astype(np.int16)

    def over(self, pixels: Pixels) -> Pixels:
        """Premultiplied RGBA after the grade: a new picture, uint8, shape (height, width, 4)."""
        out = np.empty(pixels.shape, np.uint8)
        steps, parts = self._stops
        _over(_words(pixels), self._packed, self.size, steps, parts, _OUT, _words(out))
        return out

    def over_deep(self, pixels: NDArray[np.uint16]) -> Pixels:
        """RGB of 16 bits after the grade, as opaque RGBA of 8."""
        height, width, _ = pixels.shape
        out = np.empty((height, width, 4), np.uint8)
        _over_deep(pixels, self._packed, self.size, *self._deep_stops, _OUT, _words(out))
        return out

    def at(self, rgb: Rgb) -> Rgb:
        """Floating-point colours after the grade, not clipped."""
        if not np.array_equal(self.places, even_places(self.size)):
            rgb = np.interp(rgb, self.places, even_places(self.size)).astype(rgb.dtype)
        return sampled(self.values, rgb)


def bake(grade: Grade, find: FindLook, size: int = FINE) -> Table:
    """The table of a grade that has no keys.

    Zones limited by masks are not in it: they have tables of their own (see `render.grading`).
    """
    if grade.on and grade.input.works:
        start = _from_camera(grade.input, size)
        rest = grade.model_copy(update={"input": Input()})
        return Table(_cubed(graded(start, rest, find), size))

    def change(rgb: Rgb) -> Rgb:
        return graded(rgb, grade, find)

    even = Table(_cubed(change(lattice(size)), size))
    # While a slider moves, a second table costs more than a level is worth.
    places = places_for(change, size, LEVEL if size > DRAFT else 2 * LEVEL)
    if np.array_equal(places, even.places):
        return even
    bent = Table(_cubed(change(lattice(size, places=places)), size), places)
    # What bends along no axis alone, but across them, may be met worse by uneven places.
    truth = np.clip(change(_TRIED), 0, 1)
    return min(even, bent, key=lambda table: _missed(table, truth))


def _cubed(values: Rgb, size: int) -> NDArray[np.float32]:
    return values.astype(np.float32, copy=False).reshape(size, size, size, 3)


def _missed(table: Table, truth: Rgb) -> float:
    """How far a table is from the truth for `_TRIED`: in the mean, and a little at the worst."""
    errors = np.abs(np.clip(table.at(_TRIED), 0, 1) - truth)
    return float(errors.mean() + errors.max() / 10)


@lru_cache(maxsize=8)
def _from_camera(coding: Input, size: int) -> NDArray[np.float32]:
    """The lattice after the first stage, which is slow and stays the same while others change."""
    done = graded(lattice(size), Grade(input=coding), shipped)
    done.flags.writeable = False
    return np.asarray(done, np.float32)


def bake_matte(zone: Zone, size: int = FINE) -> Table:
    """Which colours the ranges of a zone mean, as greys."""
    matte = matte_of(lattice(size), zone).astype(np.float32)
    return Table(np.repeat(matte[:, None], 3, axis=1).reshape(size, size, size, 3))


def _words(pixels: Pixels) -> NDArray[np.uint32]:
    return np.ascontiguousarray(pixels).view(np.uint32)[..., 0]


_OUT = np.rint(np.clip((np.arange(_MOST + 1) * (_SPAN / _MOST) + _LOWEST) * 255, 0, 255)).astype(
    np.uint8
)
"""From 13 bits of the table to a byte."""


@njit(inline="always")
def _read(table, final, size, at, pr, pg, pb):  # type: ignore[no-untyped-def]
    """One colour: tetrahedra as in `lattice`; a lane is wide enough for weights that sum to 256."""
    one, red = np.int64(1), size * size
    far = red + size + one
    high, low = max(max(pr, pg), pb), min(min(pr, pg), pb)
    middle = pr + pg + pb - high - low
    first = red if pr == high else (size if pg == high else one)
    last = one if pb == low else (size if pg == low else red)
    mixed = (
        table[at] * np.uint64(256 - high)
        + table[at + np.uint64(first)] * np.uint64(high - middle)
        + table[at + np.uint64(far - last)] * np.uint64(middle - low)
        + table[at + np.uint64(far)] * np.uint64(low)
    )
    most = np.uint64(_MOST)
    return (
        np.uint32(final[(mixed >> np.uint64(8)) & most]),
        np.uint32(final[(mixed >> np.uint64(29)) & most]),
        np.uint32(final[mixed >> np.uint64(50)]),
    )


@njit(cache=True, nogil=True)
def _over(
    pixels: NDArray[np.uint32],
    table: NDArray[np.uint64],
    size: int,
    steps: NDArray[np.int64],
    parts: NDArray[np.int64],
    final: NDArray[np.uint8],
    out: NDArray[np.uint32],
) -> None:
    byte, eight, sixteen = np.uint32(255), np.uint32(8), np.uint32(16)
    solid = np.uint32(0xFF000000)
    rows, columns = pixels.shape
    for y in range(rows):
        for x in range(columns):
            word = pixels[y, x]
            if word >= solid:
                r, g, b = word & byte, (word >> eight) & byte, (word >> sixteen) & byte
                at = np.uint64(steps[0, r] + steps[1, g] + steps[2, b])
                r, g, b = _read(table, final, size, at, parts[r], parts[g], parts[b])
                out[y, x] = r | g << eight | b << sixteen | solid
            else:
                out[y, x] = _through(word, table, steps, parts, final, size)


@njit(cache=True, nogil=True)
def _through(word, table, steps, parts, final, size):  # type: ignore[no-untyped-def]
    """The same for a pixel that lets something through: its own colour is graded."""
    alpha, byte = word >> np.uint32(24), np.uint32(255)
    if alpha == 0:
        return np.uint32(0)
    half = alpha // np.uint32(2)
    r = min(((word & byte) * byte + half) // alpha, byte)
    g = min((((word >> np.uint32(8)) & byte) * byte + half) // alpha, byte)
    b = min((((word >> np.uint32(16)) & byte) * byte + half) // alpha, byte)
    at = np.uint64(steps[0, r] + steps[1, g] + steps[2, b])
    r, g, b = _read(table, final, size, at, parts[r], parts[g], parts[b])
    half = np.uint32(127)
    r, g, b = (r * alpha + half) // byte, (g * alpha + half) // byte, (b * alpha + half) // byte
    return np.uint32(r | g << np.uint32(8) | b << np.uint32(16) | alpha << np.uint32(24))


@njit(cache=True, nogil=True)
def _over_deep(
    pixels: NDArray[np.uint16],
    table: NDArray[np.uint64],
    size: int,
    begin: NDArray[np.int16],
    parts: NDArray[np.int16],
    final: NDArray[np.uint8],
    out: NDArray[np.uint32],
) -> None:
    rows, columns, _ = pixels.shape
    for y in range(rows):
        for x in range(columns):
            r, g, b = pixels[y, x, 0], pixels[y, x, 1], pixels[y, x, 2]
            at = np.uint64((np.int64(begin[r]) * size + begin[g]) * size + begin[b])
            pr, pg, pb = np.int64(parts[r]), np.int64(parts[g]), np.int64(parts[b])
            r, g, b = _read(table, final, size, at, pr, pg, pb)
            out[y, x] = r | g << np.uint32(8) | b << np.uint32(16) | np.uint32(0xFF000000)

"""A grade baked into one lattice, and applied in one pass.

The lattice keeps values from -½ to 1½, so that a curve that leaves black or white is cut off after
interpolation, at its exact place, and not within a cell.
"""

from __future__ import annotations

from functools import cached_property, lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.colour.axis import (
    FEWER,
    LEVEL,
    SAMPLES,
    Places,
    even_places,
    places_for,
    ramps,
)
from kitecore.colour.chain import graded
from kitecore.colour.cube import FindLook
from kitecore.colour.lattice import lattice, sampled
from kitecore.colour.looks import shipped
from kitecore.colour.lookup import Axes, Words, look_up, look_up_deep, packed_lattice
from kitecore.colour.qualify import matte_of
from kitecore.colour.rgb import Rgb
from kitecore.document import Grade, Zone
from kitecore.document.grade import Input

FINE: Final = 65
"""Colours along each axis of a table for a finished film."""
MOST: Final = 129
"""Of one whose grade jumps so often that fewer miss it."""
DRAFT: Final = 33
"""For watching: baked anew within the time of a frame, unless the grade jumps often."""

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
    def _words(self) -> Words:
        return packed_lattice(self.values, self.size)

    @cached_property
    def _axes(self) -> Axes:
        return Axes.of(self.places, 256)

    @cached_property
    def _deep_axes(self) -> Axes:
        return Axes.of(self.places, 65536)

    def over(self, pixels: Pixels) -> Pixels:
        """Premultiplied RGBA after the grade: a new picture, uint8, shape (height, width, 4)."""
        out = np.empty(pixels.shape, np.uint8)
        look_up(_packed(pixels), self._words, self.size, self._axes.all, _packed(out))
        return out

    def over_deep(self, pixels: NDArray[np.uint16], rounding: float = 0.5) -> Pixels:
        """RGB of 16 bits after the grade, as opaque RGBA of 8.

        Parameters
        ----------
        rounding
            Share of a level that is added before what is finer is cut off.
        """
        height, width, _ = pixels.shape
        out = np.empty((height, width, 4), np.uint8)
        axes = self._deep_axes.all
        look_up_deep(pixels, self._words, self.size, axes, _packed(out), rounding)
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

    done = change(_tried(size))
    even = Table(_cubed(done[: size**3], size))
    # While a slider moves, a second table costs more than a level is worth; jumps are seen.
    enough = LEVEL if size > DRAFT else 2 * LEVEL
    places = places_for(done[size**3 :], size, enough, MOST)
    if np.array_equal(places, even.places):
        return even
    many = len(places)
    bent = Table(_cubed(change(lattice(many, places=places)), many), places)
    # What bends along no axis alone, but across them, may be met worse by uneven places.
    truth = np.clip(change(_TRIED), 0, 1)
    return min(even, bent, key=lambda table: _missed(table, truth))


def _cubed(values: Rgb, size: int) -> NDArray[np.float32]:
    return values.astype(np.float32, copy=False).reshape(size, size, size, 3)


def _missed(table: Table, truth: Rgb) -> float:
    """How far a table is from the truth for `_TRIED`: in the mean, and a little at the worst."""
    errors = np.abs(np.clip(table.at(_TRIED), 0, 1) - truth)
    return float(errors.mean() + errors.max() / 10)


@lru_cache(maxsize=4)
def _tried(size: int) -> NDArray[np.float32]:
    """The colours of a table in even steps, and behind them those that tell where it bends."""
    start = np.concatenate([lattice(size), ramps(SAMPLES if size > DRAFT else FEWER)])
    start.flags.writeable = False
    return start


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


def _packed(pixels: Pixels) -> NDArray[np.uint32]:
    return np.ascontiguousarray(pixels).view(np.uint32)[..., 0]

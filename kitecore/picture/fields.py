"""Smooth noise over a picture: random values on a grid, and the way between them."""

from __future__ import annotations

import math
from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.motion.noise import generator

Field = NDArray[np.float32]

_SIDE: Final = 64
"""Cells of the grid on a side; beyond them it begins again."""
_FINE: Final = 6
"""Values to a cell: the straight way between two of them is as good as the curve."""


def noise_field(
    size: Size, cell: tuple[float, float], shift: tuple[float, float], *seeds: int
) -> Field:
    """Value noise in two directions (K. Perlin's fade), -1..1, shape (height, width).

    Parameters
    ----------
    size
        In pixels.
    cell
        Pixels from one random value to the next, across and down.
    shift
        Cells by which it has gone on, across and down; counted from the middle of the picture, so
        that it looks alike at every size.
    """
    return enlarged(coarse_noise(size, cell, shift, *seeds), size)


def coarse_noise(
    size: Size, cell: tuple[float, float], shift: tuple[float, float], *seeds: int
) -> Field:
    """The same in as few values as tell it; to be `enlarged`."""
    grid = generator(*seeds).uniform(-1, 1, (_SIDE, _SIDE)).astype(np.float32)
    counts = tuple(
        max(1, math.ceil(side / max(1.0, one / _FINE)))
        for side, one in zip(size, cell, strict=True)
    )
    across, down = (
        _weights(side, count, one, by)
        for side, count, one, by in zip(size, counts, cell, shift, strict=True)
    )
    return np.asarray(down @ grid @ across.T)


def enlarged(coarse: Field, size: Size) -> Field:
    return np.asarray(cv2.resize(coarse, size, interpolation=cv2.INTER_LINEAR))


def octaves(
    size: Size, cell: tuple[float, float], seed: int, count: int = 4, rough: float = 0.5
) -> Field:
    """Noise of several sizes, each half as large as the one before; spread evenly over 0..1."""
    total = np.zeros((size[1], size[0]), np.float32)
    power = 0.0
    for step in range(count):
        part = rough**step
        finer = (cell[0] / 2**step, cell[1] / 2**step)
        total += np.float32(part) * noise_field(size, finer, (0.0, 0.0), seed, step)
        power += (part * _DEVIATION) ** 2
    return _even(total / np.float32(math.sqrt(power)))


_DEVIATION: Final = 0.4524
"""Of one value noise: 1/√3 of its random values, less by the ways between them in two directions."""


def _even(normal: Field) -> Field:
    """What is spread like a bell as what is spread evenly (a logistic curve comes within 1 %)."""
    cubed = normal * normal * normal
    exponent = np.float32(-1.5976) * normal - np.float32(0.07056) * cubed
    return np.asarray(1 / (1 + np.exp(exponent)), np.float32)


def _weights(side: int, count: int, cell: float, shift: float) -> Field:
    """Which random values a row of places is made of; shape (count, cells of the grid)."""
    pixels = (np.arange(count) + 0.5) * (side / count) - side / 2
    at = pixels / max(cell, 1e-3) + shift
    first = np.floor(at)
    part = at - first
    fade = part**3 * (part * (part * 6 - 15) + 10)
    rows, column = np.arange(count), first.astype(np.int64) % _SIDE
    weights = np.zeros((count, _SIDE), np.float32)
    weights[rows, column] = 1 - fade
    weights[rows, (column + 1) % _SIDE] = fade
    return weights

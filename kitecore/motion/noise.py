"""Chance that is the same each time for the same numbers."""

from __future__ import annotations

import numpy as np


def generator(*numbers: int) -> np.random.Generator:
    """Random numbers that follow from whole numbers alone."""
    return np.random.Generator(np.random.PCG64([number & 0xFFFFFFFF for number in numbers]))


def wave(at: float, seed: int) -> float:
    """Value noise: -1..1, smooth between random values at whole numbers (K. Perlin's fade)."""
    first = int(np.floor(at))
    a, b = (generator(seed, first + step).uniform(-1, 1) for step in (0, 1))
    t = at - first
    fade = t * t * t * (t * (t * 6 - 15) + 10)
    return float(a + (b - a) * fade)

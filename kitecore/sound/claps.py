"""The clap of a recording: the moment that stands out most from what was heard just before."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

Mono = NDArray[np.float32]

_STEP: Final = 0.002
_BEFORE: Final = 0.25
"""Seconds before a moment that it has to stand out from."""
_AS_LOUD: Final = 0.1
"""Share of the strongest moment's energy that a clap has at least."""
_BEGUN: Final = 0.3
"""Share of a clap's peak at which it has begun."""


@dataclass(frozen=True)
class Clap:
    """``at`` in seconds; ``rise`` in dB over the quarter of a second before."""

    at: float
    rise: float


def clap_of(sound: Mono, rate: int) -> Clap | None:
    """The clap of a mono recording; None if it is silent, or too short to tell."""
    step, before = round(_STEP * rate), round(_BEFORE / _STEP)
    count = len(sound) // step
    if count <= before + 1:
        return None
    steps = sound[: count * step].reshape(count, step).astype(np.float64)
    energy = (steps**2).mean(axis=1)
    if energy.max() <= 0:
        return None
    sums = np.concatenate([[0.0], np.cumsum(energy)])
    # The step just before may hold the beginning already.
    quiet = (sums[before - 1 : -2] - sums[: -before - 1]) / (before - 1)
    there = energy[before:]
    rises = 10 * np.log10((there + 1e-12) / (quiet + energy.max() * 1e-6))
    rises[there < energy.max() * _AS_LOUD] = -np.inf
    found = before + int(rises.argmax())
    near = np.abs(sound[(found - 1) * step : (found + 4) * step])
    begun = int(np.argmax(near >= _BEGUN * near.max()))
    return Clap(((found - 1) * step + begun) / rate, float(rises.max()))

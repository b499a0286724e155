"""Gain over time."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.ticks import TICKS_PER_SECOND

Samples = NDArray[np.float32]
RATE: Final = 48_000
"""Samples a second in which all sound is mixed."""
SAMPLE_TICKS: Final = TICKS_PER_SECOND // RATE


def sample_at(tick: int) -> int:
    """The sample nearest to a tick."""
    return (tick + SAMPLE_TICKS // 2) // SAMPLE_TICKS


DECLICK = 96
"""Samples of the ramp at every cut: 2 ms at 48 kHz."""

SILENT_DB = -60.0
"""Gain at and below which nothing is heard."""


def from_db(decibels: float) -> float:
    """Factor of a gain in dB; 0 at `SILENT_DB` and below."""
    return 0.0 if decibels <= SILENT_DB else float(10 ** (decibels / 20))


def gains_of(decibels: float | NDArray[np.float64]) -> Samples | float:
    """Factors of gains in dB; 0 at `SILENT_DB` and below."""
    if not isinstance(decibels, np.ndarray):
        return from_db(decibels)
    factors = np.power(10.0, decibels / 20)
    return np.where(decibels <= SILENT_DB, 0.0, factors).astype(np.float32)


def with_gain(samples: Samples, factor: Samples | float) -> Samples:
    """Samples times a factor, or one for each; as they are where that is 1."""
    if isinstance(factor, np.ndarray):
        return samples * factor[:, None]
    return samples if factor == 1 else samples * np.float32(factor)


Shape = Callable[[NDArray[np.float64]], NDArray[np.float64]]

FADES: Final[dict[str, Shape]] = {
    "smooth": lambda share: 0.5 - 0.5 * np.cos(np.pi * share),
    "straight": lambda share: share,
    "early": lambda share: np.sin(share * np.pi / 2),
    "late": lambda share: 1 - np.cos(share * np.pi / 2),
}
"""How loud it is at a share 0..1 of the way out of silence."""


def edge_ramp(
    positions: NDArray[np.int64],
    length: int,
    rise: int,
    fall: int,
    shapes: tuple[str, str] = ("smooth", "smooth"),
) -> Samples:
    """Factors 0..1 of a clip's beginning and end.

    Parameters
    ----------
    positions
        Samples from the start of the clip, one after another.
    length
        Of the clip, in samples.
    rise, fall
        Lengths in samples of the ramps; 0 for none.
    shapes
        Of both, by their names in `FADES`.
    """
    factor = np.ones(len(positions), np.float32)
    if not len(positions):
        return factor
    # Positions follow each other, so the ramps are at the ends; what lies between stays 1.
    head = min(max(rise - int(positions[0]), 0), len(positions)) if rise else 0
    tail = min(max(int(positions[-1]) + 1 - (length - fall), 0), len(positions)) if fall else 0
    if head:
        share = np.clip((positions[:head] + 0.5) / rise, 0, 1)
        factor[:head] *= FADES[shapes[0]](share).astype(np.float32)
    if tail:
        share = np.clip((length - positions[-tail:] - 0.5) / fall, 0, 1)
        factor[-tail:] *= FADES[shapes[1]](share).astype(np.float32)
    return factor

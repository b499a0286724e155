"""Gain over time."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Samples = NDArray[np.float32]

DECLICK = 96
"""Samples of the ramp at every cut: 2 ms at 48 kHz."""

SILENT_DB = -60.0
"""Gain at and below which nothing is heard."""


def from_db(decibels: float) -> float:
    """Factor of a gain in dB; 0 at `SILENT_DB` and below."""
    return 0.0 if decibels <= SILENT_DB else float(10 ** (decibels / 20))


def edge_ramp(positions: NDArray[np.int64], length: int, rise: int, fall: int) -> Samples:
    """Factors 0..1 of a clip's beginning and end.

    Parameters
    ----------
    positions
        Samples from the start of the clip.
    length
        Of the clip, in samples.
    rise, fall
        Lengths in samples of the raised-cosine ramps; 0 for none.
    """
    factor = np.ones(len(positions), np.float32)
    if rise:
        share = np.clip((positions + 0.5) / rise, 0, 1)
        factor *= (0.5 - 0.5 * np.cos(np.pi * share)).astype(np.float32)
    if fall:
        share = np.clip((length - positions - 0.5) / fall, 0, 1)
        factor *= (0.5 - 0.5 * np.cos(np.pi * share)).astype(np.float32)
    return factor

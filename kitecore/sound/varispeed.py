"""Sound at another speed, its pitch going along: band-limited interpolation at any positions.

Reference: J. O. Smith, Digital Audio Resampling Home Page (windowed-sinc interpolation).
"""

from __future__ import annotations

from functools import cache
from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.sound.ramps import Samples

ZEROS: Final = 16
"""Zero crossings of the sinc on each side."""

_STEPS: Final = 512
"""Entries of the kernel's table from one zero crossing to the next."""


@cache
def _kernel() -> NDArray[np.float64]:
    """One side of a Kaiser-windowed sinc, from its middle, with one entry to spare."""
    x = np.arange(ZEROS * _STEPS + 1) / _STEPS
    window = np.i0(9.0 * np.sqrt(np.clip(1 - (x / ZEROS) ** 2, 0, 1))) / np.i0(9.0)
    return np.append(np.sinc(x) * window, 0.0)


def margin(fastest: float) -> int:
    """Samples needed on both sides of the positions at a speed up to ``fastest``."""
    return int(np.ceil(ZEROS * max(1.0, fastest))) + 2


def interpolated(
    source: Samples, positions: NDArray[np.float64], speeds: NDArray[np.float64]
) -> Samples:
    """Samples between samples.

    Parameters
    ----------
    source
        float32, shape (n, channels).
    positions
        Where to look, in samples of ``source``; `margin` away from its ends, else as in silence.
    speeds
        How fast the positions go by at each; above 1 what would fold over is filtered out.

    Returns
    -------
    float32, shape (len(positions), channels).
    """
    return _interpolated(source, positions, np.abs(speeds), _kernel())  # type: ignore[no-any-return]


@njit(cache=True, nogil=True)
def _interpolated(
    source: Samples,
    positions: NDArray[np.float64],
    speeds: NDArray[np.float64],
    kernel: NDArray[np.float64],
) -> Samples:
    count, channels = source.shape
    out = np.zeros((len(positions), channels), np.float32)
    for index in range(len(positions)):
        cutoff = 1.0 / max(1.0, speeds[index])
        reach = ZEROS / cutoff
        place = positions[index]
        first = max(int(np.ceil(place - reach)), 0)
        last = min(int(np.floor(place + reach)), count - 1)
        for at in range(first, last + 1):
            where = abs(at - place) * cutoff * _STEPS
            entry = int(where)
            share = where - entry
            weight = kernel[entry] + (kernel[entry + 1] - kernel[entry]) * share
            for channel in range(channels):
                out[index, channel] += np.float32(weight * cutoff * source[at, channel])
    return out

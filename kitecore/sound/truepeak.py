"""Peaks between samples, as they come out of a converter (ITU-R BS.1770-5, annex 2)."""

from __future__ import annotations

from functools import cache
from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.sound.ramps import Samples

_TIMES: Final = 4
_TAPS: Final = 32
"""Of each of the three places between two samples."""
TRUE_REACH: Final = _TAPS // 2
"""Samples on either side that a peak depends on."""

Levels = NDArray[np.float32]


@cache
def _between() -> NDArray[np.float32]:
    """A low-pass of four times the rate, by its phases but the one on the samples themselves."""
    from scipy.signal import firwin  # a second of starting, for those who need it

    taps = firwin(_TIMES * _TAPS + 1, 0.95 / _TIMES, window=("kaiser", 8.0)) * _TIMES
    phases = taps[:-1].reshape(_TAPS, _TIMES).T[1:, ::-1]
    return np.ascontiguousarray(phases, np.float32)


def louder(samples: Samples) -> Levels:
    """The louder side of each sample."""
    return np.asarray(np.maximum(np.abs(samples[:, 0]), np.abs(samples[:, 1])))


def true_levels(samples: Samples) -> Levels:
    """The largest level at each sample and between it and the next, over both sides.

    Parameters
    ----------
    samples
        float32, shape (count, 2); beside them is silence.
    """
    out = louder(samples)
    for side in (0, 1):
        padded = np.pad(samples[:, side], (TRUE_REACH - 1, TRUE_REACH))
        _raise(out, np.ascontiguousarray(padded), _between())
    return out


@njit(cache=True, nogil=True, fastmath=True)
def _raise(out: Levels, padded: Levels, phases: Levels) -> None:
    for index in range(len(out)):
        most = out[index]
        for phase in range(phases.shape[0]):
            total = np.float32(0)
            for tap in range(phases.shape[1]):
                total += phases[phase, tap] * padded[index + tap]
            most = max(most, abs(total))
        out[index] = most

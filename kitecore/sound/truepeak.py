"""Peaks between samples, as they come out of a converter (ITU-R BS.1770-5, annex 2)."""

from __future__ import annotations

from functools import cache
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.signal import firwin, upfirdn

from kitecore.sound.ramps import Samples

_TIMES: Final = 4
_TAPS: Final = 32
"""Of each of the four phases."""
TRUE_REACH: Final = _TAPS // 2
"""Samples on either side that a peak depends on."""


@cache
def _between() -> NDArray[np.float32]:
    taps = firwin(_TIMES * _TAPS + 1, 0.95 / _TIMES, window=("kaiser", 8.0)) * _TIMES
    return np.asarray(taps, np.float32)


def true_levels(samples: Samples) -> NDArray[np.float32]:
    """The largest level at each sample and between it and the next, over both channels."""
    if not len(samples):
        return np.zeros(0, np.float32)
    dense = upfirdn(_between(), samples, up=_TIMES, axis=0)
    delay = _TIMES * _TAPS // 2
    dense = np.abs(dense[delay : delay + _TIMES * len(samples)]).max(axis=1)
    levels = np.abs(samples).max(axis=1)
    return np.asarray(np.maximum(dense.reshape(-1, _TIMES).max(axis=1), levels), np.float32)

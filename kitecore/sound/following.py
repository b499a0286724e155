"""Levels that follow a sound, and gains that follow levels.

Reference: D. Giannoulis, M. Massberg, J. D. Reiss, Digital Dynamic Range Compressor Design: A
Tutorial and Analysis, Journal of the Audio Engineering Society 60 (2012).
"""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.sound.ramps import RATE, Samples

Numbers = NDArray[np.float64]

MOST_OF_A_WAY = np.log(10.0)
"""Time constants in which nine tenths of a way are gone."""


def level_db(samples: Samples) -> Numbers:
    """The louder side of each sample, in dB; -120 and less is -120."""
    loudest = np.abs(samples).max(axis=1).astype(np.float64)
    return np.asarray(20 * np.log10(np.maximum(loudest, 1e-6)))


def settling(*milliseconds: float) -> int:
    """Samples after which followers as slow as these have forgotten what was before."""
    return int(6.2 * sum(milliseconds) / 1000 * RATE)


def followed_down(reduction: Numbers, attack: float, release: float) -> Numbers:
    """A reduction that grows within ``attack`` and goes back within ``release`` (both ms, for 90 %).

    The smooth, decoupled detector of the reference: released first, then attacked.
    """
    return _followed(reduction, _pole(attack), _pole(release))  # type: ignore[no-any-return]


def _pole(milliseconds: float) -> float:
    return float(np.exp(-MOST_OF_A_WAY / max(milliseconds / 1000 * RATE, 1e-3)))


@njit(cache=True, nogil=True)
def _followed(wanted: Numbers, attack: float, release: float) -> Numbers:
    out = np.empty_like(wanted)
    held, smooth = 0.0, 0.0
    for index in range(len(wanted)):
        want = wanted[index]
        held = max(want, release * held + (1 - release) * want)
        smooth = attack * smooth + (1 - attack) * held
        out[index] = smooth
    return out


def over_threshold(
    level: Numbers, threshold: Numbers | float, ratio: Numbers | float, knee: Numbers | float
) -> Numbers:
    """Reduction in dB (0 and more) of a level by a ratio above a threshold, with a soft knee."""
    slope = 1 - 1 / np.maximum(ratio, 1.0)
    above = level - threshold
    width = np.maximum(knee, 1e-6)
    bent = np.square(np.clip(above + width / 2, 0, width)) / (2 * width)
    return np.asarray(slope * (bent + np.maximum(above - width / 2, 0)))

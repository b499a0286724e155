"""Levels that follow a sound, and gains that follow levels.

Reference: D. Giannoulis, M. Massberg, J. D. Reiss, Digital Dynamic Range Compressor Design: A
Tutorial and Analysis, Journal of the Audio Engineering Society 60 (2012).

Levels are looked at by grains of a few samples, which lie on one grid for all of time: gains go
straight from one to the next. ``lead`` is how far the first sample is into its grain.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.sound.ramps import RATE, Samples

Numbers = NDArray[np.float64]
Levels = NDArray[np.float32]

GRAIN: Final = 4
"""Samples of a grain: a twelfth of a millisecond."""

_ONE, _TWO = np.uint64(1), np.uint64(2)
"""Places without a sign: nobody asks whether they count from the end."""
_A_DECIBEL_LESS: Final = float(-np.log(10.0) / 20)
MOST_OF_A_WAY: Final = float(np.log(10.0))
"""Time constants in which nine tenths of a way are gone."""


@njit(cache=True, nogil=True)
def loudest(samples: Samples, lead: int) -> Levels:
    """The loudest sample of each grain, of both sides."""
    count = samples.shape[0]
    out = np.empty((count + lead + GRAIN - 1) // GRAIN, np.float32)
    line = samples.reshape(-1)
    for grain in range(len(out)):
        begin, most = grain * GRAIN - lead, np.float32(0)
        first, last = max(begin, 0), min(begin + GRAIN, count)
        for at in range(np.uint64(2 * first), np.uint64(2 * last)):
            most = max(most, abs(line[at]))
        out[grain] = most
    return out


def settling(*milliseconds: float) -> int:
    """Samples after which followers as slow as these have forgotten what was before."""
    return int(6.2 * sum(milliseconds) / 1000 * RATE)


def grains_of(milliseconds: float) -> int:
    return int(milliseconds / 1000 * RATE / GRAIN)


def followed_down(reduction: Numbers, attack: float, release: float) -> Numbers:
    """A reduction that grows within ``attack`` and goes back within ``release`` (both ms, for 90 %).

    The smooth, decoupled detector of the reference: released first, then attacked.
    """
    return _followed(reduction, _pole(attack), _pole(release))  # type: ignore[no-any-return]


def _pole(milliseconds: float) -> float:
    return float(np.exp(-MOST_OF_A_WAY * GRAIN / max(milliseconds / 1000 * RATE, 1e-3)))


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
    level: Levels, threshold: Numbers | float, ratio: Numbers | float, knee: Numbers | float
) -> Numbers:
    """Reduction in dB (0 and more) of levels by a ratio above a threshold, with a soft knee.

    Parameters
    ----------
    level
        Of each grain, 1 for full scale.
    threshold, ratio, knee
        In dB, to 1, in dB; of all grains, or of each.
    """
    decibels = 20 * np.log10(np.maximum(level, 1e-6).astype(np.float64))
    slope = 1 - 1 / np.maximum(ratio, 1.0)
    above = decibels - threshold
    width = np.maximum(knee, 1e-6)
    bent = np.square(np.clip(above + width / 2, 0, width)) / (2 * width)
    return np.asarray(slope * (bent + np.maximum(above - width / 2, 0)))


def turned_down(samples: Samples, reduction: Numbers, lead: int) -> Samples:
    """Samples quieter by as many dB each grain; below 0 louder."""
    factors = np.exp(reduction * _A_DECIBEL_LESS)
    return _scaled(samples, factors, lead)  # type: ignore[no-any-return]


@njit(cache=True, nogil=True)
def _scaled(samples: Samples, factors: Numbers, lead: int) -> Samples:
    out, count = np.empty_like(samples), samples.shape[0]
    line, scaled = samples.reshape(-1), out.reshape(-1)
    before = factors[0]
    for grain in range(len(factors)):
        to = factors[grain]
        step = (to - before) / GRAIN
        begin = grain * GRAIN - lead
        first, last = max(begin, 0), min(begin + GRAIN, count)
        part, at = first - begin + 1, np.uint64(2 * first)
        for _ in range(last - first):
            factor = np.float32(before + step * part)
            scaled[at], scaled[at + _ONE] = line[at] * factor, line[at + _ONE] * factor
            part, at = part + 1, at + _TWO
        before = to
    return out

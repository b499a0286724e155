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

_VALUES: Final = np.uint64(2 * GRAIN)
"""Of a grain, both sides; without a sign, so that nobody asks whether a place counts from the end."""
_A_DECIBEL_LESS: Final = float(-np.log(10.0) / 20)
MOST_OF_A_WAY: Final = float(np.log(10.0))
"""Time constants in which nine tenths of a way are gone."""


@njit(cache=True, nogil=True, fastmath={"nnan", "nsz"})
def loudest(samples: Samples, lead: int) -> Levels:
    """The loudest sample of each grain, of both sides."""
    count = samples.shape[0]
    out = np.empty((count + lead + GRAIN - 1) // GRAIN, np.float32)
    line = samples.reshape(-1)
    for grain in range(len(out)):
        begin, most = grain * GRAIN - lead, np.float32(0)
        if begin >= 0 and begin + GRAIN <= count:
            at = np.uint64(2 * begin)
            a = line[at : at + _VALUES]
            first, then = max(abs(a[0]), abs(a[1])), max(abs(a[2]), abs(a[3]))
            most = max(max(abs(a[4]), abs(a[5])), max(abs(a[6]), abs(a[7])))
            out[grain] = max(max(first, then), most)
        else:
            for value in line[2 * max(begin, 0) : 2 * min(begin + GRAIN, count)]:
                most = max(most, abs(value))
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
    # In 32 bits it is right within 0.0001 dB and takes a third of the time.
    over, steep, wide = (np.asarray(one, np.float32) for one in (threshold, ratio, knee))
    decibels = 20 * np.log10(np.maximum(level, np.float32(1e-6)))
    slope = 1 - 1 / np.maximum(steep, np.float32(1))
    above, width = decibels - over, np.maximum(wide, np.float32(1e-6))
    bent = np.square(np.clip(above + width / 2, 0, width)) / (2 * width)
    return np.asarray(slope * (bent + np.maximum(above - width / 2, 0)), np.float64)


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
        step = (factors[grain] - before) / GRAIN
        begin = grain * GRAIN - lead
        if begin >= 0 and begin + GRAIN <= count:
            at = np.uint64(2 * begin)
            # Written out, so that the compiler takes several at a time.
            a, b = line[at : at + _VALUES], scaled[at : at + _VALUES]
            one, two = np.float32(before + step), np.float32(before + step * 2)
            three, four = np.float32(before + step * 3), np.float32(factors[grain])
            b[0], b[1], b[2], b[3] = a[0] * one, a[1] * one, a[2] * two, a[3] * two
            b[4], b[5], b[6], b[7] = a[4] * three, a[5] * three, a[6] * four, a[7] * four
        else:
            for place in range(max(begin, 0), min(begin + GRAIN, count)):
                factor = np.float32(before + step * (place - begin + 1))
                out[place, 0], out[place, 1] = (
                    samples[place, 0] * factor,
                    samples[place, 1] * factor,
                )
        before = factors[grain]
    return out

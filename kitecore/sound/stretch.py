"""Sound at another speed with its pitch kept."""

from __future__ import annotations

from typing import Final

import numpy as np
import python_stretch
from numba import njit
from numpy.typing import NDArray

from kitecore.sound.ramps import Samples
from kitecore.sound.varispeed import interpolated, margin

_GRAIN: Final = 2048
_HOP: Final = _GRAIN // 2
_SEARCH: Final = 480
"""Samples (10 ms) to both sides in which the best continuation is looked for."""


def stretched(source: Samples, factor: float, rate: int) -> Samples:
    """``source`` played ``factor`` times as fast, by Signalsmith Stretch.

    Parameters
    ----------
    source
        float32, shape (n, 2).
    factor
        Greater than 0.
    rate
        Samples a second.

    Returns
    -------
    float32, shape (about n / factor, 2).
    """
    stretch = python_stretch.Signalsmith.Stretch()
    stretch.preset(source.shape[1], rate)
    stretch.setTimeFactor(factor)
    made: Samples = stretch.process(np.ascontiguousarray(source.T))
    return np.ascontiguousarray(made.T)


def transposed(source: Samples, semitones: float, rate: int) -> Samples:
    """``source`` higher by semitones (lower below 0) and as long.

    Stretched first, then played as much faster: exact to the cent, which transposing in the spectrum
    is not.
    """
    ratio = 2 ** (semitones / 12)
    longer = stretched(source, 1 / ratio, rate)
    edge = margin(ratio)
    positions = edge + np.arange(len(source), dtype=np.float64) * ratio
    padded = np.pad(longer, ((edge, edge), (0, 0)))
    return interpolated(padded, positions, np.full(len(source), ratio))


def followed(source: Samples, positions: NDArray[np.float64]) -> Samples:
    """Sound whose pace follows ``positions`` and whose pitch stays: overlapped grains, each put
    where it continues the last one best (WSOLA).

    Reference: W. Verhelst, M. Roelands, An overlap-add technique based on waveform similarity
    (WSOLA) for high quality time-scale modification of speech, ICASSP 1993.

    Parameters
    ----------
    source
        float32, shape (n, channels).
    positions
        For every sample of the result, where in ``source`` it should come from. Where they fall,
        grains are played backwards.

    Returns
    -------
    float32, shape (len(positions), channels).
    """
    window = np.hanning(_GRAIN + 1)[:-1].astype(np.float32)
    return _followed(source, positions, window)  # type: ignore[no-any-return]


@njit(cache=True, nogil=True)
def _followed(source: Samples, positions: NDArray[np.float64], window: Samples) -> Samples:
    count, channels = source.shape
    length = len(positions)
    out = np.zeros((length, channels), np.float32)
    last_start, last_way = -1.0, 1
    for begin in range(-_HOP, length, _HOP):
        middle = min(max(begin + _HOP, 0), length - 1)
        ahead = min(middle + 1, length - 1)
        behind = max(ahead - 1, 0)
        way = -1 if positions[ahead] < positions[behind] else 1
        start = int(np.rint(positions[middle])) - way * _HOP
        if last_way == way and begin > -_HOP:
            natural = int(last_start) + way * _HOP
            start += _best_shift(source, natural, start, way)
        for k in range(_GRAIN):
            to, of = begin + k, start + way * k
            if 0 <= to < length and 0 <= of < count:
                for channel in range(channels):
                    out[to, channel] += window[k] * source[of, channel]
        last_start, last_way = float(start), way
    return out


@njit(cache=True, nogil=True)
def _best_shift(source: Samples, natural: int, start: int, way: int) -> int:
    """Shift of ``start`` at which the grain is most like the natural continuation."""
    count = source.shape[0]
    best, most = 0, -1e30
    for shift in range(-_SEARCH, _SEARCH + 1, 4):
        score, energy = 0.0, 1e-9
        for k in range(0, _HOP, 4):
            a, b = natural + way * k, start + shift + way * k
            if 0 <= a < count and 0 <= b < count:
                score += source[a, 0] * source[b, 0]
                energy += source[b, 0] * source[b, 0]
        score = score / np.sqrt(energy)
        if score > most:
            most, best = score, shift
    return best

"""Where one recording lies in another of the same thing, by their sound.

Both are flattened, so that level, colour and loud moments do not count: of short spectra only the
phases stay. Then generalised cross-correlation with phase transform (Knapp & Carter, IEEE ASSP 24,
1976) of some windows of the one finds them in the other, and what most of them agree on is measured
again over all windows that they share. Windows are short, so that clocks that run differently do not
smear it.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
import scipy  # what is used of it is loaded then
import soxr
from numpy.typing import NDArray

Mono = NDArray[np.float32]
Numbers = NDArray[np.float64]

HEARD_RATE: Final = 4000
"""Samples a second in which recordings are compared: voices, and what bad microphones let through."""
_FRAME: Final = 512
_HOP: Final = 128
_LOWEST: Final = 120.0
"""Hz; below it there is hum and handling."""
WINDOW: Final = 4 * HEARD_RATE
_TRIED: Final = 10
"""Windows that are looked for in all of the other recording."""
_FINE: Final = 48
"""Windows at most that are then measured."""
_SURE: Final = 7.0
"""Times the spread of chance that a peak has to be high to count where all lags are looked at."""
_NEAR_SURE: Final = 4.5
"""The same where only lags near the expected one are."""
_ALONE: Final = 11.0
"""The same for a recording so short that one window is all there is."""
_RIVAL: Final = 0.82
"""Of the height of a peak: what another may have at most."""
_PEAK: Final = HEARD_RATE // 500
"""Samples on either side that still belong to a peak."""
_MOST_DRIFT: Final = 300e-6
_APART: Final = HEARD_RATE * 3 // 1000
"""Samples that two windows may differ by besides drift."""
_AROUND: Final = HEARD_RATE // 4
_AGREE: Final = HEARD_RATE / 1000
"""Samples within which a window agrees with all."""
_LEAST: Final = 0.3
"""Share of the windows measured that has to agree."""


@dataclass(frozen=True)
class Alignment:
    """How a recording lies in another.

    Attributes
    ----------
    offset
        Seconds of the other at which it begins; what it is in the middle of what they share, where
        their clocks differ.
    drift
        How much faster its clock runs, as a share of one; 0 where that is less than can be told.
    middle
        Seconds of it at which ``offset`` holds whatever the drift.
    confidence
        Share of the windows both have that agree within 1 ms, 0..1.
    """

    offset: float
    drift: float
    confidence: float
    middle: float


def heard(sound: Mono, rate: int) -> Mono:
    """Mono sound in the form in which recordings are compared, `HEARD_RATE` samples a second."""
    slow = soxr.resample(sound, rate, HEARD_RATE, quality="MQ") if rate != HEARD_RATE else sound
    return _flattened(np.ascontiguousarray(slow, np.float32))


def _flattened(sound: Mono) -> Mono:
    """The sound with equal strength at all times and frequencies from `_LOWEST` on; spread 1."""
    if not len(sound):
        return sound
    padded = np.pad(sound, (_FRAME, 2 * _FRAME))
    count = (len(padded) - _FRAME) // _HOP + 1
    window = np.hanning(_FRAME + 1)[:-1].astype(np.float32)
    out = np.zeros(len(padded), np.float32)
    low = round(_LOWEST * _FRAME / HEARD_RATE)
    for begin in range(0, count, 8192):
        many = min(8192, count - begin)
        part = padded[begin * _HOP : (begin + many - 1) * _HOP + _FRAME]
        frames = np.lib.stride_tricks.sliding_window_view(part, _FRAME)[::_HOP] * window
        spectra = scipy.fft.rfft(frames, axis=1)
        size = np.abs(spectra)
        # What is silence, or cut off by a codec, is not blown up to the strength of the rest.
        spectra /= size + 0.02 * size.mean(axis=1, keepdims=True) + 1e-7
        spectra[:, :low] = 0
        frames = scipy.fft.irfft(spectra, _FRAME, axis=1).astype(np.float32) * window
        for at in range(many):
            start = (begin + at) * _HOP
            out[start : start + _FRAME] += frames[at]
    flat = out[_FRAME : _FRAME + len(sound)]
    spread = float(flat.std())
    return flat / np.float32(spread) if spread > 0 else flat


def aligned(one: Mono, other: Mono) -> Alignment | None:
    """How ``one`` lies in ``other``, both as `heard`; None if nothing says that it does."""
    if len(one) > len(other):
        back = aligned(other, one)
        if back is None:
            return None
        return Alignment(-back.offset, -back.drift, back.confidence, back.middle + back.offset)
    if len(one) < HEARD_RATE // 4:
        return None
    lag = _found(one, other)
    return None if lag is None else _measured(one, other, lag)


def _windows(one: Mono, most: int) -> list[int]:
    """Where windows begin, evenly over a recording."""
    last = max(0, len(one) - WINDOW)
    count = min(most, last // (WINDOW // 2) + 1)
    return sorted({int(at) for at in np.linspace(0, last, count)})


def _found(one: Mono, other: Mono) -> int | None:
    """The lag, in samples, that most of the windows agree on."""
    size = scipy.fft.next_fast_len(len(other) + WINDOW, real=True)
    spectrum = scipy.fft.rfft(other, size)
    starts = _windows(one, _TRIED)
    enough = 1 if len(starts) == 1 else 2 if len(starts) <= 3 else 3
    votes: list[tuple[int, int, float]] = []
    for start in _from_the_middle(starts):
        lag, height = _highest(one[start : start + WINDOW], spectrum, size, len(other))
        if height < (_ALONE if enough == 1 else _SURE):
            continue
        votes.append((start, lag - start, height))
        agreeing = _largest_group(votes)
        if len(agreeing) >= enough:
            return round(float(np.median([lag for _, lag, _ in agreeing])))
    return None


def _from_the_middle(starts: list[int]) -> list[int]:
    """The middle first: recordings of one thing share that more often than their ends."""
    middle = (len(starts) - 1) / 2
    return [starts[i] for i in sorted(range(len(starts)), key=lambda i: abs(i - middle))]


def _highest(
    window: Mono, spectrum: NDArray[np.complex64], size: int, length: int
) -> tuple[int, float]:
    """Where in the other a window fits best, and how far that stands above chance.

    Not at all where it fits nearly as well elsewhere, as tones and music that repeats do.
    """
    cross = spectrum * np.conj(scipy.fft.rfft(window, size))
    likeness = scipy.fft.irfft(cross, size)
    # Lags below 0 lie at the end: a window may begin before the other recording does.
    peak = int(likeness.argmax())
    thin = likeness[:: max(1, size // 200_000)]
    spread = 1.4826 * float(np.median(np.abs(thin)))
    lag = peak if peak < length else peak - size
    height = float(likeness[peak])
    likeness[max(0, peak - _PEAK) : peak + _PEAK] = 0
    alone = float(likeness.max()) < _RIVAL * height
    return lag, height / max(spread, 1e-9) if alone else 0.0


def _largest_group(votes: list[tuple[int, int, float]]) -> list[tuple[int, int, float]]:
    def agreeing(vote: tuple[int, int, float]) -> list[tuple[int, int, float]]:
        start, lag, _ = vote
        return [
            other
            for other in votes
            if abs(other[1] - lag) <= _APART + _MOST_DRIFT * abs(other[0] - start)
        ]

    return max((agreeing(vote) for vote in votes), key=len)


def _measured(one: Mono, other: Mono, lag: int) -> Alignment | None:
    """The lag of each window that both have, and the line through them."""
    low, high = max(0, -lag), min(len(one), len(other) - lag)
    if high - low < HEARD_RATE // 4:
        return None
    starts = [low + at for at in _windows(one[low:high], _FINE)]
    found = [_near(one, other, start, lag) for start in starts]
    sure = [(start, here) for start, here, height in found if height >= _NEAR_SURE]
    if not sure:
        return None
    times, lags = np.array([s for s, _ in sure], float), np.array([here for _, here in sure])
    slope = _slope(times, lags)
    middle = (low + high - WINDOW) / 2
    level = float(np.median(lags - slope * (times - middle)))
    agree = np.abs(lags - level - slope * (times - middle)) <= _AGREE
    share = float(agree.sum()) / len(starts)
    if share < _LEAST:
        return None
    exact = float(np.mean((lags - slope * (times - middle))[agree]))
    # The lag of a window is that of its middle.
    return Alignment(exact / HEARD_RATE, -slope, share, (middle + WINDOW / 2) / HEARD_RATE)


def _near(one: Mono, other: Mono, start: int, lag: int) -> tuple[int, float, float]:
    """A window's own lag near the expected one, to a part of a sample, and how sure it is."""
    window = one[start : start + WINDOW]
    begin = start + lag - _AROUND
    there = np.zeros(len(window) + 2 * _AROUND, np.float32)
    a, b = max(0, begin), min(len(other), begin + len(there))
    if b > a:
        there[a - begin : b - begin] = other[a:b]
    size = scipy.fft.next_fast_len(len(there), real=True)
    cross = scipy.fft.rfft(there, size) * np.conj(scipy.fft.rfft(window, size))
    likeness = scipy.fft.irfft(cross, size)[: 2 * _AROUND + 1]
    peak = int(likeness.argmax())
    spread = 1.4826 * float(np.median(np.abs(likeness)))
    here = lag - _AROUND + peak + _summit(likeness, peak)
    return start, here, float(likeness[peak]) / max(spread, 1e-9)


def _summit(values: Mono, peak: int) -> float:
    """Where between samples a peak is highest, by a parabola through three of them."""
    if not 0 < peak < len(values) - 1:
        return 0.0
    left, top, right = (float(values[peak + by]) for by in (-1, 0, 1))
    bend = left - 2 * top + right
    return 0.5 * (left - right) / bend if bend < 0 else 0.0


def _slope(times: Numbers, lags: Numbers) -> float:
    """How the lag changes with time: the median of the slopes of all pairs (Theil & Sen).

    0 where windows lie too near to each other to tell, or it is less than a clock may differ.
    """
    apart = np.subtract.outer(times, times)
    far = apart > 2 * WINDOW
    if far.sum() < 3:
        return 0.0
    slope = float(np.median(np.subtract.outer(lags, lags)[far] / apart[far]))
    reach = float(times.max() - times.min())
    return slope if abs(slope) * reach > 1 and abs(slope) <= _MOST_DRIFT else 0.0

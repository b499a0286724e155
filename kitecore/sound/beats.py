"""Beats and bars of music.

Reference: D. P. W. Ellis, Beat Tracking by Dynamic Programming, Journal of New Music Research 36
(2007). The tempo may drift and change: it is looked for around each moment.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.sound.onsets import HOP, Mono, Numbers, onsets, sharpened
from kitecore.sound.ramps import RATE

_SLOWEST, _FASTEST = 200, 25
"""Looks in a beat at 30 and at 240 beats a minute."""
_USUAL: Final = 50
"""Looks in a beat at 120 a minute, which people hear most easily."""
_OCTAVES: Final = 0.9
"""How far from that a tempo may be, in octaves (one standard deviation)."""
_AROUND: Final = 800
_EVERY: Final = 100
"""Looks over which a tempo is looked for, and from one such to the next."""
_TIGHT: Final = 400.0
"""How strictly beats keep their distance."""
BAR: Final = 4
"""Beats of a bar."""


@dataclass(frozen=True)
class Beats:
    """Samples (at 48 kHz) of beats in order, which of them begin bars, beats a minute over all."""

    at: tuple[int, ...]
    first: int
    tempo: float


def _periods(strength: Numbers) -> Numbers:
    """Looks in a beat around each look, by autocorrelation weighted by what people hear as a beat."""
    lags = np.arange(_FASTEST, _SLOWEST + 1)
    usual = np.exp(-0.5 * (np.log2(lags / _USUAL) / _OCTAVES) ** 2)
    middles = range(0, len(strength) + _EVERY, _EVERY)
    scores = np.array([_likeness(strength, middle) * usual for middle in middles])
    chosen = _steady(scores)
    return np.interp(np.arange(len(strength)), middles, lags[chosen].astype(np.float64))


def _likeness(strength: Numbers, middle: int) -> Numbers:
    """How like itself it is after each lag, around a look."""
    part = strength[max(0, middle - _AROUND // 2) : middle + _AROUND // 2]
    size = 1 << int(np.ceil(np.log2(max(2, 2 * len(part)))))
    spectrum = np.fft.rfft(part - part.mean() if len(part) else part, size)
    alike = np.fft.irfft(np.abs(spectrum) ** 2, size)[: _SLOWEST + 1]
    alike = np.pad(alike, (0, max(0, _SLOWEST + 1 - len(alike))))
    return np.asarray(np.maximum(alike[_FASTEST:] / (alike[0] + 1e-9), 0))


def _steady(scores: Numbers) -> NDArray[np.int64]:
    """The way through the scores that changes tempo least (Viterbi)."""
    lags = np.log2(np.arange(_FASTEST, _SLOWEST + 1))
    cost = 6.0 * np.abs(lags[:, None] - lags[None, :])
    total, back = scores[0], []
    for row in scores[1:]:
        ways = total[:, None] - cost
        back.append(np.argmax(ways, axis=0))
        total = ways.max(axis=0) + row
    found = [int(np.argmax(total))]
    for row in reversed(back):
        found.append(int(row[found[-1]]))
    return np.array(found[::-1])


def beats_of(sound: Mono) -> Beats:
    """The beats of a sound in mono; none of one that has no beginnings.

    Parameters
    ----------
    sound
        float32 at 48 kHz.
    """
    if len(sound) < 2 * RATE:
        return Beats((), 0, 0.0)
    strength = onsets(sound)
    if not strength.any():
        return Beats((), 0, 0.0)
    periods = _periods(strength)
    looks = _followed(strength, periods)
    if len(looks) < 3:
        return Beats((), 0, 0.0)
    at = [sharpened(strength, look) for look in looks]
    tempo = 6000 / float(np.median(np.diff(at)))
    return Beats(
        tuple(round(look * HOP) for look in at), _downbeat(strength, looks), round(tempo, 1)
    )


def _followed(strength: Numbers, periods: Numbers) -> NDArray[np.int64]:
    """Looks of the beats that are strong and evenly apart."""
    smooth = np.convolve(strength, np.hanning(7) / np.hanning(7).sum(), "same")
    score, back = _scored(smooth, periods)
    last = len(score) - int(periods[-1])
    at = last + int(np.argmax(score[last:])) if last > 0 else int(np.argmax(score))
    found = []
    while at >= 0:
        found.append(at)
        at = int(back[at])
    looks = np.array(found[::-1])
    # Before the music begins and after it ends there are no beats.
    heard = np.flatnonzero(smooth > 0.2 * np.percentile(smooth[looks], 75))
    if not len(heard):
        return looks[:0]
    return np.asarray(looks[(looks >= heard[0] - 3) & (looks <= heard[-1] + 3)])


@njit(cache=True, nogil=True)
def _scored(strength: Numbers, periods: Numbers) -> tuple[Numbers, NDArray[np.int64]]:
    score = strength.copy()
    back = np.full(len(strength), -1, np.int64)
    for at in range(len(strength)):
        period = periods[at]
        best, chosen = -1e30, -1
        for before in range(max(0, at - int(2 * period)), at - int(period / 2) + 1):
            value = score[before] - _TIGHT * np.log((at - before) / period) ** 2
            if value > best:
                best, chosen = value, before
        if chosen >= 0 and best > 0:
            score[at] += best
            back[at] = chosen
    return score, back


def _downbeat(strength: Numbers, looks: NDArray[np.int64]) -> int:
    """Which of the first beats begins a bar: the one whose fellows are strongest."""
    smooth = np.convolve(strength, np.ones(5) / 5, "same")[looks]
    return int(np.argmax([smooth[start::BAR].mean() for start in range(min(BAR, len(looks)))]))

"""A sound, or a wave, as one number over time from 0 to 1: what can lead a value.

Times are looks, `LOOKS` to a second.
"""

from __future__ import annotations

from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray

from kitecore.motion.noise import wave
from kitecore.sound.ramps import RATE

Numbers = NDArray[np.float64]
Band = Literal["level", "low", "middle", "high"]

LOOKS: Final = 100
HOP: Final = RATE // LOOKS
_WINDOW: Final = 2048
_AT_ONCE: Final = 4000
_EDGES: Final = {
    "level": (0, 20_000),
    "low": (20, 200),
    "middle": (200, 2000),
    "high": (2000, 20_000),
}
"""Hertz that a band reaches from and to."""
_DEEP: Final = 30.0
"""Decibels below the loudest moments at which there is nothing any more."""
SILENT: Final = -70.0
"""Decibels; what is nowhere louder is no sound."""


def powers_of(sound: NDArray[np.float32], band: Band) -> Numbers:
    """Power within a band at each look, in dB (0: a sine of full scale), of sound of one channel."""
    count = -(-len(sound) // HOP)
    padded = np.pad(sound, (_WINDOW // 2, _WINDOW))
    frames = np.lib.stride_tricks.sliding_window_view(padded, _WINDOW)[::HOP][:count]
    window = np.hanning(_WINDOW)
    low, high = (round(edge * _WINDOW / RATE) for edge in _EDGES[band])
    found = np.empty(count)
    for first in range(0, count, _AT_ONCE):
        spectrum = np.fft.rfft(frames[first : first + _AT_ONCE] * window, axis=1)
        part = np.square(np.abs(spectrum[:, low : high + 1])).sum(axis=1)
        found[first : first + _AT_ONCE] = part
    # A sine of full scale has half the window's power twice over, at f and -f.
    whole = np.square(window).sum() * _WINDOW / 4
    return np.asarray(10 * np.log10(found / whole + 1e-12))


def shares_of(decibels: Numbers) -> Numbers:
    """0..1: from `_DEEP` below the loudest hundredth of the moments up to it."""
    if not len(decibels) or decibels.max() < SILENT:
        return np.zeros(len(decibels))
    top = float(np.percentile(decibels, 99))
    return np.asarray(np.clip((decibels - top + _DEEP) / _DEEP, 0, 1))


def led(shares: Numbers, attack: float, release: float) -> Numbers:
    """A number that goes up within ``attack`` seconds and back within ``release`` (nine tenths)."""
    up, down = (1 - 10 ** (-1 / max(seconds * LOOKS, 1e-3)) for seconds in (attack, release))
    now, found = 0.0, np.empty(len(shares))
    for look, share in enumerate(shares):
        now += (share - now) * (up if share > now else down)
        found[look] = now
    return found


def struck(count: int, beats: list[int]) -> Numbers:
    """1 at beats, told in looks, and 0 elsewhere."""
    found = np.zeros(count)
    found[[beat for beat in beats if 0 <= beat < count]] = 1
    return found


def waving(count: int, rate: float, seed: int, fading: float) -> Numbers:
    """A wave by chance about a half, ``rate`` times a second; half as high after ``fading`` seconds."""
    seconds = np.arange(count) / LOOKS
    high = np.array([wave(at * rate, seed) for at in seconds])
    lost = 0.5 ** (seconds / fading) if fading > 0 else 1.0
    return np.asarray((high * lost + 1) / 2)

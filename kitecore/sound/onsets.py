"""Where something begins in a sound: a note, a step, a knock.

Reference: J. P. Bello et al., A Tutorial on Onset Detection in Music Signals, IEEE Transactions on
Speech and Audio Processing 13 (2005): rises of energy over bands, evened out, and their peaks.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.ramps import RATE

Numbers = NDArray[np.float64]
Mono = NDArray[np.float32]

HOP: Final = RATE // 100
"""Samples from one look to the next."""
_FRAME: Final = 2048
_BANDS: Final = 32
_APART: Final = 6
"""Looks between two beginnings: what comes sooner is heard as one."""
_STANDS_OUT: Final = 1.0
"""By how many standard deviations a beginning rises above what is around it, at least."""
_OF_THE_STRONGEST: Final = 0.12


def onsets(sound: Mono) -> Numbers:
    """How much each look is a beginning: the rise of loudness over bands, evened out; shape (looks,)."""
    padded = np.pad(sound, (_FRAME // 2, _FRAME))
    frames = np.lib.stride_tricks.sliding_window_view(padded, _FRAME)[::HOP]
    window = np.hanning(_FRAME).astype(np.float32)
    edges = np.unique(np.geomspace(2, _FRAME // 3, _BANDS + 1).astype(int))
    rises = np.zeros(len(frames))
    before: Numbers | None = None
    for begin in range(0, len(frames), 4096):
        power = np.abs(np.fft.rfft(frames[begin : begin + 4096] * window, axis=1)) ** 2
        bands = np.log1p(1000 * np.add.reduceat(power, edges, axis=1)[:, :-1])
        first = bands[:1] if before is None else before
        rises[begin : begin + len(bands)] = np.maximum(
            np.diff(bands, axis=0, prepend=first), 0
        ).sum(axis=1)
        before = bands[-1:]
    slow = np.convolve(rises, np.ones(100) / 100, "same")
    strong = np.maximum(rises - slow, 0)
    return np.asarray(strong / (strong.std() + 1e-9))


def onsets_of(sound: Mono) -> tuple[int, ...]:
    """Samples at which something begins, in order; none of silence, or of what only goes on.

    Parameters
    ----------
    sound
        float32 at 48 kHz.
    """
    from scipy.signal import find_peaks  # a second of starting, for those who need it

    if len(sound) < _FRAME:
        return ()
    strength = onsets(sound)
    least = max(_STANDS_OUT, _OF_THE_STRONGEST * float(np.percentile(strength, 99.5)))
    looks, _ = find_peaks(np.pad(strength, 1), height=least, prominence=least / 2, distance=_APART)
    return tuple(round(sharpened(strength, int(look) - 1) * HOP) for look in looks)


def sharpened(strength: Numbers, look: int) -> float:
    """Between looks, where the beginning is strongest."""
    low, high = max(0, look - 3), min(len(strength), look + 4)
    weights = strength[low:high]
    if not weights.any():
        return float(look)
    top = low + int(np.argmax(weights))
    near = slice(max(0, top - 1), top + 2)
    places = np.arange(len(strength))[near]
    return float((places * strength[near]).sum() / strength[near].sum())

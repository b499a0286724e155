"""What speech sounds like, 100 times a second: energies in mel bands, freed of voice and room."""

from __future__ import annotations

from functools import cache
from typing import Final

import numpy as np
import soxr
from numpy.typing import NDArray

Floats = NDArray[np.float32]

LOOKS: Final = 100
"""To a second."""
BANDS: Final = 26
_RATE: Final = 16_000
_HOP: Final = _RATE // LOOKS
_WINDOW: Final = 400
_SIZE: Final = 512
_LOWEST, _HIGHEST = 80.0, 7600.0
_LOUD: Final = 30.0
"""Decibels below the loudest looks down to which something is said."""
FLOOR: Final = -90.0
"""Decibels below which nothing is."""


def mel(hertz: NDArray[np.float64]) -> NDArray[np.float64]:
    """Pitch as it is heard (O'Shaughnessy 1987)."""
    return np.asarray(2595 * np.log10(1 + hertz / 700))


@cache
def _filters() -> Floats:
    """Triangles of equal width in mel, from bins of the spectrum to bands."""
    low, high = mel(np.array([_LOWEST, _HIGHEST]))
    edges = np.linspace(float(low), float(high), BANDS + 2)
    bins = mel(np.arange(_SIZE // 2 + 1) * _RATE / _SIZE)
    up = (bins[:, None] - edges[:-2]) / (edges[1:-1] - edges[:-2])
    down = (edges[2:] - bins[:, None]) / (edges[2:] - edges[1:-1])
    return np.asarray(np.clip(np.minimum(up, down), 0, None), np.float32)


def energies_of(sound: Floats, rate: int) -> Floats:
    """Energy in dB of each band at each look: shape (looks, `BANDS`), of sound of one channel."""
    heard = soxr.resample(sound, rate, _RATE) if rate != _RATE else sound
    count = -(-len(heard) // _HOP)
    padded = np.pad(heard, (_WINDOW // 2, _WINDOW))
    frames = np.lib.stride_tricks.sliding_window_view(padded, _WINDOW)[::_HOP][:count]
    window = np.hanning(_WINDOW).astype(np.float32)
    power = np.square(np.abs(np.fft.rfft(frames * window, _SIZE, axis=1))).astype(np.float32)
    return np.asarray(np.maximum(10 * np.log10(power @ _filters() + 1e-12), FLOOR), np.float32)


def features_of(energies: Floats) -> Floats:
    """Each band by how it differs from what is usual in it while something is said, and loudness.

    So neither a voice's colour nor a microphone's matters. Shape (looks, `BANDS` + 1), around 0.
    """
    if not len(energies):
        return np.zeros((0, BANDS + 1), np.float32)
    level = 10 * np.log10(np.power(10.0, energies / 10).sum(axis=1))
    top = np.percentile(level, 95)
    loud = level > top - _LOUD
    usual, spread = energies[loud].mean(axis=0), energies[loud].std(axis=0) + 3
    bands = np.clip((energies - usual) / spread, -4, 4)
    loudness = np.clip((level - top) / 15 + 1, -4, 4)
    return np.concatenate([bands, loudness[:, None]], axis=1).astype(np.float32)

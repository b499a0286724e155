from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.inserts.denoise import NOISE_BANDS, Denoise
from kitecore.sound.inserts._base import Over, Processing, insert_sounds, values_at
from kitecore.sound.ramps import RATE, Samples

_FRAME: Final = 2048
_HOP: Final = 512
_AROUND: Final = 3
"""Frames and bins over which power is averaged, so that no single ones stick out and tinkle."""
_REACH: Final = _FRAME + (_AROUND + 1) * _HOP
_BINS: Final = _FRAME // 2 + 1

_WINDOW: Final = np.sqrt(np.hanning(_FRAME + 1)[:-1])
"""Used twice; overlapped by four it adds up to two."""


def learnt(samples: Samples) -> tuple[float, ...]:
    """The level of an even noise in each band, in dB; as long a stretch of it as there is.

    Shorter than two frames it is filled up with itself.
    """
    if len(samples) < 2 * _FRAME:
        filled = samples if len(samples) else np.zeros((1, 2), np.float32)
        samples = np.resize(filled, (2 * _FRAME, 2)).astype(np.float32)
    power = (np.abs(_spectra(samples)) ** 2).mean(axis=(0, 2))
    bands = _bands()
    means = [
        power[bands == band].mean() if (bands == band).any() else np.nan
        for band in range(NOISE_BANDS)
    ]
    places = np.arange(NOISE_BANDS)
    known = ~np.isnan(means)
    even = np.interp(places, places[known], np.asarray(means)[known])
    return tuple(round(float(10 * np.log10(max(one, 1e-12))), 2) for one in even)


def _bands() -> NDArray[np.int64]:
    """The band of each bin: even steps of the ear's scale (equivalent rectangular bandwidths)."""
    frequency = np.arange(_BINS) * RATE / _FRAME
    low, high = _by_ear(np.array([40.0, 20_000.0]))
    place = (_by_ear(frequency) - low) / (high - low) * NOISE_BANDS
    return np.asarray(np.clip(place.astype(np.int64), 0, NOISE_BANDS - 1))


def _by_ear(frequency: NDArray[np.float64]) -> NDArray[np.float64]:
    """B. R. Glasberg, B. C. J. Moore, Hearing Research 47 (1990)."""
    return np.asarray(21.4 * np.log10(1 + 0.00437 * frequency))


def _spectra(samples: Samples) -> NDArray[np.complexfloating]:
    """Shape (frames, bins, channels)."""
    frames = np.lib.stride_tricks.sliding_window_view(samples, _FRAME, axis=0)[::_HOP]
    return np.fft.rfft(frames * _WINDOW.astype(np.float32), axis=-1).transpose(0, 2, 1)


def _denoised(insert: Denoise, samples: Samples, over: Over) -> Samples:
    # Frames lie on one grid for all of time, so that a range may be cut anywhere.
    head = over.first % _HOP
    tail = -(head + len(samples)) % _HOP
    padded = np.pad(samples, ((head + _FRAME, tail + _FRAME), (0, 0)))
    spectra = _spectra(padded)
    # Each frame has the values of its middle.
    first = over.first - head - _FRAME + _FRAME // 2
    middles = first + _HOP * np.arange(len(spectra))
    spectra = spectra * _gains(insert, spectra, middles)[..., None]
    frames = np.fft.irfft(spectra, axis=1) * _WINDOW[:, None] / 2
    out = np.zeros((len(padded), 2))
    for part in range(_FRAME // _HOP):
        # Frames of every fourth hop lie side by side.
        rows = frames[part :: _FRAME // _HOP].reshape(-1, 2)
        out[part * _HOP : part * _HOP + len(rows)] += rows[: len(out) - part * _HOP]
    begin = head + _FRAME
    return out[begin : begin + len(samples)].astype(np.float32)


def _gains(
    insert: Denoise, spectra: NDArray[np.complexfloating], middles: NDArray[np.int64]
) -> NDArray[np.float64]:
    """Wiener's gain for each frame and bin, never below what the amount allows."""
    from scipy.ndimage import uniform_filter  # slow to load

    noise = np.interp(np.arange(_BINS), _middles(), insert.noise)
    reach, amount = (values_at(prop, middles)[:, None] for prop in (insert.reach, insert.amount))
    power = (np.abs(spectra) ** 2).mean(axis=2)
    even = uniform_filter(power, (_AROUND, _AROUND), mode="nearest")
    share = 10 ** ((noise + reach) / 10) / np.maximum(even, 1e-12)
    gain = np.maximum(1 - share, 10 ** (-amount / 20))
    return np.asarray(uniform_filter(gain, (_AROUND, _AROUND), mode="nearest"))


def _middles() -> NDArray[np.float64]:
    """The middle bin of each band; where a band has none, between its neighbours."""
    bands, bins = _bands(), np.arange(_BINS)
    found = np.array(
        [
            bins[bands == band].mean() if (bands == band).any() else np.nan
            for band in range(NOISE_BANDS)
        ]
    )
    places = np.arange(NOISE_BANDS)
    known = ~np.isnan(found)
    return np.asarray(np.interp(places, places[known], found[known]))


insert_sounds.register("denoise")(
    Processing(
        _denoised,
        lambda insert: _REACH,
        lambda insert: _REACH,
        idle=lambda insert: len(insert.noise) != NOISE_BANDS or insert.amount == 0,
    )
)

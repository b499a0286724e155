"""The limiter at the end of a film: what it leaves alone, and what it keeps in."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray
from scipy.signal.windows import blackmanharris

from kitecore.sound.limiter import REACH, limited
from kitecore.sound.ramps import RATE
from kitecore.sound.truepeak import true_levels

CEILING = 1.0
Samples = NDArray[np.float32]


def tone(frequency: float, level: float, seconds: float = 1.0) -> Samples:
    time = np.arange(round(seconds * RATE)) / RATE
    wave = level * np.sin(2 * np.pi * frequency * time)
    return np.repeat(wave[:, None], 2, axis=1).astype(np.float32)


def run(samples: Samples) -> Samples:
    return limited(np.pad(samples, ((REACH, REACH), (0, 0))))


def distortion(samples: Samples, frequency: float) -> float:
    """Decibels of all that is not the tone, below the tone; away from the ends."""
    part = samples[12_000:36_000, 0].astype(float)
    spectrum = np.abs(np.fft.rfft(part * blackmanharris(len(part)))) ** 2
    middle = round(frequency * len(part) / RATE)
    tone_power = spectrum[middle - 6 : middle + 7].sum()
    return float(10 * np.log10((spectrum.sum() - tone_power) / tone_power))


class LimiterTest(TestCase):
    def test_finished_music_passes_to_the_bit(self) -> None:
        for level in (0.5, 0.95, CEILING):
            loud = tone(1000, level)
            np.testing.assert_array_equal(loud, run(loud))

    def test_a_tone_that_is_too_loud_is_only_made_quieter(self) -> None:
        for frequency in (30, 100, 440, 997, 5000):
            with self.subTest(frequency):
                done = run(tone(frequency, 2.0))
                self.assertLessEqual(np.abs(done).max(), CEILING)
                self.assertGreater(np.abs(done[12_000:36_000]).max(), 0.99)
                self.assertLess(distortion(done, frequency), -80)

    def test_it_is_ready_before_a_peak_and_lets_go_after_it(self) -> None:
        quiet = np.full((RATE, 2), 0.5, np.float32)
        quiet[24_000] = 3.0
        done = run(quiet)
        self.assertLessEqual(np.abs(done).max(), CEILING)
        np.testing.assert_array_equal(done[: 24_000 - REACH], quiet[: 24_000 - REACH])
        np.testing.assert_array_equal(done[24_001 + REACH :], quiet[24_001 + REACH :])
        gain = np.delete(done[:, 0], 24_000) / 0.5
        self.assertLess(gain.min(), 0.34)
        self.assertLess(np.abs(np.diff(gain)).max(), 0.001)

    def test_below_full_scale_peaks_between_samples_count(self) -> None:
        # A tone of a quarter of the rate, off by an eighth of a turn: its samples stay at 0.7.
        time = np.arange(RATE)
        wave = np.sin(np.pi / 2 * time + np.pi / 4)[:, None] * np.ones((1, 2))
        loud = wave.astype(np.float32)
        self.assertAlmostEqual(0.7071, np.abs(loud).max(), places=3)
        self.assertAlmostEqual(1.0, true_levels(loud)[1000:-1000].max(), places=2)
        ceiling = 10 ** (-1 / 20)
        done = limited(np.pad(loud, ((REACH, REACH), (0, 0))), ceiling)[1000:-1000]
        self.assertAlmostEqual(ceiling, true_levels(done)[1000:-1000].max(), places=2)
        np.testing.assert_array_equal(loud, run(loud))

    def test_both_channels_have_one_gain(self) -> None:
        pair = tone(300, 0.4)
        pair[:, 1] *= 5
        done = run(pair)[12_000:36_000]
        np.testing.assert_allclose(done[:, 1], 5 * done[:, 0], atol=1e-5)

    @settings(max_examples=25)
    @given(st.integers(0, 2**32 - 1), st.integers(0, 9000), st.integers(1, 9000))
    def test_it_is_the_same_however_it_is_cut(self, seed: int, start: int, count: int) -> None:
        noise = np.random.default_rng(seed).normal(0, 0.5, (9000 + 9000 + 2 * REACH, 2))
        loud = noise.astype(np.float32)
        whole = limited(loud)
        self.assertLessEqual(np.abs(whole).max(), CEILING)
        part = limited(loud[start : start + count + 2 * REACH])
        np.testing.assert_array_equal(whole[start : start + count], part)

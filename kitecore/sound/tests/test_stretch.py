"""Stretching against sines and clicks whose place is known."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from kitecore.sound.crossfade import equal_power
from kitecore.sound.stretch import followed, stretched
from kitecore.sound.varispeed import interpolated, margin

RATE = 48_000


def sine(frequency: float, count: int) -> np.ndarray:
    wave = 0.5 * np.sin(2 * np.pi * frequency * np.arange(count) / RATE)
    return np.repeat(wave[:, None], 2, axis=1).astype(np.float32)


class StretchTest(TestCase):
    def test_a_click_comes_when_it_should(self) -> None:
        source = np.zeros((4 * RATE, 2), np.float32)
        source[2 * RATE : 2 * RATE + 40] = 1
        for factor in (0.5, 1.3, 2.0):
            made = stretched(source, factor, RATE)
            self.assertAlmostEqual(4 * RATE / factor, len(made), delta=2)
            peak = int(np.argmax(np.abs(made[:, 0])))
            self.assertAlmostEqual(2 * RATE / factor, peak, delta=RATE * 0.005)

    def test_grains_follow_a_ramp_and_keep_pitch_and_level(self) -> None:
        source = sine(330, 4 * RATE)
        time = np.arange(2 * RATE) / RATE
        positions = (0.5 * time + 0.6 * time**2) * RATE
        made = followed(source, positions)
        self.assertEqual((2 * RATE, 2), made.shape)
        side = made[4800:-4800, 0]
        peak = np.argmax(np.abs(np.fft.rfft(side * np.hanning(len(side)), 4 * RATE))) / 4
        self.assertAlmostEqual(330, float(peak), delta=2)
        blocks = side[: len(side) // 2400 * 2400].reshape(-1, 2400)
        levels = np.sqrt((blocks**2).mean(axis=1))
        self.assertLess(levels.max() / levels.min(), 1.35)

    def test_grains_play_backwards_where_the_way_leads_back(self) -> None:
        source = np.zeros((2 * RATE, 2), np.float32)
        source[RATE // 2 : RATE // 2 + 200] = 0.9
        positions = np.linspace(2 * RATE - 1, 0, 2 * RATE)
        made = followed(source, positions)
        self.assertAlmostEqual(1.5 * RATE, float(np.argmax(made[:, 0])), delta=RATE * 0.02)


class InterpolationTest(TestCase):
    def test_whole_positions_give_the_samples_themselves(self) -> None:
        chance = np.random.default_rng(1)
        source = chance.uniform(-1, 1, (500, 2)).astype(np.float32)
        positions = np.arange(50.0, 450.0)
        self.assertLess(
            np.abs(interpolated(source, positions, np.ones(400)) - source[50:450]).max(), 1e-4
        )

    @settings(max_examples=30, deadline=None)
    @given(st.floats(100, 15_000), st.floats(-3, 1.0))
    def test_between_samples_it_is_the_sine(self, frequency: float, speed: float) -> None:
        if abs(speed) < 0.05 or abs(frequency * speed) > 15_000:
            return
        source = sine(frequency, 6000)
        positions = 3000 + np.arange(200) * speed
        wanted = 0.5 * np.sin(2 * np.pi * frequency * positions / RATE)
        if abs(speed) > 1 and frequency > 20_000 / abs(speed):
            return
        got = interpolated(source, positions, np.full(200, speed))[:, 0]
        self.assertLess(np.abs(got - wanted).max(), 0.004)
        self.assertGreater(margin(abs(speed)), 16)


class CrossfadeTest(TestCase):
    @given(st.integers(1, 5000))
    def test_power_adds_up_everywhere(self, length: int) -> None:
        positions = np.arange(-10, length + 10)
        rising = equal_power(positions, length, rising=True)
        falling = equal_power(positions, length, rising=False)
        self.assertLess(np.abs(rising**2 + falling**2 - 1).max(), 1e-6)
        self.assertTrue((np.diff(rising) >= -1e-7).all())

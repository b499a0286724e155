"""Sound as one number over time, of tones and knocks whose truth is known."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.sound.measures import LOOKS, led, powers_of, shares_of, struck, waving
from kitecore.sound.ramps import RATE


def tone(hertz: float, seconds: float = 1.0, level: float = 1.0) -> np.ndarray:
    at = np.arange(round(RATE * seconds)) / RATE
    return (level * np.sin(2 * np.pi * hertz * at)).astype(np.float32)


class MeasuresTest(TestCase):
    def test_a_tone_of_full_scale_has_0_decibels_in_its_band_alone(self) -> None:
        for band, hertz in (("low", 90), ("middle", 700), ("high", 5000)):
            inner = powers_of(tone(hertz), band)[5:-5]  # type: ignore[arg-type]
            self.assertLess(np.abs(inner).max(), 0.3)
            self.assertLess(np.abs(powers_of(tone(hertz), "level")[5:-5]).max(), 0.3)
            for other in {"low", "middle", "high"} - {band}:
                self.assertLess(powers_of(tone(hertz), other)[5:-5].max(), -40)  # type: ignore[arg-type]

    def test_half_as_high_is_6_decibels_less(self) -> None:
        less = powers_of(tone(440), "level") - powers_of(tone(440, level=0.5), "level")
        self.assertLess(np.abs(less[5:-5] - 6.02).max(), 0.05)

    def test_silence_leads_nothing_and_the_loudest_all_the_way(self) -> None:
        self.assertEqual(0, shares_of(powers_of(np.zeros(RATE, np.float32), "level")).max())
        sound = np.concatenate([np.zeros(RATE, np.float32), tone(300)])
        shares = shares_of(powers_of(sound, "level"))
        self.assertEqual(0, shares[:90].max())
        self.assertGreater(shares[110:190].min(), 0.98)

    @given(st.floats(0.02, 1), st.floats(0.02, 1))
    def test_nine_tenths_of_a_way_take_the_time_told(self, attack: float, release: float) -> None:
        held = np.concatenate([np.ones(8 * LOOKS), np.zeros(8 * LOOKS)])
        found = led(held, attack, release)
        up, down = np.argmax(found >= 0.9) + 1, np.argmax(found[8 * LOOKS :] <= 0.1) + 1
        self.assertLess(abs(up - attack * LOOKS), 1.5)
        self.assertLess(abs(down - release * LOOKS), 1.5)

    def test_a_beat_is_there_at_once_and_goes(self) -> None:
        found = led(struck(100, [20, 60, 500]), 0.0, 0.2)
        self.assertEqual([20, 60], np.flatnonzero(found > 0.99).tolist())
        self.assertAlmostEqual(0.1, found[40], delta=0.01)

    @given(st.floats(0.1, 20), st.integers(1, 100))
    def test_a_wave_stays_within_and_fades_to_the_middle(self, rate: float, seed: int) -> None:
        found = waving(1000, rate, seed, 1.0)
        self.assertTrue(((found >= 0) & (found <= 1)).all())
        self.assertLess(np.abs(found[-100:] - 0.5).max(), 0.01)

"""Beginnings in made sounds whose times are known."""

from __future__ import annotations

from unittest import TestCase

import numpy as np

from kitecore.sound.onsets import onsets_of
from kitecore.sound.ramps import RATE
from kitecore.sound.tests.test_beats import clicks, hit


class OnsetsTest(TestCase):
    def test_knocks_at_odd_times_are_found_and_nothing_else(self) -> None:
        rng = np.random.default_rng(5)
        times = 0.4 + np.cumsum(rng.uniform(0.12, 0.9, 30))
        found = onsets_of(clicks(times, rng.uniform(0.3, 1.0, 30)))
        self.assertGreaterEqual(hit(found, times), 0.95)
        self.assertLessEqual(len(found), 32)

    def test_notes_that_begin_while_others_sound(self) -> None:
        times = np.array([0.5, 1.0, 1.35, 2.1, 2.6])
        at = np.arange(4 * RATE) / RATE
        sound = np.zeros(len(at))
        for number, time in enumerate(times):
            fall = np.where(at >= time, np.exp(-1.2 * (at - time)), 0)
            sound += 0.3 * fall * np.sin(2 * np.pi * 220 * 2 ** (number * 5 / 12) * (at - time))
        found = onsets_of(sound.astype(np.float32))
        self.assertEqual(1.0, hit(found, times))
        self.assertLessEqual(len(found), 6)

    def test_what_only_goes_on_has_none(self) -> None:
        at = np.arange(3 * RATE) / RATE
        hum = 0.3 * np.sin(2 * np.pi * 110 * at)
        for sound in (np.zeros(3 * RATE), np.zeros(10), hum):
            self.assertLessEqual(len(onsets_of(sound.astype(np.float32))), 1)

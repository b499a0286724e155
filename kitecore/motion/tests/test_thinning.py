"""Few keys that lead where one on each frame did."""

from __future__ import annotations

import math
from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from kitecore.document.ease import Steady
from kitecore.motion.easing import eased
from kitecore.motion.thinning import thinned


def led(keys: list, tick: int) -> float:
    """Where keys of numbers lead at a tick."""
    for (a, low, ease), (b, high, _) in pairwise(keys):
        if a <= tick <= b:
            return float(low + (high - low) * eased(ease, (tick - a) / (b - a)))
    return float(keys[-1][1])


class ThinningTest(TestCase):
    def test_a_straight_way_is_two_keys(self) -> None:
        ticks = list(range(0, 3000, 100))
        keys = thinned(ticks, [tick * 0.25 for tick in ticks], 1e-6)
        self.assertEqual([0, 2900], [tick for tick, _, _ in keys])
        self.assertIsInstance(keys[0][2], Steady)

    def test_a_swing_needs_few_keys_to_be_half_a_pixel_off_at_most(self) -> None:
        ticks = list(range(121))
        values = [80 * math.sin(tick / 15) * math.exp(-tick / 60) for tick in ticks]
        keys = thinned(ticks, values, 0.5)
        self.assertLess(len(keys), 14)
        for tick, value in zip(ticks, values, strict=True):
            self.assertLessEqual(abs(led(keys, tick) - value), 0.5 + 1e-6)

    def test_points_that_turn_off_get_a_key_at_the_turn(self) -> None:
        ticks = list(range(21))
        values = [(float(min(tick, 10)), float(max(tick - 10, 0))) for tick in ticks]
        self.assertEqual([0, 10, 20], [tick for tick, _, _ in thinned(ticks, values, 0.01)])

    def test_one_sample_is_one_key(self) -> None:
        self.assertEqual([(5, 2.0, Steady())], thinned([5], [2.0], 0.5))

    @given(st.lists(st.floats(-500, 500), min_size=2, max_size=60), st.floats(0.01, 20))
    def test_no_sample_is_farther_off_than_allowed(
        self, values: list[float], tolerance: float
    ) -> None:
        ticks = [number * 7 for number in range(len(values))]
        keys = thinned(ticks, values, tolerance)
        self.assertEqual((0, ticks[-1]), (keys[0][0], keys[-1][0]))
        for tick, value in zip(ticks, values, strict=True):
            self.assertLessEqual(abs(led(keys, tick) - value), tolerance + 1e-6)

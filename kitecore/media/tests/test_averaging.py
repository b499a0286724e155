"""Means of what pixels cover, held against OpenCV's and against plain sums."""

from __future__ import annotations

from unittest import TestCase

import cv2
import numpy as np
from hypothesis import given
from hypothesis import strategies as some

from kitecore.media.averaging import averaged

SIDES = some.integers(1, 40)


class AveragingTest(TestCase):
    @given(SIDES, SIDES, some.floats(1, 3), some.floats(1, 3), some.integers(0, 9))
    def test_it_is_the_mean_of_what_is_covered(
        self, width: int, height: int, across: float, down: float, seed: int
    ) -> None:
        luck = np.random.default_rng(seed)
        large = round(width * across), round(height * down)
        pixels = luck.integers(0, 256, (large[1], large[0], 4), np.uint8)
        found = averaged(pixels, (width, height))
        exact = pixels.astype(np.float32)
        wanted = cv2.resize(exact, (width, height), interpolation=cv2.INTER_AREA)
        self.assertLess(np.abs(found - wanted).max(), 1.6)
        self.assertLess(abs(found.mean() - wanted.mean()), 0.6)

    def test_an_even_picture_stays_even_and_whole_steps_are_exact(self) -> None:
        even = np.full((31, 17, 4), (255, 1, 77, 200), np.uint8)
        self.assertTrue((averaged(even, (11, 23)) == even[0, 0]).all())
        pixels = np.random.default_rng(1).integers(0, 256, (8, 6, 4), np.uint8)
        means = pixels.reshape(4, 2, 3, 2, 4).mean(axis=(1, 3))
        np.testing.assert_array_equal(np.floor(means + 0.5), averaged(pixels, (3, 4)))

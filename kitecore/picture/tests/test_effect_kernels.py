"""What effects are drawn by, held against the same in plain numbers and another library."""

from __future__ import annotations

from unittest import TestCase

import cv2
import numpy as np
from hypothesis import given
from hypothesis import strategies as some

from kitecore.picture.effects._lighting import lit, with_light
from kitecore.picture.effects._taps import tapped
from kitecore.picture.layer import Rgba


def picture(seed: int = 1, size: tuple[int, int] = (23, 31)) -> Rgba:
    luck = np.random.default_rng(seed)
    alpha = luck.choice(np.array([0, 40, 200, 255], np.uint8), size)
    rgb = luck.integers(0, 256, (*size, 3), np.uint8)
    return np.dstack([np.minimum(rgb, alpha[..., None]), alpha])


class LightingTest(TestCase):
    @given(some.integers(0, 99), some.floats(0, 2), some.floats(0, 3))
    def test_light_is_what_its_formula_says(
        self, seed: int, around: float, strength: float
    ) -> None:
        pixels, tint = picture(seed), (1.0, 0.4, 0.0)
        light = np.random.default_rng(seed).uniform(0, strength, (23, 31)).astype(np.float32)
        rgb, alpha = pixels[..., :3].astype(float), pixels[..., 3:].astype(float)
        falls = np.minimum(rgb * (around + light[..., None] * tint), alpha)
        found = lit(pixels, light, tint, around)
        np.testing.assert_allclose(falls, found[..., :3], atol=0.51)
        added = np.minimum(rgb * around + 255 * light[..., None] * tint, alpha)
        found = with_light(pixels, 255 * light, tint, around)
        np.testing.assert_allclose(added, found[..., :3], atol=0.51)
        np.testing.assert_array_equal(pixels[..., 3], found[..., 3])

    def test_a_row_of_light_holds_for_all_rows(self) -> None:
        pixels, light = picture(), np.linspace(0, 1, 31, dtype=np.float32)[None, :]
        whole = np.repeat(light, 23, axis=0)
        np.testing.assert_array_equal(lit(pixels, whole), lit(pixels, light))
        np.testing.assert_array_equal(pixels, lit(pixels, np.float32([[1.0]])))


class TapsTest(TestCase):
    @given(some.integers(0, 99), some.integers(0, 4), some.integers(0, 6))
    def test_sums_are_those_of_a_filter(self, seed: int, down: int, across: int) -> None:
        weights = np.random.default_rng(seed).uniform(0, 1, (2 * down + 1, 2 * across + 1))
        weights[weights < 0.6] = 0
        weights[down, across] += 0.1
        weights /= weights.sum()
        pixels = picture(seed)
        wanted = cv2.filter2D(
            pixels.astype(np.float64), -1, weights, borderType=cv2.BORDER_REPLICATE
        )
        np.testing.assert_allclose(wanted, tapped(pixels, weights), atol=0.52)

    def test_an_even_picture_stays_as_it_is(self) -> None:
        pixels = np.full((9, 9, 4), 255, np.uint8)
        np.testing.assert_array_equal(pixels, tapped(pixels, np.full((5, 7), 1 / 35)))

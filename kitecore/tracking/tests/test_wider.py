"""Corners grown by what was found: never narrower than either, evenly, and not for somebody else."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from numpy.typing import NDArray

from kitecore.tracking.faces import Boxes
from kitecore.tracking.wider import widened

THING = np.array([[40.0, 50.0], [60.0, 50.0], [60.0, 80.0], [40.0, 80.0]])
STEP = 6


def standing(count: int) -> NDArray[np.float64]:
    return np.repeat(THING[None], count, axis=0)


def found(left: float, top: float, right: float, bottom: float) -> Boxes:
    return np.array([[left, top, right, bottom, 0.9]], np.float32)


def box_of(quad: NDArray[np.float64]) -> tuple[float, float, float, float]:
    return (*quad.min(axis=0), *quad.max(axis=0))


class WiderTest(TestCase):
    def test_what_is_found_inside_changes_nothing(self) -> None:
        looks = {number: found(42, 52, 58, 78) for number in range(0, 30, STEP)}
        np.testing.assert_allclose(widened(standing(30), 0, looks), standing(30), atol=1e-9)

    def test_nothing_found_and_nothing_looked_at_change_nothing(self) -> None:
        none = np.zeros((0, 5), np.float32)
        for looks in ({}, {0: none, 6: none}, {200: found(0, 0, 300, 300)}):
            np.testing.assert_allclose(widened(standing(12), 0, looks), standing(12), atol=1e-9)

    def test_somebody_else_and_what_is_far_too_large_do_not_count(self) -> None:
        for other in (found(70, 50, 90, 80), found(0, 0, 100, 130)):
            np.testing.assert_allclose(
                widened(standing(12), 0, {6: other}), standing(12), atol=1e-9
            )

    @given(st.lists(st.tuples(*[st.floats(0, 9)] * 4), min_size=2, max_size=8), st.integers(0, 100))
    def test_it_holds_both_wherever_one_looked_and_in_between(
        self, more: list[tuple[float, float, float, float]], first: int
    ) -> None:
        looks = {
            first + STEP * at: found(40 - a, 50 - b, 60 + c, 80 + d)
            for at, (a, b, c, d) in enumerate(more)
        }
        wide = widened(standing(STEP * len(more)), first, looks)
        for at in range(STEP * (len(more) - 1) + 1):
            left, top, right, bottom = box_of(wide[at])
            self.assertTrue(left <= 40 and top <= 50 and right >= 60 and bottom >= 80)
            beside = {at // STEP, -(-at // STEP)}
            for box in (looks[first + STEP * one][0] for one in beside):
                self.assertLessEqual(left, box[0] + 1e-3)
                self.assertLessEqual(top, box[1] + 1e-3)
                self.assertGreaterEqual(right, box[2] - 1e-3)
                self.assertGreaterEqual(bottom, box[3] - 1e-3)

    def test_it_grows_evenly_and_keeps_its_middle_and_turn(self) -> None:
        turn = np.array([[0.8, 0.6], [-0.6, 0.8]])
        turned = np.repeat(((THING - (50, 65)) @ turn + (50, 65))[None], 60, axis=0)
        wide = widened(
            turned,
            0,
            {at: found(30, 40, 70, 90) for at in range(24, 36, STEP)} | {0: found(45, 60, 55, 70)},
        )
        sizes = np.hypot(*(wide[:, 1] - wide[:, 0]).T)
        self.assertLess(np.abs(np.diff(sizes)).max(), 4)
        np.testing.assert_allclose(wide.mean(axis=1), turned.mean(axis=1), atol=1e-9)
        along = (wide[:, 1] - wide[:, 0]) / sizes[:, None]
        np.testing.assert_allclose(along, np.repeat(along[:1], 60, axis=0), atol=1e-9)

"""Corners grown by what was found: never narrower than either, evenly, and not for somebody else."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from numpy.typing import NDArray

from kitecore.tracking.faces import Boxes
from kitecore.tracking.wider import believed, widened

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


NOTHING = np.zeros((0, 5), np.float32)


class BelievedTest(TestCase):
    """A thing stays where it is, or goes along from look to look by six pixels."""

    def boxes(self, number: int) -> Boxes:
        return found(40 + number, 50, 60 + number, 80)

    def test_what_is_found_where_it_was_followed_to_is_sure_and_stays(self) -> None:
        looks = {number: found(41, 50, 61, 80) for number in range(0, 13, STEP)}
        quads, sure = believed(standing(13), np.full(13, 0.5), 0, looks, 0.65)
        np.testing.assert_array_equal(standing(13), quads)
        np.testing.assert_array_equal(np.full(13, 0.65), sure)

    def test_what_went_astray_goes_straight_from_one_find_to_the_next(self) -> None:
        looks = {number: self.boxes(number) for number in (0, 6, 12)}
        quads, sure = believed(standing(20), np.ones(20), 0, looks, 0.65)
        for number in range(13):
            left, top, right, bottom = box_of(quads[number])
            self.assertAlmostEqual(40 + number, left, places=4)
            self.assertEqual((50, 80), (top, bottom))
            self.assertAlmostEqual(60 + number, right, places=4)
        np.testing.assert_array_equal(standing(7), quads[13:])
        self.assertEqual(1, sure.min())

    def test_where_it_was_not_found_between_what_strays_is_a_guess(self) -> None:
        looks = {0: self.boxes(0), 6: NOTHING, 12: NOTHING, 18: self.boxes(0)}
        way = standing(19)
        way[8:11] += (45, 0)
        quads, sure = believed(way, np.ones(19), 0, looks, 0.65)
        np.testing.assert_allclose(standing(19), quads, atol=1e-9)
        np.testing.assert_array_equal([8, 9, 10], np.flatnonzero(sure < 0.65))

    def test_lost_and_never_found_stays_lost(self) -> None:
        for looks in ({}, {0: NOTHING, 6: self.boxes(0), 12: NOTHING}):
            quads, sure = believed(standing(15), np.zeros(15), 0, looks, 0.65)
            np.testing.assert_array_equal(standing(15), quads)
            self.assertEqual(0, sure.max())

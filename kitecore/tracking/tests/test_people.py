"""Persons in a real picture, large and small in what is looked at."""

from __future__ import annotations

from unittest import TestCase
from unittest.mock import patch

import cv2
import numpy as np
import skimage.data
from numpy.typing import NDArray

from kitecore.tracking import people
from kitecore.tracking.people import around, can_find_people, people_in, person_at

LEFT, TOP, SIDE = 600, 300, 200
"""Where a small person stands in a wide picture."""


def alone() -> NDArray[np.uint8]:
    return np.asarray(skimage.data.astronaut())


def far() -> NDArray[np.uint8]:
    ground = np.asarray(cv2.resize(skimage.data.coffee(), (960, 540)))
    ground[TOP : TOP + SIDE, LEFT : LEFT + SIDE] = cv2.resize(alone(), (SIDE, SIDE))
    return ground


class PeopleTest(TestCase):
    def test_a_person_is_told_from_the_ground(self) -> None:
        found = people_in(alone())
        self.assertGreater(found[60:260, 180:260].mean(), 0.95)
        self.assertLess(found[:40, :100].max(), 0.05)

    def test_a_tap_finds_one_that_is_small_in_the_picture(self) -> None:
        self.assertTrue(can_find_people())
        found = person_at(far(), (LEFT + 90, TOP + 50))
        one = found[TOP : TOP + SIDE, LEFT : LEFT + SIDE]
        large = cv2.resize(people_in(alone()), (SIDE, SIDE), interpolation=cv2.INTER_AREA)
        both, either = (one > 0.5) & (large > 0.5), (one > 0.5) | (large > 0.5)
        self.assertGreater(both.sum() / either.sum(), 0.85)
        self.assertLess((found > 0.5).sum() - (one > 0.5).sum(), 0.05 * (one > 0.5).sum())

    def test_where_nobody_is_nothing_is_found(self) -> None:
        self.assertEqual(0, person_at(far(), (100, 100)).max())
        self.assertEqual((1, 1), person_at(np.zeros((1, 1, 3), np.uint8), (0, 0)).shape)

    def test_a_place_beyond_the_picture_is_no_trouble(self) -> None:
        for spot in ((-500.0, 20.0), (5000.0, 5000.0)):
            self.assertEqual(0, person_at(alone(), spot).max())

    def test_without_the_model_nobody_is_found(self) -> None:
        with patch.object(people, "_file", return_value=None):
            self.assertFalse(can_find_people())
            self.assertEqual(0, people_in(alone()).max())

    def test_what_lies_around_stays_within_the_picture(self) -> None:
        there = np.zeros((40, 60), np.bool_)
        self.assertIsNone(around(there))
        there[10:30, :20] = True
        self.assertEqual((0, 5, 25, 35), around(there))

"""Spots that tell together how a thing moves: what lies between them, and one of them, may change."""

from __future__ import annotations

from unittest import TestCase

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.flow import Grey
from kitecore.tracking.follow import SURE, Seen
from kitecore.tracking.quads import Change, Quad, carried
from kitecore.tracking.spots import follow_spots, spots_at
from kitecore.tracking.tests.scenes import SIZE, THING, Scene, half_covered, texture
from kitecore.tracking.ways import followed

COUNT = 90
THREE = np.array([[0.15, 0.12], [0.85, 0.15], [0.5, 0.9]])
FOUR = np.array([[0.1, 0.1], [0.9, 0.1], [0.9, 0.9], [0.1, 0.9]])
INNER = np.array([[0.25, 0.25], [0.75, 0.25], [0.75, 0.75], [0.25, 0.75]])
CHANGES: tuple[tuple[Change, NDArray[np.float64]], ...] = (("turns", THREE), ("leans", FOUR))


def restless(frame: Grey, number: int, quad: Quad) -> Grey:
    """The middle of the thing shows something else in each picture."""
    screen = np.zeros_like(frame)
    cv2.fillConvexPoly(screen, np.rint(spots_at(quad, INNER)).astype(np.int32), 255)
    return np.where(screen > 0, texture(SIZE[1], SIZE[0], 100 + number, 4), frame)


def patched(spot: int) -> Scene:
    """From the thirtieth picture on one of four spots is never seen again."""

    def cover(frame: Grey, number: int, quad: Quad) -> Grey:
        if number >= 30:
            x, y = (int(one) for one in spots_at(quad, FOUR)[spot])
            frame[y - 22 : y + 22, x - 22 : x + 22] = texture(44, 44, 7, 4)
        return frame

    return Scene("turns", cover)


def missed(scene: Scene, found: list[Seen]) -> NDArray[np.float64]:
    return np.array(
        [np.hypot(*(one.quad - scene.quad(number)).T).mean() for number, one in enumerate(found)]
    )


class SpotsTest(TestCase):
    def follow(self, scene: Scene, spots: NDArray[np.float64], count: int = COUNT) -> list[Seen]:
        return list(follow_spots(scene.frames(count), scene.quad(0), scene.change, spots))

    def test_spots_lie_within_the_thing_in_perspective(self) -> None:
        matrix = np.array([[1.2, 0.3, 40.0], [-0.2, 0.9, 70.0], [0.001, 0.0005, 1.0]])
        wanted = carried(matrix, FOUR * THING[2])
        np.testing.assert_allclose(spots_at(carried(matrix, THING), FOUR), wanted, atol=1e-3)

    def test_known_ways_are_followed_within_a_pixel_whatever_lies_between(self) -> None:
        for change, spots in CHANGES:
            for spoil in (None, restless, half_covered):
                scene = Scene(change, spoil) if spoil else Scene(change)
                found = self.follow(scene, spots, 60)
                self.assertLess(missed(scene, found).max(), 1.0, (change, spoil))
                self.assertGreater(min(one.sure for one in found), SURE, (change, spoil))

    def test_one_of_four_may_be_covered_for_good(self) -> None:
        for spot in (0, 2):
            scene = patched(spot)
            found = self.follow(scene, FOUR)
            self.assertLess(missed(scene, found).max(), 1.5)
            self.assertGreater(min(one.sure for one in found), SURE)

    def test_too_few_for_perspective_still_tell_where_it_goes_and_that_it_is_a_guess(self) -> None:
        def cover(frame: Grey, number: int, quad: Quad) -> Grey:
            if 30 <= number < 40:
                x, y = (int(one) for one in spots_at(quad, FOUR)[0])
                frame[y - 22 : y + 22, x - 22 : x + 22] = texture(44, 44, 7, 4)
            return frame

        scene = Scene("leans", cover)
        found = self.follow(scene, FOUR)
        unsure = [number for number, one in enumerate(found) if one.sure < SURE]
        self.assertTrue(set(range(31, 40)) <= set(unsure) <= set(range(30, 46)), unsure)
        self.assertTrue(all(one.sure > 0 for one in found))
        off = missed(scene, found)
        self.assertLess(off.max(), 6.0)
        self.assertLess(off[60:].max(), 1.0)

    def test_what_leaves_is_told_at_once_and_found_again(self) -> None:
        scene = Scene("turns", away=range(40, 62))
        found = self.follow(scene, THREE)
        self.assertLess(max(one.sure for one in found[40:62]), SURE)
        self.assertEqual({0.0}, {one.sure for one in found[57:62]}, "still a guess")
        self.assertLess(missed(scene, found)[-10:].max(), 1.0)

    def test_pictures_without_anything_are_lost_and_it_stays(self) -> None:
        grey = [np.full((200, 200), 90, np.uint8)] * 5
        for change, spots in CHANGES:
            found = list(follow_spots(grey, THING / 2 + 40, change, spots))
            self.assertEqual([1, 0, 0, 0, 0], [one.sure for one in found])
            np.testing.assert_allclose(found[-1].quad, THING / 2 + 40)

    def test_a_correction_is_met_and_both_ways_agree(self) -> None:
        scene = Scene("turns")
        views = [(10, scene.quad(10)), (30, scene.quad(30))]
        way = followed(scene.frame, 0, 40, views, "turns", THREE)
        wanted = np.stack([scene.quad(number) for number in range(41)])
        self.assertLess(np.abs(way.quads - wanted).max(), 1.0)
        np.testing.assert_allclose(way.quads[[10, 30]], wanted[[10, 30]], atol=1e-6)

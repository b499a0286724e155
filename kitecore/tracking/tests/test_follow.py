"""Things followed along known ways: through blur, light and what goes past, lost and found."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray

from kitecore.tracking.follow import Seen, follow
from kitecore.tracking.quads import Change, between, carried, similar
from kitecore.tracking.tests.scenes import THING, Scene, blurred, half_covered, lit
from kitecore.tracking.ways import followed

COUNT = 90


def missed(scene: Scene, found: list[Seen]) -> NDArray[np.float64]:
    """Mean distance of the corners from where they are, in pixels, for each frame."""
    return np.array(
        [np.hypot(*(one.quad - scene.quad(number)).T).mean() for number, one in enumerate(found)]
    )


class FollowTest(TestCase):
    def follow(self, scene: Scene, count: int = COUNT) -> list[Seen]:
        return list(follow(scene.frames(count), scene.quad(0), scene.change))

    def test_known_ways_are_followed_within_a_pixel(self) -> None:
        for change in ("moves", "turns", "leans"):
            scene = Scene(change)
            found = self.follow(scene)
            off = missed(scene, found)
            self.assertLess(off.mean(), 0.5, change)
            self.assertLess(off.max(), 1.2, change)
            self.assertTrue(all(one.sure > 0.6 for one in found), change)

    def test_nothing_creeps_over_three_hundred_frames(self) -> None:
        scene = Scene("turns")
        off = missed(scene, self.follow(scene, 300))
        self.assertLess(off[200:].mean(), 0.5)
        self.assertLess(off.max(), 1.0)

    def test_blur_light_and_what_goes_past_cost_less_than_two_pixels(self) -> None:
        changes: tuple[Change, ...] = ("turns", "leans")
        for change in changes:
            for spoil in (blurred, half_covered, lit):
                scene = Scene(change, spoil)
                found = self.follow(scene)
                self.assertLess(missed(scene, found).max(), 2.0, (change, spoil.__name__))
                self.assertTrue(all(one.sure > 0 for one in found), (change, spoil.__name__))

    def test_what_leaves_is_told_at_once_and_found_when_it_is_back(self) -> None:
        scene = Scene("turns", away=range(40, 60))
        found = self.follow(scene)
        lost = [number for number, one in enumerate(found) if not one.sure]
        self.assertEqual([40, 41, 42], lost[:3])
        self.assertLess(lost[-1], 75)
        self.assertLess(missed(scene, found)[-10:].max(), 1.0)

    def test_nothing_to_follow_is_lost_and_stays(self) -> None:
        grey = [np.full((200, 200), 90, np.uint8)] * 5
        quad = THING / 2 + 40
        for change in ("moves", "turns", "leans"):
            found = list(follow(grey, quad, change))
            self.assertEqual([1, 0, 0, 0, 0], [one.sure for one in found])
            np.testing.assert_allclose(found[-1].quad, quad)

    def test_at_the_edge_of_the_picture_it_goes_on(self) -> None:
        scene = Scene("moves")
        quad = np.array([[0.0, 900], [60, 900], [60, 960], [0, 960]])
        still = [scene.frame(0)] * 4
        self.assertLess(np.abs(list(follow(still, quad, "moves"))[-1].quad - quad).max(), 0.5)


class WaysTest(TestCase):
    def test_from_the_middle_both_ways(self) -> None:
        scene = Scene("turns")
        way = followed(scene.frame, 0, 40, [(20, scene.quad(20))], "turns")
        wanted = np.stack([scene.quad(number) for number in range(41)])
        self.assertLess(np.abs(way.quads - wanted).max(), 1.0)
        self.assertEqual(1.0, way.sure[20])

    def test_a_single_frame_is_where_it_was_said(self) -> None:
        scene = Scene("turns")
        way = followed(scene.frame, 3, 3, [(3, scene.quad(3))], "turns")
        np.testing.assert_allclose(way.quads, [scene.quad(3)])

    def test_a_correction_is_met_and_pulls_smoothly(self) -> None:
        scene = Scene("moves")
        aside = scene.quad(20) + np.array([6.0, 0.0])
        way = followed(scene.frame, 0, 40, [(0, scene.quad(0)), (20, aside)], "moves")
        off = np.array([(way.quads[n] - scene.quad(n)).mean(axis=0)[0] for n in range(41)])
        self.assertAlmostEqual(0, off[0], delta=0.01)
        self.assertAlmostEqual(6, off[20], delta=0.01)
        self.assertLess(np.abs(np.diff(off[:21])).max(), 1.0)
        self.assertAlmostEqual(6, off[40], delta=0.7)

    def test_a_correction_where_it_is_lost_goes_on_from_there(self) -> None:
        scene = Scene("moves", away=range(5, 15))
        way = followed(scene.frame, 0, 30, [(0, scene.quad(0)), (20, scene.quad(20))], "moves")
        self.assertTrue((way.sure[5:15] == 0).all())
        self.assertTrue((way.sure[15:] > 0).all())
        off = np.abs(way.quads[15:] - np.stack([scene.quad(n) for n in range(15, 31)]))
        self.assertLess(off.max(), 1.0)


class QuadsTest(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.floats(-170, 170), st.floats(0.2, 5), st.floats(-300, 300), st.floats(-300, 300))
    def test_a_change_is_found_again(self, turn: float, size: float, x: float, y: float) -> None:
        cos, sin = size * np.cos(np.radians(turn)), size * np.sin(np.radians(turn))
        matrix = np.array([[cos, -sin, x], [sin, cos, y], [0, 0, 1]])
        after = carried(matrix, THING)
        np.testing.assert_allclose(similar(THING, after), matrix, atol=1e-6)
        for change in ("turns", "leans"):
            np.testing.assert_allclose(
                carried(between(change, THING, after), THING), after, atol=0.01
            )
        shift = between("moves", THING, after)
        np.testing.assert_allclose(
            carried(shift, THING).mean(axis=0), after.mean(axis=0), atol=1e-6
        )

"""Why things are lost: made pictures in which one thing at a time goes wrong."""

from __future__ import annotations

from collections.abc import Callable
from unittest import TestCase

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.flow import Grey
from kitecore.tracking.follow import SURE
from kitecore.tracking.quads import Quad
from kitecore.tracking.reasons import MOST, REASONS, reasons, why
from kitecore.tracking.tests.scenes import Scene, texture
from kitecore.tracking.ways import followed

FROM = 30


def dark(frame: Grey, number: int, quad: Quad) -> Grey:
    return frame if number < FROM else np.full_like(frame, 16)


def flash(frame: Grey, number: int, quad: Quad) -> Grey:
    if number < FROM:
        return frame
    return np.asarray(np.clip(frame.astype(float) * 0.35 + 160, 0, 255), np.uint8)


def shaken(frame: Grey, number: int, quad: Quad) -> Grey:
    return frame if number < FROM else np.asarray(cv2.blur(frame, (61, 9)), np.uint8)


def half(frame: Grey, number: int, quad: Quad) -> Grey:
    """From then on something stands before most of it."""
    if number >= FROM:
        x, y = (int(one) for one in quad.min(axis=0))
        frame[y + 40 : y + 180, x - 20 : x + 140] = texture(140, 160, 9, 4)
    return frame


class WhyTest(TestCase):
    def at(self, spoil: Callable[[Grey, int, Quad], Grey]) -> str:
        scene = Scene("turns", spoil)
        quads = scene.quad(FROM - 1), scene.quad(FROM)
        return why(scene.frame(FROM - 1), quads[0], scene.frame(FROM), quads[1])

    def test_each_is_told_apart(self) -> None:
        for spoil, wanted in (
            (dark, "empty"),
            (flash, "light"),
            (shaken, "blurred"),
            (half, "hidden"),
        ):
            self.assertEqual(wanted, self.at(spoil), spoil.__name__)

    def test_what_is_gone_is_not_seen_as_it_was(self) -> None:
        scene = Scene("turns", away=range(FROM, 90))
        quads = scene.quad(FROM - 1), scene.quad(FROM)
        found = why(scene.frame(FROM - 1), quads[0], scene.frame(FROM), quads[1])
        self.assertEqual("hidden", found)


class ReasonsTest(TestCase):
    def told(self, scene: Scene, first: int, last: int, view: int) -> list[str]:
        """Reasons of stretches on a way that is followed from a view."""
        way = followed(scene.frame, first, last, [(view, scene.quad(view))], "turns")
        found = reasons(lambda at: scene.frame(first + at), way.quads, way.sure, SURE)
        np.testing.assert_array_equal(way.sure < SURE, found > 0)
        return [REASONS[one - 1] for one in dict.fromkeys(found.tolist()) if one]

    def test_what_walks_out_of_the_picture_has_left_it(self) -> None:
        class Walking(Scene):
            def quad(self, number: int) -> Quad:
                return super().quad(number) - [9.0 * number, 0]

            def frame(self, number: int) -> Grey:
                whole = Scene.frame(Scene("turns"), number)
                padded = np.pad(whole, ((0, 0), (0, 9 * number)), mode="reflect")
                return np.ascontiguousarray(padded[:, 9 * number :][:, : whole.shape[1]])

        self.assertEqual("left", self.told(Walking("turns"), 0, 45, 0)[0])

    def test_forwards_and_back(self) -> None:
        self.assertEqual(["empty"], self.told(Scene("turns", dark), 20, 40, 20))
        before = Scene("turns", lambda f, n, q: f if n > FROM else np.full_like(f, 16))
        self.assertEqual(["empty"], self.told(before, 20, 40, 40))

    def test_nothing_is_told_of_what_is_sure_and_not_of_all_too_many(self) -> None:
        quads: NDArray[np.float64] = np.tile(Scene("turns").quad(0), (6 * MOST, 1, 1))
        picture = Scene("turns").frame(0)
        self.assertFalse(reasons(lambda _: picture, quads, np.ones(len(quads)), SURE).any())
        blinking = np.arange(len(quads)) % 3 > 0
        told = reasons(lambda _: picture, quads, blinking.astype(float), SURE)
        self.assertEqual(MOST, np.count_nonzero(told))
        self.assertFalse(reasons(lambda _: picture, quads, np.zeros(len(quads)), SURE).any())

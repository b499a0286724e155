"""What holds for every transition there is, and where each has its pictures in between."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from kitecore.document import TransitionBase
from kitecore.document.transitions import transition_kinds
from kitecore.document.transitions.wipe import Wipe
from kitecore.picture.layer import Rgba
from kitecore.picture.softening import softened
from kitecore.picture.transitions import cross, transition_drawings
from kitecore.picture.transitions._base import way

HEIGHT, WIDTH = 36, 24
ROUNDED = 2
"""Levels by which a mix may be rounded."""


def picture(seed: int, alpha: bool = False) -> Rgba:
    chance = np.random.default_rng(seed)
    pixels = chance.integers(0, 256, (HEIGHT, WIDTH, 4), np.uint8)
    pixels[..., 3] = chance.integers(0, 256, (HEIGHT, WIDTH), np.uint8) if alpha else 255
    pixels[..., :3] = pixels[..., :3].astype(int) * pixels[..., 3:] // 255
    return pixels


def made(kind: str) -> TransitionBase:
    return transition_kinds[kind](length=1000)


class EveryTransitionTest(TestCase):
    def test_each_model_has_its_drawing(self) -> None:
        self.assertEqual(set(transition_kinds), set(transition_drawings))

    def test_it_begins_with_the_one_and_ends_with_the_other(self) -> None:
        a, b = picture(1), picture(2)
        for kind in transition_kinds:
            for share, wanted in ((0.0, a), (1.0, b)):
                got = cross(a, b, share, made(kind), 1.0)
                off = np.abs(got.astype(int) - wanted)
                self.assertLessEqual(off.max(), ROUNDED, (kind, share))

    @settings(max_examples=40, deadline=None)
    @given(st.sampled_from(sorted(transition_kinds)), st.floats(0, 1), st.integers(0, 99))
    def test_colours_stay_premultiplied_and_pictures_their_size(
        self, kind: str, share: float, seed: int
    ) -> None:
        a, b = picture(seed, alpha=True), picture(seed + 1, alpha=True)
        kept = a.copy(), b.copy()
        got = cross(a, b, share, made(kind), 1.0)
        self.assertEqual((a.shape, np.uint8), (got.shape, got.dtype))
        self.assertTrue((got[..., :3].astype(int) <= got[..., 3:].astype(int) + ROUNDED).all())
        self.assertTrue(np.array_equal(a, kept[0]) and np.array_equal(b, kept[1]))

    def test_opaque_pictures_leave_no_holes(self) -> None:
        a, b = picture(3), picture(4)
        for kind in transition_kinds:
            for share in (0.1, 0.5, 0.83):
                got = cross(a, b, share, made(kind), 1.0)
                self.assertGreaterEqual(got[..., 3].min(), 255 - ROUNDED, (kind, share))


class WipeTest(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.floats(-180, 180), st.floats(0.02, 0.98), st.floats(0, 0.5))
    def test_the_line_stands_where_its_share_says(
        self, angle: float, share: float, softness: float
    ) -> None:
        black = np.zeros((60, 40, 4), np.uint8)
        white = np.full_like(black, 255)
        wipe = Wipe(length=1000, angle=angle, softness=softness)
        got = cross(black, white, share, wipe, 1.0)[..., 0] / 255
        x, y = np.cos(np.radians(angle)), np.sin(np.radians(angle))
        rows, columns = np.mgrid[0:60, 0:40] + 0.5
        along = (columns - 20) * x + (rows - 30) * y
        length = 40 * abs(x) + 60 * abs(y)
        soft = max(softness * length, 1)
        t = np.clip((-length / 2 + share * (length + soft) - along) / soft, 0, 1)
        self.assertLess(np.abs(got - t * t * (3 - 2 * t)).max(), 0.02)

    def test_ways_lead_just_out_of_sight(self) -> None:
        for angle, wanted in ((0, (40, 0)), (90, (0, 60)), (180, (-40, 0)), (-90, (0, -60))):
            self.assertTrue(np.allclose(way(angle, 40, 60), wanted), angle)
        x, y = way(45, 40, 60)
        self.assertAlmostEqual(40, max(abs(x), abs(y)))


class SofteningTest(TestCase):
    def test_a_wide_blur_done_small_is_nearly_the_exact_one(self) -> None:
        import cv2

        chance = np.random.default_rng(5)
        small = chance.integers(0, 256, (12, 9, 4), np.uint8)
        pixels = cv2.resize(small, (180, 240), interpolation=cv2.INTER_CUBIC)
        exact = cv2.GaussianBlur(pixels, (0, 0), 20, borderType=cv2.BORDER_REPLICATE)
        off = np.abs(softened(pixels, 20).astype(int) - exact)
        self.assertLess(off.mean(), 1.0)
        self.assertLess(off[40:-40, 40:-40].max(), 6)
        self.assertTrue(np.array_equal(pixels, softened(pixels, 0.05)))

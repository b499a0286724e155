"""Pieces fill the picture, fly as rigid bodies, and are drawn where they are."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.document.effects.shards import Shards
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, moved
from kitecore.picture.shards import Breaking, Flight, faces_of, flown, pieces_of
from kitecore.picture.shards.faces import View
from kitecore.picture.shards.pieces import middles_of
from kitecore.picture.tests.test_effects_tones import photograph

breakings = st.builds(
    Breaking,
    aspect=st.floats(0.3, 3),
    count=st.integers(2, 120),
    seed=st.integers(1, 100),
    unlike=st.floats(0, 1),
    near=st.floats(0, 1),
    centre=st.tuples(st.floats(-1, 1), st.floats(-1, 1)),
)
FLIGHT = Flight(0.6, distance=0.8, scatter=0.3, fall=0.4, depth=0.5, spin=400, delay=0.5)


def area(polygon: np.ndarray) -> float:
    following = np.roll(polygon, -1, axis=0)
    return float((polygon[:, 0] * following[:, 1] - following[:, 0] * polygon[:, 1]).sum() / 2)


def burst(**values: Any) -> Layer:
    return apply_effects(Layer(photograph(), moved(0, 0)), (Shards(**values),), 0)


class PiecesTest(TestCase):
    @given(breakings)
    def test_pieces_are_together_as_large_as_the_picture(self, breaking: Breaking) -> None:
        pieces = pieces_of(breaking)
        self.assertAlmostEqual(breaking.aspect, sum(map(area, pieces)), places=5)
        self.assertTrue(all(area(piece) > -1e-12 for piece in pieces))

    def test_evened_they_are_alike_and_near_the_point_smaller(self) -> None:
        def sizes(**more: Any) -> np.ndarray:
            values = {"unlike": 1.0, "near": 0.0} | more
            breaking = Breaking(0.6, 100, 3, centre=(0.0, 0.0), **values)
            pieces = pieces_of(breaking)
            far = np.hypot(*middles_of(pieces).T)
            return np.array([area(piece) for piece in pieces])[np.argsort(far)]

        self.assertLess(sizes(unlike=0.0).std(), 0.6 * sizes().std())
        drawn = sizes(near=1.0)
        self.assertLess(drawn[:30].mean(), 0.3 * drawn[-30:].mean())


class FlightTest(TestCase):
    @given(breakings, st.floats(0, 1))
    def test_pieces_stay_rigid(self, breaking: Breaking, amount: float) -> None:
        flight = Flight(amount, 1.0, 0.3, 0.3, 0.3, 700, 0.5)
        turns = flown(pieces_of(breaking), breaking, flight).turns
        np.testing.assert_allclose(
            turns @ turns.transpose(0, 2, 1), np.broadcast_to(np.eye(3), turns.shape), atol=1e-9
        )
        self.assertTrue((np.linalg.det(turns) > 0.99).all())

    def test_those_far_away_begin_later_and_all_arrive(self) -> None:
        breaking = Breaking(0.6, 80, 1, 0.5, 0.0, (0.0, 0.0))
        pieces = pieces_of(breaking)
        far = np.hypot(*middles_of(pieces).T)
        at = {one: Flight(one, 1, 0, 0, 0, 0, 0.8) for one in (0.3, 1.0)}
        early = flown(pieces, breaking, at[0.3]).gone
        self.assertTrue((np.diff(early[np.argsort(far)]) <= 0).all())
        self.assertEqual((0, True), (early.min(), bool(early.max() > 0.5)))
        self.assertTrue((flown(pieces, breaking, at[1.0]).gone == 1).all())

    def test_they_fall_the_way_that_is_told_by_a_clock(self) -> None:
        breaking = Breaking(0.6, 20, 1, 0.5, 0.0, (0.0, 0.0))
        pieces = pieces_of(breaking)
        for direction, way in ((0, (0, 1)), (90, (-1, 0)), (-90, (1, 0)), (180, (0, -1))):
            flight = Flight(0.5, 0, 0, 0.8, 0, 0, 0.0, direction)
            poses = flown(pieces, breaking, flight)
            went = (poses.now[:, :2] - poses.rest) / (0.8 * 0.5**2)
            np.testing.assert_allclose(went, np.broadcast_to(way, went.shape), atol=1e-12)

    def test_what_is_seen_on_the_screen_comes_from_the_piece(self) -> None:
        breaking = Breaking(1.3, 12, 4, 0.5, 0.3, (0.1, 0.0))
        pieces, pixels = pieces_of(breaking), photograph()
        view = View(200, (130, 100), eye=1.5, thickness=0.05, light=0.5)
        poses = flown(pieces, breaking, FLIGHT)
        faces = faces_of(pieces, poses, pixels, (130, 100), view)
        order = np.argsort(poses.now[:, 2], kind="stable")
        shown = [face for face, whence in enumerate(faces.whence) if whence[2, 2]]
        self.assertEqual(len(pieces), len(shown))
        self.assertGreater(len(faces.whence), len(pieces))
        for face, index in zip(shown, order, strict=True):
            corners = faces.corners[faces.starts[face] : faces.starts[face + 1]]
            found = np.column_stack([corners, np.ones(len(corners))]) @ faces.whence[face].T
            wanted = pieces[index] * 200 + (130, 100)
            np.testing.assert_allclose(found[:, :2] / found[:, 2:], wanted, atol=1e-4)


class DrawnTest(TestCase):
    def test_whole_it_is_the_picture_bit_for_bit(self) -> None:
        layer = Layer(photograph(), moved(0, 0))
        self.assertIs(layer, apply_effects(layer, (Shards(amount=0.0),), 0))

    def test_before_a_piece_moves_no_seam_is_seen(self) -> None:
        still = burst(amount=0.2, distance=0.0, fall=0.0, depth=0.0, spin=0.0, thickness=0.0)
        border = (still.pixels.shape[0] - 200) // 2
        inner = still.pixels[border : border + 200, border : border + 260]
        self.assertLessEqual(int(np.abs(inner.astype(int) - photograph()).max()), 1)

    def test_pieces_cover_as_much_as_they_are_large(self) -> None:
        flat = {"fall": 0.0, "depth": 0.0, "spin": 0.0, "thickness": 0.0, "scatter": 0.0}
        apart = burst(amount=1.0, count=12, distance=400.0, **flat)
        seen = apart.pixels[..., 3].sum() / 255
        self.assertAlmostEqual(1, seen / (200 * 260), delta=0.06)

    def test_turned_away_from_the_light_they_are_darker(self) -> None:
        lit, even = (burst(amount=0.5, light=light).pixels for light in (1.0, 0.0))
        both = (lit[..., 3] == 255) & (even[..., 3] == 255)
        ratio = (lit[both][:, 0] + 1.0) / (even[both][:, 0] + 1.0)
        self.assertGreater(ratio.std(), 0.1)

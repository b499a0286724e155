"""Effects that take pixels from elsewhere, against closed forms."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

import cv2
import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from numpy.typing import NDArray

from kitecore.document.effects import effect_kinds
from kitecore.document.effects.ripple import Ripple
from kitecore.document.properties import Key, NumberKeys
from kitecore.picture.effects import apply_effects
from kitecore.picture.effects.lens import factors_of
from kitecore.picture.effects.ripple import shape_of
from kitecore.picture.fields import noise_field, octaves
from kitecore.picture.layer import Layer, moved
from kitecore.ticks import TICKS_PER_SECOND as SECOND

SIDE = 256


def ramp() -> NDArray[np.uint8]:
    """Red tells the column, green the row."""
    columns, rows = np.meshgrid(np.arange(SIDE, dtype=np.uint8), np.arange(SIDE, dtype=np.uint8))
    return np.dstack([columns, rows, np.zeros_like(rows), np.full_like(rows, 255)])


def done(kind: str, tick: int = 0, **values: Any) -> NDArray[np.float64]:
    layer = Layer(ramp(), moved(0, 0), endless=True)
    return apply_effects(layer, (effect_kinds[kind](**values),), tick).pixels.astype(float)


class RippleTest(TestCase):
    values: dict[str, Any] = {"height": 6.0, "width": 40.0, "speed": 400.0, "reach": 4000.0}

    def test_a_row_through_its_middle_is_moved_by_its_shape(self) -> None:
        row = done("ripple", SECOND, **self.values)[128, 20:236, 0]
        columns = np.arange(20, 236)
        away = columns - 127.5
        shift = 6 * shape_of(Ripple(**self.values), np.abs(away), SECOND) * np.sign(away)
        self.assertLess(np.abs(row - (columns - shift)).max(), 1.2)
        self.assertGreater(np.abs(row - columns).max(), 4)

    def test_where_no_ring_has_come_yet_nothing_moves(self) -> None:
        picture = done("ripple", SECOND // 8, **self.values)
        y, x = np.mgrid[:SIDE, :SIDE] - 127.5
        beyond = np.hypot(x, y) > 52
        np.testing.assert_array_equal(ramp()[beyond], picture[beyond])
        self.assertGreater(np.abs(picture - ramp())[~beyond].max(), 3)

    def test_one_ring_leaves_what_it_has_passed(self) -> None:
        far = np.arange(400, dtype=float)
        shape = shape_of(Ripple(**self.values, rings=1), far, SECOND // 2)
        self.assertTrue(((far[shape != 0] > 155) & (far[shape != 0] < 201)).all())

    def test_rings_that_come_to_a_stop_stay_where_they_are(self) -> None:
        stopped = NumberKeys(keys=(Key(at=0, value=400.0), Key(at=SECOND // 2, value=0.0)))
        there = [
            done("ripple", tick, **self.values | {"speed": stopped})
            for tick in (SECOND, 3 * SECOND)
        ]
        np.testing.assert_array_equal(*there)
        # On their way they went half as far as at full speed.
        half = done("ripple", SECOND // 4, **self.values)
        self.assertLessEqual(float(np.abs(there[0] - half).max()), 1)

    def test_rings_lose_half_in_the_time_told(self) -> None:
        high = self.values | {"height": 40.0, "width": 120.0, "speed": 600.0, "fading": 1.0}

        def moved_by(tick: int) -> float:
            row = done("ripple", tick, **high)[128, 128:200, 0]
            return float(np.abs(row - ramp()[128, 128:200, 0]).max())

        # Both moments are whole rings apart: 600 px in a second are 5 of them.
        self.assertAlmostEqual(0.5, moved_by(2 * SECOND) / moved_by(SECOND), delta=0.06)


class LensTest(TestCase):
    @given(st.floats(-1, 1), st.floats(0.3, 3), st.floats(0, 0.05))
    def test_no_two_places_come_from_one(self, bend: float, size: float, colours: float) -> None:
        far = np.linspace(0, 1.2, 400, dtype=np.float32)
        whence = far * factors_of(bend, size, colours, far)
        self.assertTrue((np.diff(whence) > 0).all())

    def test_half_the_size_shows_twice_as_much(self) -> None:
        picture = done("lens", bend=0.0, size=50.0)
        self.assertLess(abs(picture[128, 128 + 40, 0] - (127.5 + 2 * 40.5)), 1)

    def test_a_row_is_bent_by_its_square(self) -> None:
        columns = np.arange(30, 226)
        away = columns - 127.5
        corner = np.hypot(128, 128)
        wanted = 127.5 + away * (1 + 0.3 * (away / corner) ** 2)
        row = done("lens", bend=50.0)[128, 30:226, 0]
        self.assertLess(np.abs(row - wanted).max(), 1.2)

    def test_the_rim_parts_red_from_blue_and_leaves_the_middle(self) -> None:
        grey = np.kron(np.indices((32, 32)).sum(0) % 2, np.ones((8, 8))).astype(np.uint8) * 255
        layer = Layer(np.dstack([grey] * 3 + [np.full_like(grey, 255)]), moved(0, 0), endless=True)
        lens = effect_kinds["lens"](bend=0.0, rim=100.0)
        picture = apply_effects(layer, (lens,), 0).pixels.astype(int)
        apart = np.abs(picture[..., 0] - picture[..., 2])
        self.assertLess(apart[124:132, 124:132].mean(), 3)
        self.assertGreater(apart[:24].mean(), 60)


class SplitTest(TestCase):
    def test_red_and_blue_go_apart_by_the_distance(self) -> None:
        blue = ramp()[..., [2, 1, 0, 3]]
        layer = Layer(ramp() + (blue * [0, 0, 1, 0]).astype(np.uint8), moved(0, 0), endless=True)
        split = effect_kinds["colour_split"](distance=9.0, angle=0.0)
        row = apply_effects(layer, (split,), 0).pixels[100, 20:230].astype(int)
        columns = np.arange(20, 230)
        np.testing.assert_array_equal(row[:, 0], columns - 9)
        np.testing.assert_array_equal(row[:, 2], columns + 9)

    def test_outwards_it_does_not_move_its_middle(self) -> None:
        picture = done("colour_split", distance=20.0, way="outwards")
        self.assertLess(abs(picture[128, 128, 0] - 128), 1)
        self.assertGreater(abs(picture[128, 240, 0] - 240), 8)


class TilesTest(TestCase):
    def test_each_tile_is_the_picture_and_every_second_turned_over(self) -> None:
        small = cv2.resize(ramp(), (64, 64), interpolation=cv2.INTER_AREA)
        picture = done("tiles", repeats=4.0, mirrored=True, offset=(32.0, 32.0))
        for row in range(4):
            for column in range(4):
                tile = picture[row * 64 : row * 64 + 64, column * 64 : column * 64 + 64]
                straight = tile[:: 1 - 2 * (row % 2), :: 1 - 2 * (column % 2)]
                turned = straight[::-1, ::-1]
                off = min(np.abs(one - small).max() for one in (straight, turned))
                self.assertLessEqual(off, 1)

    def test_mirrored_there_are_no_seams(self) -> None:
        picture = done("tiles", repeats=3.0, mirrored=True)[..., :2]
        self.assertLess(np.abs(np.diff(picture, axis=1)).max(), 5)
        self.assertLess(np.abs(np.diff(picture, axis=0)).max(), 5)
        self.assertGreater(np.abs(np.diff(done("tiles", mirrored=False), axis=1)).max(), 150)


class HazeTest(TestCase):
    def test_it_moves_nothing_farther_than_its_strength(self) -> None:
        picture = done("haze", SECOND // 3, strength=7.0, size=40.0)
        inner = np.s_[12:-12, 12:-12, :2]
        moved_by = (picture - ramp())[inner]
        self.assertLessEqual(np.abs(moved_by).max(), 8)
        self.assertGreater(np.abs(moved_by).max(), 3)
        self.assertLess(np.abs(moved_by.mean()), 0.6)

    def test_noise_goes_on_by_whole_cells(self) -> None:
        still, later = (
            noise_field((120, 200), (20.0, 20.0), (0.0, shift), 3) for shift in (0.0, 2.0)
        )
        np.testing.assert_allclose(still[44:-4], later[4:-44], atol=0.01)

    def test_octaves_are_spread_evenly(self) -> None:
        field = np.array([octaves((300, 300), (8.0, 8.0), seed) for seed in range(6)])
        for share in (0.1, 0.3, 0.5, 0.7, 0.9):
            self.assertAlmostEqual(share, float((field < share).mean()), delta=0.03)


class ShakeTest(TestCase):
    values: dict[str, Any] = {"strength": 30.0, "turn": 0.0, "rate": 5.0, "seed": 5}

    def shaken(self, tick: int, **more: Any) -> NDArray[np.float64]:
        """Stripes, whose edges are sharp."""
        stripes = np.zeros((SIDE, SIDE, 4), np.uint8)
        stripes[:, (np.arange(SIDE) // 16) % 2 == 0] = 255
        stripes[..., 3] = 255
        effect = effect_kinds["shake"](**self.values, **more)
        layer = Layer(stripes, moved(0, 0), endless=True)
        return apply_effects(layer, (effect,), tick).pixels.astype(float)

    def test_while_it_is_exposed_it_is_the_mean_of_where_it_was(self) -> None:
        for tick in (SECOND // 4, SECOND // 3, SECOND // 2):
            times = tick + np.linspace(-0.02, 0.02, 81) * SECOND
            mean = np.mean([self.shaken(round(at)) for at in times], axis=0)
            exposed = self.shaken(tick, shutter=0.04)
            self.assertLess(np.abs(exposed - mean).mean(), 3)
            self.assertGreater(np.abs(self.shaken(tick) - mean).mean(), 15)

    def test_what_hardly_moves_stays_sharp(self) -> None:
        tick = SECOND // 3
        np.testing.assert_array_equal(self.shaken(tick), self.shaken(tick, shutter=1e-6))

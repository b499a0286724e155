"""Kernels against plain arithmetic in floating point, and against OpenCV's warp."""

from __future__ import annotations

from unittest import TestCase

import cv2
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from kitecore.document.effects.soft_blur import SoftBlur
from kitecore.media.coding import to_planes
from kitecore.picture.composite import lay
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, leaned, moved, sized, solid, turned

Array = np.ndarray


def random_premultiplied(seed: int, height: int = 40, width: int = 60) -> Array:
    chance = np.random.default_rng(seed)
    alpha = chance.choice([0, 255, 128, 3, 200], (height, width, 1))
    colour = chance.integers(0, 256, (height, width, 3))
    return np.concatenate([colour * alpha // 255, alpha], axis=2).astype(np.uint8)


class LayTest(TestCase):
    def test_whole_pixels_are_copied_exactly_also_over_the_edge(self) -> None:
        picture = random_premultiplied(5)
        picture[..., 3] = 255
        for x, y in ((0, 0), (7, 3), (-20, -11), (50, 35), (500, 0)):
            canvas = solid(60, 40, (1, 2, 3))
            wanted = canvas.copy()
            lay(canvas, Layer(picture, moved(x, y)))
            for row in range(40):
                for column in range(60):
                    if 0 <= row - y < 40 and 0 <= column - x < 60:
                        wanted[row, column] = picture[row - y, column - x]
            np.testing.assert_array_equal(wanted, canvas)

    @settings(max_examples=25, deadline=None)
    @given(st.floats(-180, 180), st.floats(-40, 40), st.floats(0.5, 2), st.floats(-20, 20))
    def test_turned_leaned_sized_as_the_warp_of_opencv(
        self, turn: float, lean: float, size: float, x: float
    ) -> None:
        picture = cv2.GaussianBlur(random_premultiplied(6), (0, 0), 2)
        matrix = (
            moved(30 + x, 20) @ turned(turn) @ leaned(lean) @ sized(size, size) @ moved(-30, -20)
        )
        canvas = np.zeros((40, 60, 4), np.uint8)
        lay(canvas, Layer(picture, matrix))
        # OpenCV counts from the middle of pixels, we from their corners.
        centred = moved(-0.5, -0.5) @ matrix @ moved(0.5, 0.5)
        wanted = cv2.warpAffine(picture, centred[:2], (60, 40), flags=cv2.INTER_LINEAR)
        # Its edge is as wide as a pixel of the picture, ours as one of the canvas: within that they agree.
        whole = np.full(picture.shape[:2], 255, np.uint8)
        there = cv2.warpAffine(whole, centred[:2], (60, 40), flags=cv2.INTER_LINEAR)
        inside = cv2.erode(there, np.ones((5, 5), np.uint8)) == 255
        self.assertTrue(inside.any())
        off = np.abs(canvas.astype(int) - wanted)
        self.assertLess(off.mean(), 2.0)
        # Its positions are rounded to 1/32 of a pixel: 8 levels of a slope from black to white.
        self.assertLess(off[inside].mean(), 1.0)
        self.assertLessEqual(off[inside].max(), 8)

    def test_an_opaque_layer_has_a_soft_edge_and_no_dark_rim(self) -> None:
        canvas = solid(40, 40, (255, 255, 255))
        white = solid(20, 20, (255, 255, 255))
        lay(canvas, Layer(white, moved(20, 20) @ turned(33) @ moved(-10, -10)))
        self.assertGreaterEqual(int(canvas.min()), 254)
        canvas = solid(40, 40, (0, 0, 0))
        lay(canvas, Layer(white, moved(10.5, 10)))
        self.assertEqual([0, 128, 255], [int(canvas[20, x, 0]) for x in (9, 10, 11)])

    def test_sampled_between_pixels_it_gets_no_darker(self) -> None:
        noise = np.random.default_rng(7).integers(0, 256, (90, 90, 4), np.uint8)
        noise[..., 3] = 255
        canvas = solid(90, 90, (0, 0, 0))
        lay(canvas, Layer(noise, moved(0.5, 0.5)))
        wanted = cv2.blur(noise.astype(np.float64), (2, 2), anchor=(1, 1))
        off = (canvas - wanted)[1:, 1:, :3]
        self.assertLess(np.abs(off).max(), 0.51)
        self.assertLess(abs(off.mean()), 0.15)

    def test_opacity_nothing_and_flat_layers_draw_nothing(self) -> None:
        canvas = solid(10, 10, (9, 9, 9))
        white = solid(10, 10, (255, 255, 255))
        lay(canvas, Layer(white, moved(0, 0)), opacity=0)
        lay(canvas, Layer(white, sized(0, 1)))
        self.assertEqual(9, int(canvas[..., :3].max()))


class PlanesTest(TestCase):
    def test_planes_after_bt709(self) -> None:
        chance = np.random.default_rng(7)
        picture = np.ascontiguousarray(chance.integers(0, 256, (16, 24, 4), np.uint8))
        luma, cb, cr = (np.zeros(shape, np.uint8) for shape in ((16, 24), (8, 12), (8, 12)))
        to_planes(picture, luma, cb, cr)
        r, g, b = (picture[..., k] / 255 for k in range(3))
        y = 0.2126 * r + 0.7152 * g + 0.0722 * b
        self.assertLess(np.abs(luma - (16 + 219 * y)).max(), 0.51)
        for plane, colour, span in ((cb, b, 1.8556), (cr, r, 1.5748)):
            chroma = 128 + 224 * (colour - y) / span
            mean = chroma.reshape(8, 2, 12, 2).mean(axis=(1, 3))
            self.assertLess(np.abs(plane - mean).max(), 0.52)


class EffectTest(TestCase):
    def test_a_blur_keeps_its_sum_and_follows_density(self) -> None:
        dot = np.zeros((41, 41, 4), np.uint8)
        dot[10:31, 10:31] = 255
        blurred = apply_effects(Layer(dot, moved(0, 0), 0.5), (SoftBlur(sigma=6.0),), 0)
        wanted = cv2.GaussianBlur(np.pad(dot, ((9, 9), (9, 9), (0, 0))), (0, 0), 3)
        np.testing.assert_array_equal(wanted, blurred.pixels)
        self.assertEqual((-9, -9), tuple(blurred.matrix[:2, 2]))

    def test_mix_and_off(self) -> None:
        layer = Layer(solid(20, 20, (200, 0, 0)), moved(0, 0))
        self.assertIs(layer, apply_effects(layer, (SoftBlur(on=False),), 0))
        half = apply_effects(layer, (SoftBlur(sigma=2.0, mix=0.5),), 0)
        whole = apply_effects(layer, (SoftBlur(sigma=2.0),), 0)
        middle = half.pixels[6, 16].astype(int), whole.pixels[6, 16].astype(int)
        self.assertLessEqual(abs(int(middle[0][0]) - (200 + int(middle[1][0])) // 2), 1)

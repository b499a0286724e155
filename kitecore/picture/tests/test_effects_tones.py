"""Effects of colour, line and print, against other libraries and closed forms."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy import ndimage
from skimage import data, filters

from kitecore.document.effects import effect_kinds
from kitecore.picture.effects import apply_effects
from kitecore.picture.effects.outline import distance_from
from kitecore.picture.layer import Layer, moved, solid

CLEAR = np.zeros((160, 160, 4), np.uint8)


def photograph() -> NDArray[np.uint8]:
    rgb = data.coffee()[100:300, 150:410]
    return np.dstack([rgb, np.full(rgb.shape[:2], 255, np.uint8)])


def disc(radius: float = 40.0) -> NDArray[np.uint8]:
    """White, its edge as soft as a pixel."""
    y, x = np.mgrid[:160, :160] - 79.5
    share = np.clip(radius - np.hypot(x, y) + 0.5, 0, 1)
    return np.rint(share[..., None] * np.full(4, 255.0)).astype(np.uint8)


def done(pixels: NDArray[np.uint8], kind: str, **values: Any) -> NDArray[np.uint8]:
    """What an effect makes of a picture, cut to the size that it had."""
    after = apply_effects(Layer(pixels, moved(0, 0)), (effect_kinds[kind](**values),), 0).pixels
    border = (after.shape[0] - pixels.shape[0]) // 2
    return after[border : border + pixels.shape[0], border : border + pixels.shape[1]]


class TonesTest(TestCase):
    def test_sharpening_is_an_unsharp_mask_of_luma(self) -> None:
        pixels = photograph()
        luma = pixels[..., :3] @ np.array([0.2126, 0.7152, 0.0722])
        masked = filters.unsharp_mask(luma, radius=2, amount=0.8, preserve_range=True)
        wanted = np.clip(pixels[..., :3] + (masked - luma)[..., None], 0, 255)
        found = done(pixels, "sharpen", radius=2.0, amount=80.0, threshold=0.0)[..., :3]
        off = np.abs(found - wanted)
        self.assertLess(off[8:-8, 8:-8].max(), 2.5)
        self.assertLess(off.mean(), 0.6)

    def test_colours_of_one_luma_get_no_rim(self) -> None:
        pixels = solid(80, 60, (140, 62, 106))
        pixels[:, 40:, :3] = 48, 88, 104
        after = done(pixels, "sharpen", radius=4.0, amount=400.0, threshold=1.0)
        np.testing.assert_array_equal(pixels, after)

    def test_what_differs_less_than_the_step_is_left(self) -> None:
        pixels = solid(80, 60, (100, 100, 100))
        pixels[:, 40:, :3] = 103
        np.testing.assert_array_equal(pixels, done(pixels, "sharpen", amount=400.0, threshold=2.0))
        self.assertGreater(
            done(pixels, "sharpen", amount=400.0, threshold=0.0).max(axis=2).min(), 0
        )

    def test_a_soft_edge_of_alpha_is_no_edge_of_colour(self) -> None:
        after = done(disc(), "sharpen", amount=200.0, threshold=0.0)
        np.testing.assert_array_equal(disc()[..., 3], after[..., 3])
        self.assertLessEqual(int(np.abs(after.astype(int) - disc()).max()), 2)

    def test_threshold_parts_by_luma(self) -> None:
        pixels = photograph()
        luma = pixels[..., :3] @ np.array([0.2126, 0.7152, 0.0722])
        after = done(pixels, "threshold", level=40.0, soft=0.0)
        sure = np.abs(luma - 102) > 1
        np.testing.assert_array_equal((luma > 102)[sure], (after[..., 0] == 255)[sure])
        self.assertEqual({0, 255}, set(np.unique(after[..., 1])))

    def test_posterised_there_are_so_many_levels(self) -> None:
        after = done(photograph(), "posterise", levels=4.0)[..., 0]
        self.assertEqual([0, 85, 170, 255], np.unique(after).tolist())
        wanted = np.minimum(photograph()[..., 0].astype(int) * 4 // 256, 3) * 85
        np.testing.assert_array_equal(wanted, after)

    def test_half_clear_colours_are_taken_as_they_are_behind_it(self) -> None:
        half = (solid(4, 4, (200, 100, 50)).astype(int) * 128 // 255).astype(np.uint8)
        for kind in ("posterise", "threshold"):
            one = done(solid(4, 4, (200, 100, 50)), kind)[0, 0].astype(float)
            other = done(half, kind)[0, 0].astype(float)
            self.assertLess(np.abs(one * other[3] / 255 - other).max(), 2)


class LinesTest(TestCase):
    def test_distances_are_those_of_the_exact_transform(self) -> None:
        square = np.zeros((80, 80), np.uint8)
        square[25:55, 30:60] = 255
        outside = ndimage.distance_transform_edt(square == 0) - 0.5
        inside = ndimage.distance_transform_edt(square) - 0.5
        wanted = np.where(square > 0, -inside, outside)
        far = distance_from(square)
        near = np.abs(wanted) < 20
        self.assertLess(np.abs(far - wanted)[near].max(), 0.5)

    def test_an_edge_between_pixels_lies_where_the_alpha_says(self) -> None:
        for radius in (30.0, 30.3, 30.7):
            far = distance_from(disc(radius)[..., 3])
            y, x = np.mgrid[:160, :160] - 79.5
            self.assertLess(np.abs(far - (np.hypot(x, y) - radius)).max(), 1.4)

    def test_an_outline_has_the_area_of_its_ring(self) -> None:
        for place, (low, high) in {
            "outside": (40, 52),
            "middle": (34, 46),
            "inside": (28, 40),
        }.items():
            alone = done(disc(), "outline", width=12.0, place=place, alone=True)
            area = alone[..., 3].sum() / 255
            self.assertAlmostEqual(1, area / (np.pi * (high**2 - low**2)), delta=0.03)

    def test_outside_it_lies_behind_the_picture(self) -> None:
        after = done(disc(), "outline", colour="#ff0000")
        solid_part = disc()[..., 3] == 255
        np.testing.assert_array_equal(disc()[solid_part], after[solid_part])
        self.assertEqual([255, 0, 0, 255], after[80, 80 + 45].tolist())

    def test_edges_shine_and_even_parts_do_not(self) -> None:
        pixels = solid(100, 60, (60, 60, 60))
        pixels[:, 50:, :3] = 160
        after = done(pixels, "edge_glow", width=4.0).astype(int)
        self.assertGreater(after[30, 50, 2] - 160, 60)
        np.testing.assert_array_equal(pixels[:, :30], after[:, :30])

    def test_rays_fall_away_from_their_point(self) -> None:
        pixels = solid(160, 160, (20, 20, 20))
        cv2.circle(pixels, (80, 60), 8, (255, 255, 255, 255), -1)
        after = done(pixels, "rays", centre=(0.0, -60.0), length=60.0).astype(int)
        self.assertGreater(after[90, 80, 0], 40)
        self.assertEqual(20, after[35, 80, 0])
        self.assertEqual(20, after[60, 130, 0])


class PrintTest(TestCase):
    def test_dots_are_together_as_dark_as_the_picture(self) -> None:
        for level in (30, 90, 128, 200, 240):
            grey = solid(300, 300, (level,) * 3)
            after = done(grey, "halftone", size=12.0, ink="#000000", ground="#ffffff")
            self.assertAlmostEqual(level, after[..., 0].mean(), delta=4)
            own = done(grey, "halftone", size=12.0, inks="own")
            self.assertLess(np.abs(own[..., :3].mean(axis=(0, 1)) - level).max(), 4)

    def test_black_and_white_have_no_dots(self) -> None:
        for level in (0, 255):
            grey = solid(60, 60, (level,) * 3)
            after = done(grey, "halftone", ink="#000000", ground="#ffffff")
            np.testing.assert_array_equal(grey, after)

    def test_so_much_is_gone_as_told_and_never_comes_back(self) -> None:
        white, before = solid(300, 300, (255, 255, 255)), np.full((300, 300), 255)
        for amount in (0.0, 0.2, 0.5, 0.8, 1.0):
            left = done(white, "dissolve", amount=amount, size=8.0, softness=0.0)[..., 3]
            self.assertAlmostEqual(1 - amount, left.mean() / 255, delta=0.05)
            self.assertTrue((left <= before).all())
            before = left

    def test_paper_is_as_light_as_the_picture(self) -> None:
        after = done(solid(300, 300, (120, 120, 120)), "paper", strength=1.0)[..., 0]
        self.assertAlmostEqual(120, after.mean(), delta=5)
        self.assertGreater(after.std(), 4)

"""Masks: coverage by supersampling, distances by brute force."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.document.masks import BrushMask, BrushStroke, EdgeMask, EllipseMask, RectangleMask
from kitecore.picture.masks import coverage, distances
from kitecore.picture.mixing import lay_over_deep, mixed_by

W, H, ASPECT = 90, 160, 90 / 160


def inside(mask: object, x: np.ndarray, y: np.ndarray) -> np.ndarray:
    """Whether points (heights, from the middle) lie inside a shape, straight from its formula."""
    (cx, cy), turn = mask.centre, np.radians(mask.turn)
    dx, dy = x - cx, y - cy
    across = dx * np.cos(turn) + dy * np.sin(turn)
    down = dy * np.cos(turn) - dx * np.sin(turn)
    if mask.kind == "edge":
        return down < 0
    a, b = mask.size
    if mask.kind == "ellipse":
        return (across / a) ** 2 + (down / b) ** 2 < 1
    qx, qy = np.abs(across) - (a - mask.radius), np.abs(down) - (b - mask.radius)
    corner = np.hypot(np.maximum(qx, 0), np.maximum(qy, 0)) < mask.radius
    return np.where((qx > 0) & (qy > 0), corner, (qx < mask.radius) & (qy < mask.radius))


class CoverageTest(TestCase):
    def test_hard_masks_cover_what_16_times_supersampling_says(self) -> None:
        fine = 16
        x = ((np.arange(W * fine) + 0.5) / (W * fine) - 0.5) * ASPECT
        y = (np.arange(H * fine) + 0.5) / (H * fine) - 0.5
        for mask in (
            EllipseMask(centre=(0.05, -0.1), size=(0.2, 0.12), turn=30),
            RectangleMask(centre=(-0.02, 0.05), size=(0.18, 0.1), radius=0.04, turn=-20),
            EdgeMask(centre=(0, 0.03), turn=17),
        ):
            points = inside(mask, x[None, :], y[:, None])
            truth = points.reshape(H, fine, W, fine).mean(axis=(1, 3)) * 255
            found = coverage((mask,), W, H, ASPECT).astype(float)
            self.assertLess(np.abs(found - truth).mean(), 0.5, mask.kind)
            self.assertLess(np.abs(found - truth).max(), 40, mask.kind)

    @given(st.floats(0.05, 0.5), st.floats(0.05, 0.5), st.floats(-0.8, 0.8), st.floats(-0.8, 0.8))
    def test_distance_to_an_ellipse(self, a: float, b: float, x: float, y: float) -> None:
        angles = np.linspace(0, 2 * np.pi, 20000)
        truth = np.hypot(a * np.cos(angles) - x, b * np.sin(angles) - y).min()
        mask = EllipseMask(size=(a, b))
        spot = np.array([[x]], np.float32), np.array([[y]], np.float32)
        found = float(distances["ellipse"](mask, *spot)[0, 0])
        self.assertAlmostEqual(truth, abs(found), delta=0.004)
        if truth > 0.001:
            self.assertEqual((x / a) ** 2 + (y / b) ** 2 < 1, found < 0)

    def test_distance_to_a_rectangle_is_exact_at_corners(self) -> None:
        mask = RectangleMask(size=(0.2, 0.1))
        spot = np.array([[0.23]]), np.array([[0.14]])
        self.assertAlmostEqual(0.05, float(distances["rectangle"](mask, *spot)[0, 0]))

    def test_softness_goes_inwards_and_outwards(self) -> None:
        for inwards, outwards, wanted in ((0.1, 0, 0), (0, 0.1, 255), (0.1, 0.1, 127.5)):
            mask = EdgeMask(inwards=inwards, outwards=outwards)
            rows = coverage((mask,), 4, 400, 0.01)[:, 0].astype(float)
            self.assertAlmostEqual(wanted, rows[199:201].mean(), delta=4)
            self.assertTrue((np.diff(rows) <= 0).all())
            soft = ((rows > 0) & (rows < 255)).sum() / 400
            self.assertAlmostEqual(inwards + outwards, soft, delta=0.02)

    def test_masks_are_joined_in_order(self) -> None:
        left, right = ({"centre": (s * 0.08, 0.0), "size": (0.1, 0.1)} for s in (-1, 1))
        spots = {"left": (58, 80), "both": (45, 80)}
        for join, wanted in (("add", (255, 255)), ("subtract", (0, 0)), ("intersect", (0, 255))):
            masks = (EllipseMask(**left), EllipseMask(**right, join=join))
            found = coverage(masks, W, H, ASPECT)
            self.assertEqual(wanted, tuple(int(found[y, x]) for x, y in spots.values()), join)
        self.assertEqual(255, coverage((EllipseMask(on=False),), 4, 4, 1.0).min())
        turned = coverage((EllipseMask(**left, invert=True),), W, H, ASPECT)
        self.assertEqual((255, 0), (turned[5, 5], turned[80, 32]))

    def test_grow(self) -> None:
        small, grown = (
            coverage((RectangleMask(size=(0.1, 0.1), grow=by),), W, H, ASPECT).mean() / 255
            for by in (0.0, 0.05)
        )
        self.assertAlmostEqual(0.2 * 0.2 / ASPECT, small, delta=0.003)
        self.assertGreater(grown, small * 2)


class MixingTest(TestCase):
    def test_mixing_by_a_mask_is_exact(self) -> None:
        rng = np.random.default_rng(4)
        below, above = rng.integers(0, 256, (2, 20, 30, 4), np.uint8)
        mask = rng.integers(0, 256, (20, 30), np.uint8)
        share = mask[..., None].astype(float)
        wanted = (below * (255 - share) + above * share) / 255
        self.assertLess(np.abs(mixed_by(below, above, mask) - wanted).max(), 0.51)

    def test_laying_over_deep_keeps_what_is_not_covered(self) -> None:
        deep = np.array([[[1000, 2001, 65535], [1000, 2001, 65535]]], np.uint16)
        over = np.array([[[0, 0, 0, 0], [255, 0, 128, 255]]], np.uint8)
        lay_over_deep(deep, over)
        self.assertEqual([[1000, 2001, 65535], [65535, 0, 128 * 257]], deep[0].tolist())


class PaintedTest(TestCase):
    """What was painted against a round mask of the size that it ought to have."""

    def shown(self, height: int = 320, **more: float) -> np.ndarray:
        dot = BrushStroke(points=((0, 0),), width=0.3, softness=0)
        mask = BrushMask(strokes=(dot,), **more)
        return coverage((mask,), round(height * ASPECT), height, ASPECT).astype(float)

    def circle(self, height: int = 320, **more: float) -> np.ndarray:
        mask = EllipseMask(size=(0.15, 0.15), **more)
        return coverage((mask,), round(height * ASPECT), height, ASPECT).astype(float)

    def test_it_grows_and_shrinks_as_a_form_does(self) -> None:
        for height in (320, 1280):
            for grow in (0.002, 0.013, 0.05, -0.05, -0.1):
                found, wanted = self.shown(height, grow=grow), self.circle(height, grow=grow)
                self.assertLess(np.abs(found - wanted).mean(), 1.2, (height, grow))
                self.assertAlmostEqual(1, found.sum() / wanted.sum(), delta=0.07)

    def test_it_softens_to_the_side_that_is_asked_for(self) -> None:
        for more in ({"outwards": 0.08}, {"inwards": 0.08}, {"inwards": 0.03, "outwards": 0.06}):
            found, wanted = self.shown(**more), self.circle(**more)
            self.assertLess(np.abs(found - wanted).mean(), 2.5, more)
            self.assertAlmostEqual(1, found.sum() / wanted.sum(), delta=0.05)

    def test_it_grows_without_steps(self) -> None:
        areas = [self.shown(grow=grow).sum() for grow in np.arange(0, 0.06, 0.002)]
        steps = np.diff(areas)
        self.assertGreater(steps.min(), 0)
        self.assertLess(steps.max(), 3 * np.median(steps))

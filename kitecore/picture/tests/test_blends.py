"""Blend modes against the formulas of W3C Compositing and Blending Level 1, in floating point."""

from __future__ import annotations

from collections.abc import Callable
from unittest import TestCase

import numpy as np

from kitecore.document import BLENDS
from kitecore.picture.blend import blends

Array = np.ndarray
WEIGHTS = np.array([0.3, 0.59, 0.11])


def some_picture(seed: int, height: int = 90, width: int = 130) -> Array:
    """Premultiplied, of every alpha; a third of it opaque, a tenth clear."""
    chance = np.random.default_rng(seed)
    alpha = chance.integers(0, 256, (height, width, 1))
    alpha[chance.random(alpha.shape) < 1 / 3] = 255
    alpha[chance.random(alpha.shape) < 1 / 10] = 0
    colour = chance.integers(0, 256, (height, width, 3))
    colour[chance.random(colour.shape) < 1 / 10] = 255
    return np.concatenate([(colour * alpha + 127) // 255, alpha], axis=2).astype(np.uint8)


def hard_light(b: Array, s: Array) -> Array:
    return np.where(s <= 0.5, b * 2 * s, b + (2 * s - 1) - b * (2 * s - 1))


def soft_light(b: Array, s: Array) -> Array:
    root = np.where(b <= 0.25, ((16 * b - 12) * b + 4) * b, np.sqrt(b))
    return np.where(s <= 0.5, b - (1 - 2 * s) * b * (1 - b), b + (2 * s - 1) * (root - b))


def dodge(b: Array, s: Array) -> Array:
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(b == 0, 0, np.where(s == 1, 1, np.minimum(1, b / (1 - s))))


def burn(b: Array, s: Array) -> Array:
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(b == 1, 1, np.where(s == 0, 0, 1 - np.minimum(1, (1 - b) / s)))


def lum(c: Array) -> Array:
    return (c @ WEIGHTS)[..., None]


def with_lum(c: Array, wanted: Array) -> Array:
    c = c + wanted - lum(c)
    middle, low, high = lum(c), c.min(-1, keepdims=True), c.max(-1, keepdims=True)
    with np.errstate(divide="ignore", invalid="ignore"):
        c = np.where(low < 0, middle + (c - middle) * middle / (middle - low), c)
        return np.where(high > 1, middle + (c - middle) * (1 - middle) / (high - middle), c)


def with_sat(c: Array, like: Array) -> Array:
    span = c.max(-1, keepdims=True) - c.min(-1, keepdims=True)
    wanted = like.max(-1, keepdims=True) - like.min(-1, keepdims=True)
    return (c - c.min(-1, keepdims=True)) * np.where(span > 0, wanted / np.maximum(span, 1e-9), 0)


MIXED: dict[str, Callable[[Array, Array], Array]] = {
    "normal": lambda b, s: s,
    "multiply": lambda b, s: b * s,
    "screen": lambda b, s: b + s - b * s,
    "overlay": lambda b, s: hard_light(s, b),
    "darken": np.minimum,
    "lighten": np.maximum,
    "hard_light": hard_light,
    "soft_light": soft_light,
    "difference": lambda b, s: np.abs(b - s),
    "exclusion": lambda b, s: b + s - 2 * b * s,
    "subtract": lambda b, s: np.maximum(b - s, 0),
    "colour_dodge": dodge,
    "colour_burn": burn,
    "hue": lambda b, s: with_lum(with_sat(s, b), lum(b)),
    "saturation": lambda b, s: with_lum(with_sat(b, s), lum(b)),
    "colour": lambda b, s: with_lum(s, lum(b)),
    "luminosity": lambda b, s: with_lum(b, lum(s)),
}
"""B(Cb, Cs) of the document, section 10, of straight colours; subtract is ours."""


def composited(name: str, below: Array, above: Array, opacity: float) -> Array:
    """0 to 1, premultiplied, with nothing rounded."""
    s, d = above / 255, below / 255
    cs, cb = (p[..., :3] / np.maximum(p[..., 3:], 1e-9) for p in (s, d))
    sa, da = s[..., 3:] * opacity, d[..., 3:]
    if name == "add":
        return np.minimum(s * opacity + d, 1)
    mixed = MIXED[name](np.clip(cb, 0, 1), np.clip(cs, 0, 1))
    colour = sa * (1 - da) * cs + sa * da * mixed + (1 - sa) * da * cb
    return np.concatenate([colour, sa + da - sa * da], axis=2)


class BlendTest(TestCase):
    def test_every_mode_over_every_alpha_within_a_level(self) -> None:
        above, below = some_picture(1), some_picture(2)
        for name in (*MIXED, "add"):
            with self.subTest(name):
                drawn = below.copy()
                blends[name](drawn, above, 255)
                off = np.abs(drawn - 255 * composited(name, below, above, 1))
                self.assertLess(off.max(), 0.51)

    def test_half_there_within_two_levels_and_a_little_more_where_a_mode_is_steep(self) -> None:
        above, below = some_picture(3), some_picture(4)
        for name in (*MIXED, "add"):
            for level in (128, 1):
                with self.subTest(f"{name} at {level}"):
                    drawn = below.copy()
                    blends[name](drawn, above, level)
                    off = np.abs(drawn - 255 * composited(name, below, above, level / 255))
                    self.assertLess(np.percentile(off, 99.9), 2.2)
                    self.assertLess(off.mean(), 0.4)

    def test_it_is_drawn_where_it_is_told_and_nowhere_else(self) -> None:
        above, canvas = some_picture(5, 20, 30), some_picture(6)
        for name in blends:
            with self.subTest(name):
                whole, part = canvas.copy(), canvas[7:27, 11:41].copy()
                blends[name](whole, above, 200, (11, 7))
                blends[name](part, above, 200)
                np.testing.assert_array_equal(whole[7:27, 11:41], part)
                whole[7:27, 11:41] = canvas[7:27, 11:41]
                np.testing.assert_array_equal(whole, canvas)

    def test_what_is_clear_changes_nothing(self) -> None:
        canvas, clear = some_picture(7), np.zeros((90, 130, 4), np.uint8)
        for name in blends:
            if name.endswith("inverted"):
                continue
            with self.subTest(name):
                drawn = canvas.copy()
                blends[name](drawn, clear, 255)
                off = np.abs(drawn.astype(int) - canvas)
                self.assertLessEqual(int(off.max()), 0)

    def test_holdouts_leave_the_share_that_the_layer_does_not_cover(self) -> None:
        above, below = some_picture(8), some_picture(9)
        alpha = above[..., 3] / 255
        luma = above[..., :3] @ [0.2126, 0.7152, 0.0722] / 255
        for name, hole in (
            ("holdout_alpha", alpha),
            ("holdout_alpha_inverted", 1 - alpha),
            ("holdout_luma", luma),
            ("holdout_luma_inverted", 1 - luma),
        ):
            with self.subTest(name):
                drawn = below.copy()
                blends[name](drawn, above, 255)
                self.assertLess(np.abs(drawn - below * (1 - hole[..., None])).max(), 1.01)

    def test_every_mode_of_the_document_is_held(self) -> None:
        held = {*MIXED, "add", *(name for name in blends if name.startswith("holdout"))}
        self.assertEqual(set(BLENDS), held)
        self.assertEqual(set(blends), held)

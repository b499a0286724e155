"""Blend modes against the browser's own canvas, with alpha on both sides."""

from __future__ import annotations

from typing import Final
from unittest import TestCase

import numpy as np

from browser_tests.browser import Browser
from kitecore.document import BLENDS, HOLDOUTS
from kitecore.media.premultiply import premultiply
from kitecore.picture.blend import blends

NAMES: Final = {
    "normal": "source-over",
    "colour_dodge": "color-dodge",
    "colour_burn": "color-burn",
    "colour": "color",
    "add": "lighter",
    "hard_light": "hard-light",
    "soft_light": "soft-light",
}
OURS: Final = {"subtract", *HOLDOUTS}
"""Modes that no canvas has; they have tests of their own."""
SIDE = 48
LEVELS = 2
"""Of 255: what the standard's document allows itself by rounding twice."""

_DRAW = """
const [below, above, mode, side] = arguments;
const layer = (bytes) => {
  const canvas = new OffscreenCanvas(side, side);
  const pixels = new ImageData(new Uint8ClampedArray(bytes), side, side);
  canvas.getContext('2d').putImageData(pixels, 0, 0);
  return canvas;
};
const canvas = new OffscreenCanvas(side, side);
const context = canvas.getContext('2d', { willReadFrequently: true });
context.drawImage(layer(below), 0, 0);
context.globalCompositeOperation = mode;
context.drawImage(layer(above), 0, 0);
return [...context.getImageData(0, 0, side, side).data];
"""


def picture(seed: int) -> np.ndarray:
    """Straight RGBA with every kind of alpha; nearly clear pixels lose their colour in a canvas."""
    chance = np.random.default_rng(seed)
    pixels = chance.integers(0, 256, (SIDE, SIDE, 4), np.uint8)
    pixels[: SIDE // 3, :, 3] = 255
    pixels[SIDE // 3 :, :, 3] = chance.integers(40, 256, (SIDE - SIDE // 3, SIDE))
    pixels[-4:, :, 3] = 0
    return pixels


class CanvasTest(TestCase):
    def test_every_mode_of_the_standard_is_the_canvas_s(self) -> None:
        browser = Browser("about:blank")
        self.addCleanup(browser.close)
        browser.driver.get("about:blank")
        below, above = picture(1), np.roll(picture(2), 9, axis=0)
        for name in BLENDS:
            if name in OURS:
                continue
            with self.subTest(name):
                mode = NAMES.get(name, name)
                given = (below.ravel().tolist(), above.ravel().tolist(), mode, SIDE)
                straight = np.array(browser.run(_DRAW, *given), np.uint8).reshape(SIDE, SIDE, 4)
                wanted = premultiply(straight).astype(int)
                found = premultiply(below.copy())
                blends[name](found, premultiply(above.copy()), 255)
                self.assertLessEqual(np.abs(found - wanted).max(), LEVELS)

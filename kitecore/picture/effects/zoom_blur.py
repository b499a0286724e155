from __future__ import annotations

import math
from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.zoom_blur import ZoomBlur
from kitecore.motion.plain import number, pair
from kitecore.picture.effects._base import effect_drawings
from kitecore.picture.layer import Layer

MOST_GROWN = 2
"""How many of its own sides a picture is smeared beyond itself, at most."""


@effect_drawings.register("zoom_blur")
def zoom_blur(layer: Layer, effect: ZoomBlur, tick: int) -> Layer:
    """Smeared by ``amount`` of its size."""
    amount = min(number(effect.amount), 200) / 100
    if amount < 0.002:
        return layer
    height, width = layer.pixels.shape[:2]
    x, y = pair(effect.centre)
    middle = np.array([width / 2 + x * layer.density, height / 2 + y * layer.density])
    farthest = float(np.hypot(*np.maximum(middle, (width, height) - middle)))
    reach = min(math.ceil(amount * farthest), MOST_GROWN * max(width, height))
    grown = layer.padded(0 if layer.endless else reach)
    middle += (grown.pixels.shape[1] - width) / 2
    steps = max(1, math.ceil(math.log2(max(2.0, amount * farthest))))
    pixels = smeared(grown.pixels.astype(np.float32), middle, amount, steps)
    return replace(grown, pixels=np.rint(pixels).astype(np.uint8))


def smeared(
    pixels: np.ndarray,
    middle: np.ndarray,
    amount: float,
    steps: int,
    border: int = cv2.BORDER_REPLICATE,
) -> np.ndarray:
    """The mean of copies from their own size to one larger by ``amount``, about ``middle``.

    Copies are doubled: each step takes the mean of what there is and of that enlarged, which after
    n steps is the mean of 2ⁿ sizes in even steps.
    """
    for step in range(steps):
        factor = (1 + amount) ** (0.5 ** (step + 1))
        larger = _enlarged(pixels, middle, factor, border)
        pixels = np.asarray(cv2.addWeighted(pixels, 0.5, larger, 0.5, 0, dst=larger))
    return pixels


def _enlarged(pixels: np.ndarray, middle: np.ndarray, factor: float, border: int) -> np.ndarray:
    shift = (middle - 0.5) * (1 - factor)
    matrix = np.array([[factor, 0, shift[0]], [0, factor, shift[1]]])
    size = (pixels.shape[1], pixels.shape[0])
    return np.asarray(cv2.warpAffine(pixels, matrix, size, borderMode=border))

from __future__ import annotations

import math
from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.glow import Glow
from kitecore.motion.plain import colour, number
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.effects._lighting import brightest
from kitecore.picture.layer import Layer, Rgba
from kitecore.picture.softening import softened


@effect_drawings.register("glow")
def glow(layer: Layer, effect: Glow, tick: int) -> Layer:
    """Light around bright parts is added to the picture; around the outline it lies behind it."""
    sigma = max(0.0, length_of(effect.width, layer, 600)) / 2
    grown = layer.padded(math.ceil(3 * sigma))
    strength, tint = bounded(effect.strength, 0.0, 20.0), rgb_of(colour(effect.colour))
    if effect.of == "outline":
        shape = softened(grown.pixels[..., 3], sigma).astype(np.float32) * strength
        light = _tinted(np.minimum(shape, 255), tint)
        rest = (255 - grown.pixels[..., 3:].astype(np.uint16)) * light // 255
        return replace(grown, pixels=(grown.pixels + rest).astype(np.uint8))
    bright = softened(_bright(grown.pixels, number(effect.threshold) / 100), sigma)
    gains = [strength * channel / 255 for channel in tint]
    light = cv2.multiply(bright, (*gains, max(gains)))
    return replace(grown, pixels=np.asarray(cv2.add(grown.pixels, light)))


def _bright(pixels: Rgba, threshold: float) -> Rgba:
    """What is brighter than a level, by as much as it is."""
    levels = np.arange(256, dtype=np.float32) / 255
    shares = np.clip((levels - threshold) / max(1 - threshold, 1e-3), 0, 1)
    share = cv2.LUT(brightest(pixels), shares)
    return np.asarray(cv2.multiply(pixels, cv2.merge([share] * 4), dtype=cv2.CV_8U))


def _tinted(shape: np.ndarray, tint: tuple[int, int, int]) -> np.ndarray:
    parts = [shape * (channel / 255) for channel in tint]
    return np.dstack([*parts, shape]).astype(np.uint16)

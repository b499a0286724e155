from __future__ import annotations

import math
from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.shadow import Shadow
from kitecore.motion.plain import colour, pair
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.layer import Layer
from kitecore.picture.softening import softened


@effect_drawings.register("shadow")
def shadow(layer: Layer, effect: Shadow, tick: int) -> Layer:
    """The outline, shifted, softened and in one colour, behind the picture."""
    sigma = length_of(effect.softness, layer, 400)
    dx, dy = (length_of(length, layer) for length in pair(effect.shift))
    grown = layer.padded(math.ceil(3 * sigma + max(abs(dx), abs(dy))) + 1)
    height, width = grown.pixels.shape[:2]
    moved = np.array([[1, 0, dx], [0, 1, dy]], np.float64)
    outline = cv2.warpAffine(np.ascontiguousarray(grown.pixels[..., 3]), moved, (width, height))
    shape = softened(np.asarray(outline), sigma).astype(np.float32)
    # Only as much as the picture leaves free: it lies behind.
    shape *= bounded(effect.opacity, 0.0, 1.0) * (1 - grown.pixels[..., 3].astype(np.float32) / 255)
    tint = rgb_of(colour(effect.colour))
    fallen = np.dstack([*(shape * (channel / 255) for channel in tint), shape])
    pixels = grown.pixels + np.rint(fallen).astype(np.uint8)
    return replace(grown, pixels=pixels)

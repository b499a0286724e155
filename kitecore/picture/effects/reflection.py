from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.reflection import Reflection
from kitecore.motion.plain import number
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.layer import Layer
from kitecore.picture.softening import softened


@effect_drawings.register("reflection")
def reflection(layer: Layer, effect: Reflection, tick: int) -> Layer:
    """The picture turned over at its lowest visible row, fading with the distance from there."""
    rows = np.flatnonzero(layer.pixels[..., 3].max(axis=1))
    if not len(rows):
        return layer
    top, ground = int(rows[0]), int(rows[-1]) + 1
    reach = max(1, round((ground - top) * min(number(effect.height), 100) / 100))
    gap = round(length_of(effect.gap, layer))
    below = layer.pixels.shape[0] - ground
    grown = layer.padded(max(0, reach + gap - below))
    border = (grown.pixels.shape[0] - layer.pixels.shape[0]) // 2
    fade = bounded(effect.opacity, 0.0, 1.0) * (
        1 - (np.arange(reach, dtype=np.float32) + 0.5) / reach
    )
    turned = grown.pixels[border + ground - reach : border + ground][::-1]
    image = np.rint(turned * fade[:, None, None]).astype(np.uint8)
    if (sigma := length_of(effect.softness, layer, 400)) > 0.2:
        image = softened(image, sigma)
    pixels = grown.pixels.copy()
    start = border + ground + gap
    first, last = max(start, 0), min(start + reach, len(pixels))
    if last > first:
        place = pixels[first:last]
        rest = cv2.merge([255 - place[..., 3]] * 4)
        place += cv2.multiply(image[first - start : last - start], rest, scale=1 / 255)
    return replace(grown, pixels=pixels)

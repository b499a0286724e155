from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.effects.rays import Rays
from kitecore.motion.plain import colour, number, pair
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings
from kitecore.picture.effects._bending import middle_of
from kitecore.picture.effects._lighting import brightest, with_light
from kitecore.picture.effects.zoom_blur import smeared
from kitecore.picture.layer import Layer

_DENSITY: Final = 0.25
"""Pixels to one of the canvas in which rays are drawn: they have no fine edges."""
_FARTHEST: Final = 0.95


@effect_drawings.register("rays")
def rays(layer: Layer, effect: Rays, tick: int) -> Layer:
    """What is brighter than a level, smeared away from a point; added to the picture."""
    strength = bounded(effect.strength, 0.0, 100.0)
    length = bounded(effect.length, 0.0, 100 * _FARTHEST) / 100
    if strength == 0:
        return layer
    height, width = layer.pixels.shape[:2]
    factor = min(1.0, _DENSITY / layer.density)
    size = max(1, round(width * factor)), max(1, round(height * factor))
    small = np.asarray(cv2.resize(layer.pixels, size, interpolation=cv2.INTER_AREA))
    bright = _bright(small, number(effect.threshold) / 100)
    centre = np.array(middle_of(layer, pair(effect.centre))) * (size[0] / width, size[1] / height)
    steps = max(1, math.ceil(math.log2(max(size) * max(length, 0.02))))
    light = smeared(bright, centre, length / (1 - length), steps, cv2.BORDER_CONSTANT)
    light = cv2.resize(light, (width, height), interpolation=cv2.INTER_LINEAR)
    tint = [level / 255 * strength for level in rgb_of(colour(effect.colour))]
    return replace(layer, pixels=with_light(layer.pixels, np.asarray(light, np.float32), tint))


def _bright(pixels: NDArray[np.uint8], threshold: float) -> NDArray[np.float32]:
    most = brightest(pixels).astype(np.float32)
    return np.asarray(np.clip((most / 255 - threshold) / max(1 - threshold, 1e-3), 0, 1) * most)

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from kitecore.document.effects.direction_blur import DirectionBlur
from kitecore.motion.plain import number
from kitecore.picture.effects._base import effect_drawings, effect_reaches, length_of
from kitecore.picture.effects._taps import tapped
from kitecore.picture.layer import Layer


@effect_drawings.register("direction_blur")
def direction_blur(layer: Layer, effect: DirectionBlur, tick: int) -> Layer:
    """The mean along a line through each pixel, drawn soft so that short lines turn smoothly."""
    length = length_of(effect.length, layer, 600)
    if length < 0.5:
        return layer
    reach = math.ceil(length / 2) + 1
    grown = layer.padded(reach)
    weights = _line(length, math.radians(number(effect.angle)), reach)
    return replace(grown, pixels=tapped(grown.pixels, weights))


@effect_reaches.register("direction_blur")
def reach(layer: Layer, effect: DirectionBlur) -> float:
    return length_of(effect.length, layer, 600) / 2 + 2


def _line(length: float, angle: float, reach: int) -> np.ndarray:
    """Weights of a line of a length through the middle of a square, one pixel wide."""
    offsets = np.arange(-reach, reach + 1, dtype=np.float32)
    x, y = offsets[None, :], offsets[:, None]
    along = np.abs(x * math.cos(angle) + y * math.sin(angle))
    aside = np.abs(y * math.cos(angle) - x * math.sin(angle))
    weights = np.clip(length / 2 + 0.5 - along, 0, 1) * np.clip(1 - aside, 0, 1)
    return np.asarray(weights / weights.sum())

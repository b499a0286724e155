from __future__ import annotations

import math
from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.box_blur import BoxBlur
from kitecore.picture.effects._base import effect_drawings, effect_reaches, length_of
from kitecore.picture.layer import Layer


@effect_drawings.register("box_blur")
def box_blur(layer: Layer, effect: BoxBlur, tick: int) -> Layer:
    """Mean of a square; between two whole radii, between their results."""
    radius = length_of(effect.radius, layer, 1000)
    if radius < 0.1:
        return layer
    grown = layer.padded(math.ceil(radius))
    less, share = int(radius), radius % 1
    blurred = _boxed(grown.pixels, less)
    if share > 0.02:
        wider = _boxed(grown.pixels, less + 1)
        blurred = cv2.addWeighted(blurred, 1 - share, wider, share, 0)
    return replace(grown, pixels=np.asarray(blurred))


@effect_reaches.register("box_blur")
def reach(layer: Layer, effect: BoxBlur) -> float:
    return length_of(effect.radius, layer, 1000) + 1


def _boxed(pixels: np.ndarray, radius: int) -> np.ndarray:
    side = 2 * radius + 1
    return np.asarray(cv2.blur(pixels, (side, side), borderType=cv2.BORDER_REPLICATE))

from __future__ import annotations

import math
from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.soft_blur import SoftBlur
from kitecore.motion import value_at
from kitecore.picture.effects._base import effect_drawings
from kitecore.picture.layer import Layer


@effect_drawings.register("soft_blur")
def soft_blur(layer: Layer, effect: SoftBlur, tick: int) -> Layer:
    """Gaussian of ``sigma`` canvas pixels; edges go soft into transparency."""
    sigma = value_at(effect.sigma, tick) * layer.density
    if sigma < 0.1:
        return layer
    grown = layer.padded(math.ceil(3 * sigma))
    blurred = cv2.GaussianBlur(grown.pixels, (0, 0), sigma, borderType=cv2.BORDER_CONSTANT)
    return replace(grown, pixels=np.asarray(blurred))

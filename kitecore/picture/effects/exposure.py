from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.exposure import Exposure
from kitecore.picture.effects._base import bounded, effect_drawings, effect_reaches
from kitecore.picture.layer import Layer, Rgba


@effect_drawings.register("exposure")
def exposure(layer: Layer, effect: Exposure, tick: int) -> Layer:
    return replace(layer, pixels=exposed(layer.pixels, bounded(effect.stops, -20.0, 20.0)))


@effect_reaches.register("exposure")
def reach(layer: Layer, effect: Exposure) -> float:
    return 0


def exposed(pixels: Rgba, stops: float) -> Rgba:
    """Straight colours brightened in linear light (BT.1886, gamma 2.4) by a number of stops."""
    gain = 2.0 ** (stops / 2.4)
    if abs(stops) < 1e-3:
        return pixels
    scaled = cv2.multiply(pixels, (gain, gain, gain, 1.0))
    np.minimum(scaled, pixels[..., 3:], out=scaled)
    return np.asarray(scaled)

from __future__ import annotations

from dataclasses import replace

import numpy as np

from kitecore.document.effects.invert import Invert
from kitecore.picture.effects._base import effect_drawings, effect_reaches
from kitecore.picture.layer import Layer


@effect_drawings.register("invert")
def invert(layer: Layer, effect: Invert, tick: int) -> Layer:
    """1 - x of straight colours: alpha less what is there, when premultiplied."""
    pixels = layer.pixels.copy()
    alpha = layer.pixels[..., 3]
    for channel, chosen in enumerate((effect.red, effect.green, effect.blue)):
        if chosen:
            pixels[..., channel] = alpha - np.minimum(pixels[..., channel], alpha)
    if effect.alpha:
        pixels[..., :3] = np.minimum(pixels[..., :3], 255 - alpha[..., None])
        pixels[..., 3] = 255 - alpha
    return replace(layer, pixels=pixels)


@effect_reaches.register("invert")
def reach(layer: Layer, effect: Invert) -> float:
    return 0

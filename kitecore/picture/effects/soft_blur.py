from __future__ import annotations

import math
from dataclasses import replace

from kitecore.document.effects.soft_blur import SoftBlur
from kitecore.picture.effects._base import effect_drawings, effect_reaches, length_of
from kitecore.picture.layer import Layer
from kitecore.picture.softening import MARGIN, softened


@effect_drawings.register("soft_blur")
def soft_blur(layer: Layer, effect: SoftBlur, tick: int) -> Layer:
    """Gaussian of ``sigma`` canvas pixels; edges go soft into transparency."""
    sigma = _sigma(layer, effect)
    if sigma < 0.1:
        return layer
    grown = layer.padded(math.ceil(3 * sigma))
    return replace(grown, pixels=softened(grown.pixels, sigma))


@effect_reaches.register("soft_blur")
def reach(layer: Layer, effect: SoftBlur) -> float:
    return 3 * _sigma(layer, effect) + MARGIN


def _sigma(layer: Layer, effect: SoftBlur) -> float:
    return length_of(effect.sigma, layer, 400)

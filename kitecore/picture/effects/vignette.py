from __future__ import annotations

from dataclasses import replace

import numpy as np

from kitecore.document.effects.vignette import Vignette
from kitecore.motion.plain import number
from kitecore.picture.effects._base import bounded, effect_drawings
from kitecore.picture.effects._lighting import lit
from kitecore.picture.layer import Layer


@effect_drawings.register("vignette")
def vignette(layer: Layer, effect: Vignette, tick: int) -> Layer:
    """Darker by the distance from the middle, of which the corners have 1."""
    height, width = layer.pixels.shape[:2]
    x = (np.arange(width, dtype=np.float32) + 0.5) / width * 2 - 1
    y = (np.arange(height, dtype=np.float32) + 0.5) / height * 2 - 1
    distance = np.sqrt((x[None, :] ** 2 + y[:, None] ** 2) / 2)
    share = np.clip((distance - number(effect.reach)) / max(number(effect.softness), 0.01), 0, 1)
    dark = share * share * (3 - 2 * share) * np.float32(bounded(effect.strength, -4.0, 1.0))
    return replace(layer, pixels=lit(layer.pixels, 1 - dark))

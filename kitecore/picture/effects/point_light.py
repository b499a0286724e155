from __future__ import annotations

from dataclasses import replace

import numpy as np

from kitecore.document.effects.point_light import PointLight
from kitecore.motion.plain import colour, number, pair
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings, from_middle, scaled_light
from kitecore.picture.layer import Layer


@effect_drawings.register("point_light")
def point_light(layer: Layer, effect: PointLight, tick: int) -> Layer:
    """Light that falls to nothing at its reach, as (1 - (d/r)²)², besides what is everywhere."""
    x, y = from_middle(layer)
    cx, cy = pair(effect.centre)
    near = 1 - ((x - cx) ** 2 + (y - cy) ** 2) / max(min(number(effect.reach), 1e5), 1) ** 2
    lamp = np.maximum(near, 0) ** 2 * np.float32(bounded(effect.strength, 0.0, 100.0))
    tint = np.array(rgb_of(colour(effect.colour)), np.float32) / 255
    light = np.asarray(bounded(effect.around, 0.0, 100.0) + lamp[..., None] * tint, np.float32)
    return replace(layer, pixels=scaled_light(layer.pixels, light))

from __future__ import annotations

from dataclasses import replace

import numpy as np

from kitecore.document.effects.point_light import PointLight
from kitecore.motion.plain import colour, number, pair
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings, from_middle
from kitecore.picture.effects._lighting import lit
from kitecore.picture.layer import Layer


@effect_drawings.register("point_light")
def point_light(layer: Layer, effect: PointLight, tick: int) -> Layer:
    """Light that falls to nothing at its reach, as (1 - (d/r)²)², besides what is everywhere."""
    x, y = from_middle(layer)
    cx, cy = pair(effect.centre)
    near = 1 - ((x - cx) ** 2 + (y - cy) ** 2) / max(min(number(effect.reach), 1e5), 1) ** 2
    lamp = np.maximum(near, 0) ** 2 * np.float32(bounded(effect.strength, 0.0, 100.0))
    tint = [level / 255 for level in rgb_of(colour(effect.colour))]
    around = bounded(effect.around, 0.0, 100.0)
    return replace(layer, pixels=lit(layer.pixels, lamp, tint, around))

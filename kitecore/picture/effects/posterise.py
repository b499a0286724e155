from __future__ import annotations

from dataclasses import replace

import numpy as np

from kitecore.document.effects.posterise import Posterise
from kitecore.motion.plain import number
from kitecore.picture.effects._base import effect_drawings, effect_reaches
from kitecore.picture.effects._recolour import by_levels
from kitecore.picture.layer import Layer


@effect_drawings.register("posterise")
def posterise(layer: Layer, effect: Posterise, tick: int) -> Layer:
    """Even shares of the levels, each become one; the darkest is black and the lightest white."""
    count = min(max(round(number(effect.levels)), 2), 256)
    step = np.minimum(np.arange(256) * count // 256, count - 1)
    table = np.rint(step * (255 / (count - 1))).astype(np.uint8)
    return replace(layer, pixels=by_levels(layer.pixels, table))


@effect_reaches.register("posterise")
def reach(layer: Layer, effect: Posterise) -> float:
    return 0

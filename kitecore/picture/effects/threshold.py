from __future__ import annotations

from dataclasses import replace

import numpy as np

from kitecore.document.effects.threshold import Threshold
from kitecore.motion.plain import colour, number
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import effect_drawings, effect_reaches
from kitecore.picture.effects._recolour import by_luma
from kitecore.picture.layer import Layer


@effect_drawings.register("threshold")
def threshold(layer: Layer, effect: Threshold, tick: int) -> Layer:
    """One colour below a luma, another above it, and over a soft step what is between them."""
    level, soft = number(effect.level) / 100 * 255, max(number(effect.soft) / 100 * 255, 1e-6)
    share = np.clip((np.arange(256) + 0.5 - level) / soft + 0.5, 0, 1)[:, None]
    dark, light = (np.array(rgb_of(colour(one))) for one in (effect.dark, effect.light))
    table = np.rint(dark * (1 - share) + light * share).astype(np.uint8)
    return replace(layer, pixels=by_luma(layer.pixels, table))


@effect_reaches.register("threshold")
def reach(layer: Layer, effect: Threshold) -> float:
    return 0

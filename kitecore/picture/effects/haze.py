from __future__ import annotations

import math

import numpy as np

from kitecore.document.effects.haze import Haze
from kitecore.motion.plain import number
from kitecore.picture.effects._base import effect_drawings, length_of
from kitecore.picture.effects._bending import Maps, bent
from kitecore.picture.fields import Field, coarse_noise, enlarged
from kitecore.picture.layer import Layer
from kitecore.ticks import TICKS_PER_SECOND

_CHANGES = 0.8
"""How often in a second swirls become others on their way."""


@effect_drawings.register("haze")
def haze(layer: Layer, effect: Haze, tick: int) -> Layer:
    """Each pixel from a little aside, by noise that rises and changes on its way."""
    strength = length_of(effect.strength, layer)
    if abs(strength) < 0.02:
        return layer

    def whence(grown: Layer) -> Maps:
        height, width = grown.pixels.shape[:2]
        across, down = (_swirls(grown, effect, tick, way, strength) for way in (0, 1))
        across += np.arange(width, dtype=np.float32)
        down += np.arange(height, dtype=np.float32)[:, None]
        return across, down

    return bent(layer, effect, abs(strength), whence)


def _swirls(layer: Layer, effect: Haze, tick: int, way: int, strength: float) -> Field:
    """How far each pixel is taken from, one way, in pixels."""
    seconds = (tick - effect.since) / TICKS_PER_SECOND
    height, width = layer.pixels.shape[:2]
    cell = max(number(effect.size), 4.0)
    risen = (effect.speed * seconds / cell) % 64
    drawn = cell * layer.density
    first = math.floor(seconds * _CHANGES)
    part = seconds * _CHANGES - first
    fields = (
        coarse_noise((width, height), (drawn, drawn), (0.0, risen), effect.seed, way, first + step)
        for step in (0, 1)
    )
    # Two that have nothing to do with each other lose strength between them: not so by this.
    a, b = math.cos(part * math.pi / 2), math.sin(part * math.pi / 2)
    before, after = fields
    both = np.clip(np.float32(a) * before + np.float32(b) * after, -1, 1)
    return enlarged(both * np.float32(strength), (width, height))

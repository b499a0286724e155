from __future__ import annotations

import math

import numpy as np
from numba import njit

from kitecore.document.effects.haze import Haze
from kitecore.motion.plain import number
from kitecore.motion.running import run_by
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
        maps = np.empty((height, width), np.float32), np.empty((height, width), np.float32)
        _fill_aside(across, down, *maps)
        return maps

    return bent(layer, effect, abs(strength), whence)


def _swirls(layer: Layer, effect: Haze, tick: int, way: int, strength: float) -> Field:
    """How far pixels are taken from, one way, in pixels: in all columns, and as few rows as tell it."""
    seconds = (tick - effect.since) / TICKS_PER_SECOND
    height, width = layer.pixels.shape[:2]
    cell = max(number(effect.size), 4.0)
    risen = (run_by(effect.speed, effect.since, tick) / cell) % 64
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
    return enlarged(both * np.float32(strength), (width, both.shape[0]))


@njit(cache=True, nogil=True, fastmath={"nnan", "nsz", "contract"})
def _fill_aside(across: Field, down: Field, xs: Field, ys: Field) -> None:
    """Where each pixel is from, by fields of fewer rows: straight on between two of them."""
    rows, columns = xs.shape
    most, half = across.shape[0] - 1, 0.5
    for y in range(rows):
        at = min(max((y + half) * across.shape[0] / rows - half, 0.0), most)
        above = int(at)
        below, part, row = min(above + 1, most), np.float32(at - above), np.float32(y)
        first, then, line = across[above, :], across[below, :], xs[y, :]
        for x in range(columns):
            line[x] = np.float32(np.int32(x)) + first[x] + (then[x] - first[x]) * part
        first, then, line = down[above, :], down[below, :], ys[y, :]
        for x in range(columns):
            line[x] = row + first[x] + (then[x] - first[x]) * part

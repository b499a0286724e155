from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.document.effects.echo import SOONEST, Echo
from kitecore.motion import value_at
from kitecore.picture.composite import lay
from kitecore.picture.effects._base import At, bounded, timed_drawings
from kitecore.picture.layer import Layer, moved
from kitecore.ticks import TICKS_PER_SECOND

MOST_ROOM: Final = 1200
"""Pixels around a layer in which its echoes are seen."""
_LEAST: Final = 0.5 / 255


@timed_drawings.register("echo")
def echo(layer: Layer, effect: Echo, tick: int, at: At) -> Layer:
    """Earlier moments, each where the layer was then, from the earliest to the layer itself."""
    strength = bounded(effect.strength, 0.0, 1.0)
    count = round(bounded(value_at(effect.count, tick), 1, effect.most))
    later = bounded(value_at(effect.later, tick), SOONEST, effect.latest)
    step = round(later * TICKS_PER_SECOND)
    moments = [
        (number, strength**number)
        for number in range(count, 0, -1)
        if tick - number * step >= 0 and strength**number > _LEAST
    ]
    if not moments:
        return layer
    earlier = [(at(tick - number * step, number), share) for number, share in moments]
    home = np.linalg.inv(layer.matrix)
    seen = [(replace(one, matrix=home @ one.matrix), share) for one, share in earlier]
    grown = layer.padded(_room(layer, [one for one, _ in seen]))
    border = (grown.pixels.shape[0] - layer.pixels.shape[0]) // 2
    light = effect.where == "light"
    if layer.endless and not light:
        return _averaged(layer, seen)
    pixels = grown.pixels.copy() if light else np.zeros_like(grown.pixels)
    for one, share in seen:
        there = replace(one, matrix=moved(border, border) @ one.matrix)
        lay(pixels, there, share, "screen" if light else "normal")
    if not light:
        lay(pixels, Layer(layer.pixels, moved(border, border)))
    return replace(grown, pixels=pixels)


def _averaged(layer: Layer, others: list[tuple[Layer, float]]) -> Layer:
    """Of what has no edges, nothing lies behind it: what was seen is mixed in, as far as it counts."""
    total = layer.pixels.astype(np.float32)
    for one, share in others:
        total += np.float32(share) * one.pixels
    weight = np.float32(1 + sum(share for _, share in others))
    return replace(layer, pixels=np.rint(total / weight).astype(np.uint8))


def _room(layer: Layer, others: list[Layer]) -> int:
    """Pixels by which others reach beyond it."""
    height, width = layer.pixels.shape[:2]
    corners = np.hstack([one.matrix @ one.corners for one in others])
    x, y = corners[:2] / corners[2]
    far = float(max(-x.min(), -y.min(), x.max() - width, y.max() - height, 0.0))
    return math.ceil(min(far, MOST_ROOM)) if far > 1e-6 else 0

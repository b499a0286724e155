from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.colour_split import ColourSplit
from kitecore.motion.plain import number, pair
from kitecore.picture.effects._base import effect_drawings, effect_reaches, length_of
from kitecore.picture.effects._bending import Channel, border_of, middle_of, parted, room_for
from kitecore.picture.layer import Layer, Matrix, moved, sized


@effect_drawings.register("colour_split")
def colour_split(layer: Layer, effect: ColourSplit, tick: int) -> Layer:
    """Red as far one way as blue the other; green, and the picture itself, stay."""
    far = length_of(effect.distance, layer)
    if abs(far) < 0.02:
        return layer
    grown = room_for(layer, effect, abs(far))
    way = _aside(far, effect) if effect.way == "aside" else _outwards(far, effect, grown)
    border, size = border_of(layer, effect), grown.pixels.shape[1::-1]

    def gone(channel: Channel, sign: int) -> Channel:
        if not sign:
            return channel
        return np.asarray(cv2.warpAffine(channel, way(sign)[:2], size, borderMode=border))

    return replace(grown, pixels=parted(grown.pixels, border, gone))


@effect_reaches.register("colour_split")
def reach(layer: Layer, effect: ColourSplit) -> float:
    return abs(length_of(effect.distance, layer)) + 1


def _aside(far: float, effect: ColourSplit) -> Callable[[int], Matrix]:
    angle = math.radians(number(effect.angle))
    return lambda sign: moved(sign * far * math.cos(angle), sign * far * math.sin(angle))


def _outwards(far: float, effect: ColourSplit, layer: Layer) -> Callable[[int], Matrix]:
    """As far as told at the farthest corner."""
    height, width = layer.pixels.shape[:2]
    x, y = middle_of(layer, pair(effect.centre))
    farthest = math.hypot(max(x, width - x), max(y, height - y))
    # The first pixel's middle is (0, 0) there, not (0.5, 0.5).
    x, y = x - 0.5, y - 0.5

    def way(sign: int) -> Matrix:
        factor = 1 + sign * min(max(far / farthest, -0.9), 0.9)
        return np.asarray(moved(x, y) @ sized(factor, factor) @ moved(-x, -y))

    return way

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.effects.colour_split import ColourSplit
from kitecore.motion.plain import number, pair
from kitecore.picture.effects._base import effect_drawings, effect_reaches, length_of
from kitecore.picture.effects._bending import border_of, middle_of, room_for
from kitecore.picture.layer import Layer, Matrix, Rgba, moved, sized

Channel = NDArray[np.uint8]


@effect_drawings.register("colour_split")
def colour_split(layer: Layer, effect: ColourSplit, tick: int) -> Layer:
    """Red as far one way as blue the other; green, and the picture itself, stay."""
    far = length_of(effect.distance, layer)
    if abs(far) < 0.02:
        return layer
    grown = room_for(layer, effect, abs(far))
    way = _aside(far, effect) if effect.way == "aside" else _outwards(far, effect, grown)
    return replace(grown, pixels=apart(grown.pixels, way, border_of(layer, effect)))


@effect_reaches.register("colour_split")
def reach(layer: Layer, effect: ColourSplit) -> float:
    return abs(length_of(effect.distance, layer)) + 1


def apart(pixels: Rgba, way: Callable[[int], Matrix], border: int) -> Rgba:
    """Red by ``way(1)``, blue by ``way(-1)``, each with its own alpha; of the alphas the greatest."""
    red, green, blue, alpha = cv2.split(pixels)
    solid = border != cv2.BORDER_CONSTANT and int(alpha.min()) == 255
    red, red_alpha = (_gone(one, way(1), border) for one in (red, alpha))
    blue, blue_alpha = (_gone(one, way(-1), border) for one in (blue, alpha))
    most = alpha if solid else np.maximum(np.maximum(red_alpha, blue_alpha), alpha)
    return np.asarray(cv2.merge([red, green, blue, most]))


def _gone(channel: Channel, matrix: Matrix, border: int) -> Channel:
    size = channel.shape[1], channel.shape[0]
    return np.asarray(cv2.warpAffine(channel, matrix[:2], size, borderMode=border))


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

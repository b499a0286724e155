from __future__ import annotations

import math
from dataclasses import replace

import cv2
import numpy as np
from numba import njit

from kitecore.document.effects.colour_split import ColourSplit
from kitecore.motion.plain import number, pair
from kitecore.picture.effects._base import effect_drawings, effect_reaches, length_of
from kitecore.picture.effects._bending import Channel, border_of, middle_of, parted, room_for
from kitecore.picture.layer import Layer, Rgba, moved, packed, sized
from kitecore.picture.sampling import Packed, sample_shifted


@effect_drawings.register("colour_split")
def colour_split(layer: Layer, effect: ColourSplit, tick: int) -> Layer:
    """Red as far one way as blue the other; green, and the picture itself, stay."""
    far = length_of(effect.distance, layer)
    if abs(far) < 0.02:
        return layer
    grown = room_for(layer, effect, abs(far))
    draw = _aside if effect.way == "aside" else _outwards
    return replace(grown, pixels=draw(grown, effect, far, border_of(layer, effect)))


@effect_reaches.register("colour_split")
def reach(layer: Layer, effect: ColourSplit) -> float:
    return abs(length_of(effect.distance, layer)) + 1


def _aside(layer: Layer, effect: ColourSplit, far: float, border: int) -> Rgba:
    angle, room = math.radians(number(effect.angle)), math.ceil(abs(far)) + 1
    x, y = far * math.cos(angle), far * math.sin(angle)
    around = cv2.copyMakeBorder(layer.pixels, room, room, room, room, border)
    out = np.empty_like(layer.pixels)
    _shifted(packed(np.asarray(around, np.uint8)), room, x, y, packed(out))
    return out


@njit(cache=True, nogil=True)
def _shifted(around: Packed, room: int, x: float, y: float, out: Packed) -> None:
    """Red as far as (x, y) along, blue as far back, of a picture with so many pixels around it."""
    red, blue = np.empty(out.shape[1], np.uint32), np.empty(out.shape[1], np.uint32)
    u, v, one = round(x * 65536), round(y * 65536), 65536
    first, second, third = np.uint32(0xFF), np.uint32(0xFF00), np.uint32(0xFF0000)
    last = np.uint32(24)
    for row in range(out.shape[0]):
        sample_shifted(around, room * one - u, (row + room) * one - v, red)
        sample_shifted(around, room * one + u, (row + room) * one + v, blue)
        own, line = around[row + room, room : room + out.shape[1]], out[row, :]
        for k in range(len(line)):
            alpha = max(max(red[k] >> last, blue[k] >> last), own[k] >> last)
            line[k] = red[k] & first | own[k] & second | blue[k] & third | alpha << last


def _outwards(layer: Layer, effect: ColourSplit, far: float, border: int) -> Rgba:
    """As far as told at the farthest corner."""
    height, width = layer.pixels.shape[:2]
    x, y = middle_of(layer, pair(effect.centre))
    farthest = math.hypot(max(x, width - x), max(y, height - y))
    # The first pixel's middle is (0, 0) there, not (0.5, 0.5).
    x, y = x - 0.5, y - 0.5

    def gone(channel: Channel, sign: int) -> Channel:
        if not sign:
            return channel
        factor = 1 + sign * min(max(far / farthest, -0.9), 0.9)
        way = (moved(x, y) @ sized(factor, factor) @ moved(-x, -y))[:2]
        return np.asarray(cv2.warpAffine(channel, way, (width, height), borderMode=border))

    return parted(layer.pixels, border, gone)

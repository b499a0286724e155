from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.document.effects.halftone import Halftone
from kitecore.motion.plain import colour, number
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import effect_drawings
from kitecore.picture.layer import Layer

Plane = NDArray[np.uint8]
Ink = NDArray[np.float32]
_TURNS: Final = (0.0, 30.0, 60.0)
"""Degrees between the rows of three inks: dots of different ones never march together."""


@effect_drawings.register("halftone")
def halftone(layer: Layer, effect: Halftone, tick: int) -> Layer:
    """Dots of ink on paper, together as dark as the picture is there."""
    cell = max(number(effect.size) * layer.density, 1.5)
    *colours, alpha = cv2.split(layer.pixels)
    side = max(1, round(cell))
    # As if on paper: what is clear has no ink.
    paper = cv2.bitwise_not(alpha)
    even = [
        cv2.blur(cv2.add(one, paper), (side, side), borderType=cv2.BORDER_REPLICATE)
        for one in colours
    ]
    share = np.asarray(alpha, np.float32) / np.float32(255)
    printed = [cv2.multiply(one, share, dtype=cv2.CV_8U) for one in _printed(even, effect, cell)]
    return replace(layer, pixels=np.asarray(cv2.merge([*printed, alpha]), np.uint8))


def _printed(even: Sequence[cv2.typing.MatLike], effect: Halftone, cell: float) -> list[Ink]:
    """Red, green and blue of the ink and what of the ground it leaves free, 0..255."""
    angle = number(effect.angle)
    if effect.inks == "one":
        grey = cv2.cvtColor(cv2.merge(even), cv2.COLOR_RGB2GRAY)
        ink = dots(np.asarray(grey, np.uint8), cell, angle)
        pairs = zip(rgb_of(colour(effect.ground)), rgb_of(colour(effect.ink)), strict=True)
        return [np.float32(ground) + ink * np.float32(dark - ground) for ground, dark in pairs]
    return [
        np.float32(255) * (1 - dots(np.asarray(one, np.uint8), cell, angle + turn))
        for one, turn in zip(even, _TURNS, strict=True)
    ]


def dots(light: Plane, cell: float, degrees: float) -> NDArray[np.float32]:
    """0..1: where the ink of a grey picture is, in dots on a turned grid."""
    angle = math.radians(degrees)
    out = np.empty(light.shape, np.float32)
    _fill_dots(out, light, cell, math.cos(angle), math.sin(angle), _RADII)
    return out


def _radii() -> NDArray[np.float32]:
    """Radius, in cells, of a dot that is to cover so many 255ths of its cell.

    Beyond half a cell a dot is cut off by its neighbours: the circle less four caps.
    """
    radius = np.linspace(0, math.sqrt(0.5), 2000)
    out = np.maximum(radius, 0.5)
    cap = out**2 * np.arccos(0.5 / out) - 0.5 * np.sqrt(np.maximum(out**2 - 0.25, 0))
    area = np.pi * radius**2 - 4 * np.where(radius > 0.5, cap, 0)
    return np.interp(np.linspace(0, 1, 256), area, radius).astype(np.float32)


_RADII: Final = _radii()


@njit(cache=True, nogil=True)
def _fill_dots(
    out: NDArray[np.float32],
    light: Plane,
    cell: float,
    cos: float,
    sin: float,
    radii: NDArray[np.float32],
) -> None:
    height, width = out.shape
    half, zero, one = np.float32(0.5), np.float32(0), np.float32(1)
    size, c, s = np.float32(cell), np.float32(cos), np.float32(sin)
    middle, centre = np.float32(width / 2), np.float32(height / 2)
    last, lowest = np.int32(width - 1), np.int32(height - 1)
    for row in range(height):
        y = (np.float32(row) + half - centre) / size
        for column in range(width):
            x = (np.float32(column) + half - middle) / size
            u, v = x * c + y * s, y * c - x * s
            cu, cv = np.floor(u) + half, np.floor(v) + half
            # The picture is as light as in the middle of the dot.
            mx = np.int32((cu * c - cv * s) * size + middle)
            my = np.int32((cu * s + cv * c) * size + centre)
            level = light[min(max(my, np.int32(0)), lowest), min(max(mx, np.int32(0)), last)]
            du, dv = u - cu, v - cv
            edge = (radii[255 - level] - np.sqrt(du * du + dv * dv)) * size + half
            # All ink and none have no edge, however small the dots.
            edge = one if level == 0 else (zero if level == 255 else edge)
            out[row, column] = min(max(edge, zero), one)

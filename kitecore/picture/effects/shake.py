from __future__ import annotations

from dataclasses import replace
from typing import Final

import cv2
import numpy as np

from kitecore.document.effects.shake import LONGEST, Shake
from kitecore.motion.noise import wave
from kitecore.motion.running import run_by
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.effects._bending import border_of, room_for
from kitecore.picture.layer import Layer, Matrix, Rgba, moved, turned
from kitecore.ticks import TICKS_PER_SECOND

_MOST_MOMENTS: Final = 16
_STEP: Final = 1.5
"""Pixels that a corner may go from one moment of an exposure to the next."""


@effect_drawings.register("shake")
def shake(layer: Layer, effect: Shake, tick: int) -> Layer:
    """Another place each moment; what comes into view at its edges is the picture turned over."""
    moments = _exposed(layer, effect, tick)
    grown = room_for(layer, effect, max(_went(layer, by) for by in moments))
    border = (grown.pixels.shape[0] - layer.pixels.shape[0]) // 2
    edges = border_of(layer, effect)
    first, *others = (_warped(grown.pixels, by, border, edges) for by in moments)
    if not others:
        return replace(grown, pixels=first)
    total = first.astype(np.uint16)
    for picture in others:
        total += picture
    half, count = np.uint16(len(moments) // 2), np.uint16(len(moments))
    return replace(grown, pixels=((total + half) // count).astype(np.uint8))


def _warped(pixels: Rgba, by: Matrix, border: int, edges: int) -> Rgba:
    # The first pixel's middle is (0, 0) there, not (0.5, 0.5).
    matrix = (moved(border - 0.5, border - 0.5) @ by @ moved(0.5 - border, 0.5 - border))[:2]
    size = pixels.shape[1::-1]
    shaken = cv2.warpAffine(pixels, matrix, size, flags=cv2.INTER_LINEAR, borderMode=edges)
    return np.asarray(np.minimum(shaken, shaken[..., 3:]))


def _exposed(layer: Layer, effect: Shake, tick: int) -> list[Matrix]:
    """How the picture's pixels move at moments about a tick, in the middles of even parts of its exposure."""
    open_for = bounded(effect.shutter, 0.0, LONGEST) * TICKS_PER_SECOND
    now = shaken_by(layer, effect, tick)
    if not open_for:
        return [now]
    ends = (shaken_by(layer, effect, tick + round(side * open_for / 2)) for side in (-1, 1))
    far = sum(_went(layer, end @ np.linalg.inv(now)) for end in ends)
    count = int(min(max(np.ceil(far / _STEP), 1), _MOST_MOMENTS))
    offsets = (round(((part + 0.5) / count - 0.5) * open_for) for part in range(count))
    return [shaken_by(layer, effect, tick + offset) for offset in offsets]


def _went(layer: Layer, by: Matrix) -> float:
    """Pixels that a corner goes at most."""
    return float(np.abs((by @ layer.corners - layer.corners)[:2]).max())


def shaken_by(layer: Layer, effect: Shake, tick: int) -> Matrix:
    """How the picture's pixels move at a tick."""
    at = run_by(effect.rate, effect.since, tick)
    across, down, turn = (wave(at, effect.seed + 1000 * axis) for axis in range(3))
    far = length_of(effect.strength, layer)
    height, width = layer.pixels.shape[:2]
    degrees = bounded(effect.turn, -180.0, 180.0) * turn
    return np.asarray(
        moved(width / 2 + far * across, height / 2 + far * down)
        @ turned(degrees)
        @ moved(-width / 2, -height / 2)
    )

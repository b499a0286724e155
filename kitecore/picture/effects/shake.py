from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.shake import Shake
from kitecore.motion.noise import wave
from kitecore.motion.running import run_by
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.effects._bending import border_of, room_for
from kitecore.picture.layer import Layer, Matrix, moved, turned


@effect_drawings.register("shake")
def shake(layer: Layer, effect: Shake, tick: int) -> Layer:
    """Another place each moment; what comes into view at its edges is the picture turned over."""
    by, far = shaken_by(layer, effect, tick)
    grown = room_for(layer, effect, far)
    border = (grown.pixels.shape[0] - layer.pixels.shape[0]) // 2
    # The first pixel's middle is (0, 0) there, not (0.5, 0.5).
    matrix = (moved(border - 0.5, border - 0.5) @ by @ moved(0.5 - border, 0.5 - border))[:2]
    pixels = cv2.warpAffine(
        grown.pixels,
        matrix,
        grown.pixels.shape[1::-1],
        flags=cv2.INTER_LINEAR,
        borderMode=border_of(layer, effect),
    )
    return replace(grown, pixels=np.minimum(pixels, pixels[..., 3:]))


def shaken_by(layer: Layer, effect: Shake, tick: int) -> tuple[Matrix, float]:
    """How the picture's pixels move at a tick, and how far at most."""
    at = run_by(effect.rate, effect.since, tick)
    across, down, turn = (wave(at, effect.seed + 1000 * axis) for axis in range(3))
    far = length_of(effect.strength, layer)
    height, width = layer.pixels.shape[:2]
    degrees = bounded(effect.turn, -180.0, 180.0) * turn
    matrix = (
        moved(width / 2 + far * across, height / 2 + far * down)
        @ turned(degrees)
        @ moved(-width / 2, -height / 2)
    )
    went = float(np.abs((matrix @ layer.corners - layer.corners)[:2]).max())
    return np.asarray(matrix), went

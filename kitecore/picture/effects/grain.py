from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.grain import Grain
from kitecore.motion.noise import generator
from kitecore.motion.plain import number
from kitecore.picture.effects._base import effect_drawings, length_of
from kitecore.picture.layer import Layer
from kitecore.ticks import TICKS_PER_SECOND

_STEP = TICKS_PER_SECOND // 1000
"""Two moments at least so far apart have different grain."""


@effect_drawings.register("grain")
def grain(layer: Layer, effect: Grain, tick: int) -> Layer:
    """Gaussian noise, strongest in the middle tones, on a grid of grains: alike at every size."""
    amount = min(number(effect.amount), 1000) / 100
    if amount < 0.002:
        return layer
    height, width = layer.pixels.shape[:2]
    size = max(length_of(effect.size, layer), 0.5 * layer.density)
    columns, rows = max(1, round(width / size)), max(1, round(height / size))
    chance = generator(effect.seed, (tick - effect.since) // _STEP)
    channels = 3 if effect.coloured else 1
    noise = chance.standard_normal((rows, columns, channels), np.float32)
    noise = np.atleast_3d(cv2.resize(noise, (width, height), interpolation=cv2.INTER_LINEAR))
    rgb = layer.pixels[..., :3].astype(np.float32)
    alpha = layer.pixels[..., 3:].astype(np.float32)
    level = rgb.mean(axis=2, keepdims=True) / np.maximum(alpha, 1)
    rgb += noise * (alpha * np.float32(amount)) * (np.sqrt(level * (1 - level).clip(0)) * 2)
    pixels = layer.pixels.copy()
    pixels[..., :3] = np.clip(np.rint(rgb), 0, alpha)
    return replace(layer, pixels=pixels)

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numba import njit

from kitecore.document.effects.sharpen import Sharpen
from kitecore.motion.plain import number
from kitecore.picture.effects._base import effect_drawings, effect_reaches, length_of
from kitecore.picture.layer import Layer, Rgba
from kitecore.picture.softening import MARGIN, softened

_MOST_RADIUS = 100


@effect_drawings.register("sharpen")
def sharpen(layer: Layer, effect: Sharpen, tick: int) -> Layer:
    """An unsharp mask: what differs from its surroundings by more than a step differs more."""
    amount = min(max(number(effect.amount), 0.0), 10_000.0) / 100
    sigma = max(0.0, length_of(effect.radius, layer, _MOST_RADIUS))
    if amount == 0 or sigma < 0.1:
        return layer
    around = softened(layer.pixels, sigma)
    step = min(max(number(effect.threshold), 0.0), 100.0) * 2.55
    return replace(layer, pixels=_standing_out(layer.pixels, around, amount, step))


@effect_reaches.register("sharpen")
def reach(layer: Layer, effect: Sharpen) -> float:
    return 3 * length_of(effect.radius, layer, _MOST_RADIUS) + MARGIN


@njit(cache=True, nogil=True)
def _standing_out(pixels: Rgba, around: Rgba, amount: float, step: float) -> Rgba:
    out = np.empty_like(pixels)
    gain, least = np.float32(amount), np.float32(step)
    for row in range(pixels.shape[0]):
        for column in range(pixels.shape[1]):
            alpha = np.float32(pixels[row, column, 3])
            out[row, column, 3] = pixels[row, column, 3]
            # Colours are compared as if both were as solid as the pixel itself.
            share = alpha / max(np.float32(around[row, column, 3]), np.float32(1))
            for channel in range(3):
                level = np.float32(pixels[row, column, channel])
                more = level - np.float32(around[row, column, channel]) * share
                over = max(abs(more) - least, np.float32(0)) * gain
                level += over if more > 0 else -over
                out[row, column, channel] = np.uint8(
                    min(max(level, np.float32(0)), alpha) + np.float32(0.5)
                )
    return out

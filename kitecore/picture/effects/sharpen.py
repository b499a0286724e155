from __future__ import annotations

from dataclasses import replace

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.document.effects.sharpen import Sharpen
from kitecore.picture.effects._base import bounded, effect_drawings, effect_reaches, length_of
from kitecore.picture.layer import Layer, Rgba
from kitecore.picture.softening import MARGIN, softened

_MOST_RADIUS = 100


@effect_drawings.register("sharpen")
def sharpen(layer: Layer, effect: Sharpen, tick: int) -> Layer:
    """An unsharp mask: what differs from its surroundings by more than a step differs more."""
    amount = bounded(effect.amount, 0.0, 10_000.0) / 100
    sigma = max(0.0, length_of(effect.radius, layer, _MOST_RADIUS))
    if amount == 0 or sigma < 0.1:
        return layer
    around = softened(layer.pixels, sigma)
    step = bounded(effect.threshold, 0.0, 100.0) * 2.55
    return replace(layer, pixels=_standing_out(layer.pixels, around, _more(amount, step)))


@effect_reaches.register("sharpen")
def reach(layer: Layer, effect: Sharpen) -> float:
    return 3 * length_of(effect.radius, layer, _MOST_RADIUS) + MARGIN


def _more(amount: float, step: float) -> NDArray[np.int32]:
    """What is added for each difference from -255 to 255, in 256ths."""
    apart = np.arange(-255, 256)
    over = np.maximum(np.abs(apart) - step, 0) * np.sign(apart)
    return np.rint(over * amount * 256).astype(np.int32)


@njit(cache=True, nogil=True)
def _standing_out(pixels: Rgba, around: Rgba, more: NDArray[np.int32]) -> Rgba:
    out = np.empty_like(pixels)
    for row in range(pixels.shape[0]):
        for column in range(pixels.shape[1]):
            alpha = int(pixels[row, column, 3])
            beside = int(around[row, column, 3])
            out[row, column, 3] = alpha
            for channel in range(3):
                level = int(pixels[row, column, channel])
                near = int(around[row, column, channel])
                if beside != alpha:
                    # Colours are compared as if both were as solid as the pixel itself.
                    near = min((near * alpha + beside // 2) // max(beside, 1), 255)
                level += (int(more[level - near + 255]) + 128) >> 8
                out[row, column, channel] = min(max(level, 0), alpha)
    return out

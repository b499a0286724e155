from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

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
    drawn = np.asarray(cv2.resize(noise, (width, height), interpolation=cv2.INTER_LINEAR))
    pixels = np.empty_like(layer.pixels)
    given = np.ascontiguousarray(layer.pixels).reshape(-1)
    _lay(given, drawn.reshape(height * width, channels), np.float32(amount), pixels.reshape(-1))
    return replace(layer, pixels=pixels)


@njit(cache=True, nogil=True, error_model="numpy", fastmath={"nnan", "nsz", "contract"})
def _lay(
    pixels: NDArray[np.uint8],
    noise: NDArray[np.float32],
    amount: np.float32,
    out: NDArray[np.uint8],
) -> None:
    zero, one, half, third = np.float32(0), np.float32(1), np.float32(0.5), np.float32(1 / 3)
    last = noise.shape[1] - 1
    for k in range(len(noise)):
        at = 4 * k
        alpha = np.float32(pixels[at + 3])
        red, green, blue = (
            np.float32(pixels[at]),
            np.float32(pixels[at + 1]),
            np.float32(pixels[at + 2]),
        )
        level = (red + green + blue) * third / max(alpha, one)
        share = alpha * amount * np.float32(2) * np.sqrt(max(level * (one - level), zero))
        red += noise[k, 0] * share
        green += noise[k, min(1, last)] * share
        blue += noise[k, last] * share
        out[at] = np.uint8(np.int32(min(max(red + half, zero), alpha)))
        out[at + 1] = np.uint8(np.int32(min(max(green + half, zero), alpha)))
        out[at + 2] = np.uint8(np.int32(min(max(blue + half, zero), alpha)))
        out[at + 3] = pixels[at + 3]

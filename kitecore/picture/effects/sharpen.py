from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.bt709 import KB, KG, KR
from kitecore.document.effects.sharpen import Sharpen
from kitecore.picture.effects._base import bounded, effect_drawings, effect_reaches, length_of
from kitecore.picture.layer import Layer, packed
from kitecore.picture.mixing import luma_of
from kitecore.picture.softening import MARGIN, softened

_MOST_RADIUS = 100


@effect_drawings.register("sharpen")
def sharpen(layer: Layer, effect: Sharpen, tick: int) -> Layer:
    """An unsharp mask by luma: what is lighter or darker than its surroundings by more than a step
    becomes more so, in its own hue. Colours that differ alone get no rims.
    """
    amount = bounded(effect.amount, 0.0, 10_000.0) / 100
    sigma = max(0.0, length_of(effect.radius, layer, _MOST_RADIUS))
    if amount == 0 or sigma < 0.1:
        return layer
    step = bounded(effect.threshold, 0.0, 100.0) * 2.55
    pixels = np.ascontiguousarray(layer.pixels)
    alpha = cv2.extractChannel(pixels, 3)
    out, level = np.empty_like(pixels), (np.float32(amount), np.float32(step))
    solid = alpha if int(alpha.min()) == 255 else softened(alpha, sigma)
    _stand_out(packed(pixels), softened(luma_of(pixels), sigma), solid, level, packed(out))
    return replace(layer, pixels=out)


@effect_reaches.register("sharpen")
def reach(layer: Layer, effect: Sharpen) -> float:
    return 3 * length_of(effect.radius, layer, _MOST_RADIUS) + MARGIN


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _stand_out(
    pixels: NDArray[np.uint32],
    around: Coverage,
    solid: Coverage,
    level: tuple[np.float32, np.float32],
    out: NDArray[np.uint32],
) -> None:
    """``around`` and ``solid``: luma and alpha, softened."""
    amount, step = level
    byte, one, two, high = np.uint32(255), np.uint32(8), np.uint32(16), np.uint32(24)
    red, green, blue = np.float32(KR), np.float32(KG), np.float32(KB)
    none, half = np.float32(0), np.float32(0.5)
    rows, columns = pixels.shape
    near = np.empty(columns, np.float32)
    for y in range(rows):
        line, made, light, cover = pixels[y, :], out[y, :], around[y, :], solid[y, :]
        for x in range(columns):
            near[x] = np.float32(light[x]) / np.float32(max(cover[x], np.uint8(1)))
        for x in range(columns):
            word = line[x]
            r, g = np.int32(word & byte), np.int32((word >> one) & byte)
            b, a = np.int32((word >> two) & byte), np.int32(word >> high)
            # Surroundings count as if they were as solid as the pixel itself.
            off = np.float32(r) * red + np.float32(g) * green + np.float32(b) * blue
            off -= near[x] * np.float32(a)
            more = max(abs(off) - step, none) * amount
            by = np.int32(np.floor((more if off > none else -more) + half))
            low = np.uint32(_within(r, by, a) | np.uint32(_within(g, by, a) << one))
            made[x] = np.uint32(low | np.uint32(_within(b, by, a) << two) | np.uint32(a << high))


@njit(inline="always")
def _within(level, by, most):  # type: ignore[no-untyped-def]
    return np.uint32(min(max(np.int32(level + by), np.int32(0)), most))

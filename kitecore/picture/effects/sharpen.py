from __future__ import annotations

from dataclasses import replace

import numpy as np
from numba import njit

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
    pixels = np.ascontiguousarray(layer.pixels)
    return replace(
        layer, pixels=_standing_out(pixels, around, np.float32(amount), np.float32(step))
    )


@effect_reaches.register("sharpen")
def reach(layer: Layer, effect: Sharpen) -> float:
    return 3 * length_of(effect.radius, layer, _MOST_RADIUS) + MARGIN


@njit(cache=True, nogil=True, fastmath=True)
def _standing_out(pixels: Rgba, around: Rgba, amount: np.float32, step: np.float32) -> Rgba:
    """What differs by more than a step is set apart by so many times what is more."""
    out = np.empty_like(pixels)
    rows, columns, channels = pixels.shape
    levels, means = np.empty(4 * columns, np.float32), np.empty(4 * columns, np.float32)
    found = np.empty(4 * columns, np.int32)
    for row in range(rows):
        own, beside = pixels[row].reshape(-1), around[row].reshape(-1)
        made = out[row].reshape(-1)
        if _opaque(own) and _opaque(beside):
            # Alpha is the same in both, so it stays: all of them alike, many at a time.
            for at in range(len(own)):
                levels[at], means[at] = np.float32(own[at]), np.float32(beside[at])
            for at in range(len(own)):
                found[at] = _apart(levels[at], means[at], amount, step)
            for at in range(len(own)):
                made[at] = found[at]
            continue
        for column in range(columns):
            alpha, solid = int(pixels[row, column, 3]), int(around[row, column, 3])
            out[row, column, 3] = alpha
            for channel in range(channels - 1):
                near = int(around[row, column, channel])
                if solid != alpha:
                    # Colours are compared as if both were as solid as the pixel itself.
                    near = min((near * alpha + solid // 2) // max(solid, 1), 255)
                level = np.float32(pixels[row, column, channel])
                apart = _apart(level, np.float32(near), amount, step)
                out[row, column, channel] = min(int(apart), alpha)
    return out


@njit(inline="always")
def _opaque(row):  # type: ignore[no-untyped-def]
    least = np.uint8(255)
    for pixel in range(len(row) // 4):
        least &= row[4 * pixel + 3]
    return least == 255


@njit(inline="always")
def _apart(level, near, amount, step):  # type: ignore[no-untyped-def]
    off = level - near
    more = max(abs(off) - step, np.float32(0)) * amount
    found = level + (more if off > 0 else -more) + np.float32(0.5)
    return np.int32(min(max(found, np.float32(0)), np.float32(255)))

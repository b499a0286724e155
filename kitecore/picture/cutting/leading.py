"""A matte found on a small picture, as that of a larger one, whose colours tell its fine edges.

K. He, J. Sun, "Fast Guided Filter", 2015, led by all three colours.
"""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba

Array = NDArray[Any]
Matte = NDArray[np.float32]

_RADIUS: Final = 2
"""Pixels of the small picture over which its alpha follows from its colours."""
_HARDLY: Final = 1.7
"""Up to so much larger a picture shows nothing finer."""
_EVEN: Final = 1e-4
_PAIRS: Final = ((0, 0), (0, 1), (0, 2), (1, 1), (1, 2), (2, 2))


def enlarged(alpha: Matte, small: NDArray[np.float32], picture: Rgba) -> Matte:
    """The alpha of a small picture as that of a larger one.

    Parameters
    ----------
    alpha
        0..1, shape (h, w).
    small
        Straight colours, 0..1, shape (h, w, 3).
    picture
        The larger, premultiplied, shape (height, width, 4).
    """
    height, width = picture.shape[:2]
    if height <= _HARDLY * alpha.shape[0]:
        return np.asarray(cv2.resize(alpha, (width, height), interpolation=cv2.INTER_LINEAR))
    out = np.empty((height, width), np.float32)
    _lead(_following(alpha, small), np.ascontiguousarray(picture), out)
    return out


def _following(alpha: Matte, small: NDArray[np.float32]) -> Matte:
    """How alpha follows from colours: three slopes, an offset, and alpha itself, shape (h, w, 5)."""
    side = (2 * _RADIUS + 1, 2 * _RADIUS + 1)

    def mean(one: Array) -> Array:
        return np.asarray(cv2.blur(one, side))

    middle, level = mean(small), mean(alpha)
    along = mean(small * alpha[..., None]) - middle * level[..., None]
    products = np.stack([small[..., a] * small[..., b] for a, b in _PAIRS], axis=2)
    spread = np.concatenate([mean(products[..., :3]), mean(products[..., 3:])], axis=2)
    found = np.empty((*alpha.shape, 4), np.float32)
    _solve(spread, middle, along, level, found)
    return np.concatenate([mean(found), alpha[..., None]], axis=2)


@njit(cache=True)
def _solve(spread: Array, middle: Array, along: Array, level: Array, out: Array) -> None:
    """Of each pixel a 3 × 3, alike about its diagonal, by its cofactors."""
    height, width = level.shape
    for y in range(height):
        for x in range(width):
            r, g, b = middle[y, x]
            rr = spread[y, x, 0] - r * r + _EVEN
            rg = spread[y, x, 1] - r * g
            rb = spread[y, x, 2] - r * b
            gg = spread[y, x, 3] - g * g + _EVEN
            gb = spread[y, x, 4] - g * b
            bb = spread[y, x, 5] - b * b + _EVEN
            i, j, k = gg * bb - gb * gb, gb * rb - rg * bb, rg * gb - gg * rb
            scale = 1 / (rr * i + rg * j + rb * k)
            p, q, s = along[y, x]
            slope_r = (i * p + j * q + k * s) * scale
            slope_g = (j * p + (rr * bb - rb * rb) * q + (rg * rb - rr * gb) * s) * scale
            slope_b = (k * p + (rg * rb - rr * gb) * q + (rr * gg - rg * rg) * s) * scale
            out[y, x, 0], out[y, x, 1], out[y, x, 2] = slope_r, slope_g, slope_b
            out[y, x, 3] = level[y, x] - slope_r * r - slope_g * g - slope_b * b


@njit(cache=True)
def _lead(found: Array, picture: Array, out: Array) -> None:
    height, width = out.shape
    rows, columns = found.shape[0], found.shape[1]
    down, across = np.float32(rows / height), np.float32(columns / width)
    half, one = np.float32(0.5), np.float32(1)
    for y in range(height):
        v = min(max((y + half) * down - half, np.float32(0)), np.float32(rows - 1))
        top = min(int(v), max(rows - 2, 0))
        low, fy = min(top + 1, rows - 1), np.float32(v - top)
        for x in range(width):
            u = min(max((x + half) * across - half, np.float32(0)), np.float32(columns - 1))
            left = min(int(u), max(columns - 2, 0))
            right, fx = min(left + 1, columns - 1), np.float32(u - left)
            a, b = (one - fy) * (one - fx), (one - fy) * fx
            c, d = fy * (one - fx), fy * fx
            plain = (
                a * found[top, left, 4]
                + b * found[top, right, 4]
                + c * found[low, left, 4]
                + d * found[low, right, 4]
            )
            # Where all around is in or out, nothing is in doubt.
            if plain <= 0 or plain >= one or picture[y, x, 3] == 0:
                out[y, x] = min(max(plain, np.float32(0)), one)
                continue
            total = np.float32(0)
            for channel in range(3):
                slope = (
                    a * found[top, left, channel]
                    + b * found[top, right, channel]
                    + c * found[low, left, channel]
                    + d * found[low, right, channel]
                )
                total += slope * picture[y, x, channel]
            offset = (
                a * found[top, left, 3]
                + b * found[top, right, 3]
                + c * found[low, left, 3]
                + d * found[low, right, 3]
            )
            total = total / picture[y, x, 3] + offset
            out[y, x] = min(max(total, np.float32(0)), one)


def laid(pixels: Rgba, alpha: Matte, change: Matte | None, clean: float) -> Rgba:
    """A picture with an alpha, its colours moved the more the clearer a pixel is.

    Parameters
    ----------
    pixels
        Premultiplied.
    alpha
        0..1, of the same size.
    change
        Of straight colours, in 0..1, of any smaller size.
    clean
        How far colours are moved, 0..1.
    """
    height, width = alpha.shape
    out = np.empty((height, width, 4), np.uint8)
    if change is None or not clean:
        _thin(np.ascontiguousarray(pixels), alpha, out)
        return out
    whole = np.asarray(cv2.resize(change, (width, height), interpolation=cv2.INTER_LINEAR))
    _clean(np.ascontiguousarray(pixels), alpha, whole, np.float32(clean), out)
    return out


@njit(cache=True)
def _thin(pixels: Array, alpha: Array, out: Array) -> None:
    height, width = alpha.shape
    for y in range(height):
        for x in range(width):
            for channel in range(4):
                out[y, x, channel] = pixels[y, x, channel] * alpha[y, x] + np.float32(0.5)


@njit(cache=True)
def _clean(pixels: Array, alpha: Array, change: Array, clean: Any, out: Array) -> None:
    height, width = alpha.shape
    for y in range(height):
        for x in range(width):
            share = alpha[y, x]
            whole = pixels[y, x, 3] * share
            move = clean * np.sqrt(1 - share) * whole
            for channel in range(3):
                level = pixels[y, x, channel] * share + change[y, x, channel] * move
                out[y, x, channel] = min(max(level, np.float32(0)), whole) + np.float32(0.5)
            out[y, x, 3] = whole + np.float32(0.5)

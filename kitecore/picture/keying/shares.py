"""How much of each pixel at an edge is foreground.

A pixel there is a mixture of the colours of foreground and screen that are nearest by, so its share
is had by projection on the line between them, luma included, whose edges are still sharp where
chroma has half the size (the nearest colours as in Y. Mishima, US patent 5 355 174, 1994). Where a
pixel does not lie on that line, such as hair before a face, chroma alone says how much of the
screen is in it, drawn along what luma does around it (K. He et al., "Guided image filtering",
ECCV 2010).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR
from kitecore.picture.keying.edges import Matte
from kitecore.picture.keying.regions import Regions
from kitecore.picture.keying.screen import SCREEN_BLOCK, STEPS, Light, Lit, distance, lit_at
from kitecore.picture.keying.spreading import BLOCK, at_pixel
from kitecore.picture.layer import Rgba, packed
from kitecore.picture.mixing import luma_of

Array = NDArray[Any]
Packed = NDArray[np.uint32]
Mask = NDArray[np.uint8]
Numbers = NDArray[np.int64]

_ON_LINE: Final = 0.03
_OFF_LINE: Final = 0.1
"""Distances from the line between two colours up to which it is believed, and from which not."""
_APART: Final = 0.002
"""Square of the distance between foreground and screen below which there is no line."""
_LEAST: Final = 0.4
"""Distance that a foreground has from the screen at least."""
_SIDE: Final = 5
"""Pixels across and down within which chroma follows luma."""
_STEADY: Final = 1e-4
"""Variance of luma below which it guides nothing."""


@dataclass(frozen=True)
class Shares:
    """0..255 for 0..1, of the picture's size. Of regions that are sure, all or nothing, no doubt.

    ``line``: by projection; ``doubt``: distance from the line; ``chroma``: by chroma alone.
    """

    line: Mask
    doubt: Mask
    chroma: Mask


def measured(
    pixels: Rgba, light: Light, regions: Regions, before: Array, screen: Array, weights: Array
) -> Shares:
    """Both shares of every pixel.

    ``before``, ``screen``: colours of the foreground and of the screen as ``gathered``.
    """
    sure = regions.sure
    shares = Shares(line=sure.copy(), doubt=np.zeros_like(sure), chroma=sure.copy())
    _measure(
        packed(pixels), light.known, (regions.open, regions.near, regions.top),
        before, screen, weights, (shares.line, shares.doubt, shares.chroma),
    )  # fmt: skip
    return shares


def drawn(
    shares: Shares,
    pixels: Rgba,
    regions: Regions,
    levels: tuple[float, float],
    response: NDArray[np.uint8],
) -> Matte:
    """0..255: the shares put together, stretched between two levels and bent by a table of 256."""
    low, high = levels
    steps = np.clip((np.arange(256) / 255 - low) / max(high - low, 1e-3), 0, 1)
    table = response[np.rint(steps * 255).astype(int)]
    matte = np.asarray(cv2.LUT(shares.line, table))
    three = shares.line, shares.doubt, shares.chroma
    _draw(three, luma_of(pixels), regions.open, table, matte)
    return matte


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _measure(
    pixels: Packed,
    light: Lit,
    regions: tuple[Numbers, Mask, Mask],
    before: Array,
    screen: Array,
    weights: Array,
    out: tuple[Mask, Mask, Mask],
) -> None:
    numbers, near, top = regions
    line, doubt, chroma = out
    width = pixels.shape[1]
    one, least = np.float32(1), np.float32(_LEAST)
    unit, byte, step = np.float32(1 / 255), np.uint32(255), np.float32(1 / STEPS)
    fine, coarse = np.float32(BLOCK), np.float32(SCREEN_BLOCK)
    known = before[0, 0, 3] > 0
    y, row = 0, 0
    for number in numbers:
        while number >= row + width:
            y, row = y + 1, row + width
        x = number - row
        word = pixels[y, x]
        c = (
            np.float32(word & byte) * unit,
            np.float32((word >> np.uint32(8)) & byte) * unit,
            np.float32((word >> np.uint32(16)) & byte) * unit,
        )
        solid, share, off = one, np.float32(0), one
        if known:
            f, b = at_pixel(before, fine, x, y), at_pixel(screen, coarse, x, y)
            share, off = _on_line(
                _ycc(c[0] - b[0], c[1] - b[1], c[2] - b[2]),
                _ycc(f[0] - b[0], f[1] - b[1], f[2] - b[2]),
            )
            solid = max(distance(f, weights, one), least)
        if near[y >> 1, x >> 1]:
            solid = max(min(solid, one), np.float32(top[y >> 1, x >> 1]) * step)
        line[y, x], doubt[y, x] = _byte(share), _byte(off)
        chroma[y, x] = _byte(distance(c, weights, lit_at(light, y, x)) / solid)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _draw(
    shares: tuple[Mask, Mask, Mask],
    luma: Mask,
    numbers: Numbers,
    table: NDArray[np.uint8],
    out: Matte,
) -> None:
    line, doubt, chroma = shares
    width = out.shape[1]
    zero, one, three = np.float32(0), np.float32(1), np.float32(3)
    span = np.float32(_OFF_LINE - _ON_LINE)
    y, row = 0, 0
    for number in numbers:
        while number >= row + width:
            y, row = y + 1, row + width
        x = number - row
        off = (_mean_around(doubt, x, y) - np.float32(_ON_LINE)) / span
        off = min(max(off, zero), one)
        wrong = off * off * (three - np.float32(2) * off)
        share = np.float32(line[y, x]) * np.float32(1 / 255)
        if wrong > zero:
            share += wrong * (_guided(chroma, luma, x, y) - share)
        out[y, x] = table[_byte(share)]


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _byte(share: np.float32) -> np.uint8:
    return np.uint8(
        min(max(share, np.float32(0)), np.float32(1)) * np.float32(255) + np.float32(0.5)
    )


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _ycc(r: np.float32, g: np.float32, b: np.float32) -> tuple[np.float32, np.float32, np.float32]:
    luma = np.float32(KR) * r + np.float32(KG) * g + np.float32(KB) * b
    return luma, (b - luma) / np.float32(CB_SPAN), (r - luma) / np.float32(CR_SPAN)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _on_line(
    at: tuple[np.float32, np.float32, np.float32], to: tuple[np.float32, np.float32, np.float32]
) -> tuple[np.float32, np.float32]:
    """Share 0..1 of the way to ``to`` at which ``at`` is nearest, and its distance from there."""
    square = to[0] * to[0] + to[1] * to[1] + to[2] * to[2]
    if square < np.float32(_APART):
        return np.float32(0), np.float32(1)
    share = (at[0] * to[0] + at[1] * to[1] + at[2] * to[2]) / square
    share = min(max(share, np.float32(0)), np.float32(1))
    y, b, r = at[0] - share * to[0], at[1] - share * to[1], at[2] - share * to[2]
    return share, np.sqrt(y * y + b * b + r * r)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _mean_around(values: Mask, x: int, y: int) -> np.float32:
    """0..1, of three by three pixels within the picture."""
    height, width = values.shape
    if height < 3 or width < 3:
        return np.float32(values[y, x]) * np.float32(1 / 255)
    left, top = min(max(x - 1, 0), width - 3), min(max(y - 1, 0), height - 3)
    total = 0
    for j in range(3):
        for i in range(3):
            total += values[top + j, left + i]
    return np.float32(total) * np.float32(1 / 2295)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _guided(values: Mask, luma: Mask, x: int, y: int) -> np.float32:
    """The value 0..1 at a pixel by the straight line that fits values to luma around it.

    As far as luma accounts for the values there; what it does not stays as it is.
    """
    height, width = values.shape
    if height < _SIDE or width < _SIDE:
        return np.float32(values[y, x]) * np.float32(1 / 255)
    left = min(max(x - _SIDE // 2, 0), width - _SIDE)
    top = min(max(y - _SIDE // 2, 0), height - _SIDE)
    g = q = gg = gq = qq = np.int32(0)
    for j in range(_SIDE):
        for i in range(_SIDE):
            light, value = np.int32(luma[top + j, left + i]), np.int32(values[top + j, left + i])
            g, q = g + light, q + value
            gg, gq, qq = gg + light * light, gq + light * value, qq + value * value
    count, most = np.float32(_SIDE * _SIDE), np.float32(255)
    mean, level = np.float32(g) / count, np.float32(q) / count
    across = np.float32(gq) / count - mean * level
    spread = np.float32(gg) / count - mean * mean + np.float32(_STEADY) * most * most
    varied = np.float32(qq) / count - level * level + np.float32(1)
    here = np.float32(values[y, x])
    fitted = level + across / spread * (np.float32(luma[y, x]) - mean)
    return np.float32((here + across * across / (spread * varied) * (fitted - here)) / most)

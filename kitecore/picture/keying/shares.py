"""How much of each pixel at an edge is foreground.

A pixel there is a mixture of the colours of foreground and screen that are nearest by, so its share
is had by projection on the line between them, luma included, whose edges are still sharp where
chroma has half the size (the nearest colours as in Y. Mishima, US patent 5 355 174, 1994). Where a
pixel does not lie on that line, such as hair before a face, chroma alone says how much of the
screen is in it, drawn along what luma does around it (K. He et al., "Guided image filtering",
ECCV 2010; by fours, as K. He and J. Sun, "Fast guided filter", 2015).

What is smooth (colours near by, light, how far away solid is, what luma accounts for) is told once
for four pixels.
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

Array = NDArray[Any]
Packed = NDArray[np.uint32]
Mask = NDArray[np.uint8]
Numbers = NDArray[np.int64]
Corner = tuple[int, int]

_ON_LINE: Final = 0.03
_OFF_LINE: Final = 0.1
"""Distances from the line between two colours up to which it is believed, and from which not."""
_APART: Final = 0.002
"""Square of the distance between foreground and screen below which there is no line."""
_LEAST: Final = 0.4
"""Distance that a foreground has from the screen at least."""
_SIDE: Final = 8
"""Pixels across and down, around four, within which chroma follows luma."""
_RED, _BLUE = np.uint32(round(256 * KR)), np.uint32(round(256 * KB))
_GREEN = np.uint32(256 - round(256 * KR) - round(256 * KB))
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
    pixels: Rgba,
    corner: Corner,
    light: Light,
    regions: Regions,
    before: Array,
    screen: Array,
    weights: Array,
) -> Shares:
    """Both shares of every pixel of the part of a picture that begins at ``corner``.

    ``regions`` and the colours of the foreground ``before`` and of the ``screen``, as ``gathered``,
    are of that part at half the size.
    """
    sure = _twice(regions.sure)
    shares = Shares(line=sure, doubt=np.zeros_like(sure), chroma=sure.copy())
    _measure(
        packed(pixels), corner, light.known, (regions.open, regions.near, regions.top),
        before, screen, weights, (shares.line, shares.doubt, shares.chroma),
    )  # fmt: skip
    return shares


def drawn(
    shares: Shares,
    pixels: Rgba,
    corner: Corner,
    regions: Regions,
    levels: tuple[float, float],
    response: NDArray[np.uint8],
) -> Matte:
    """0..255: the shares put together, stretched between two levels and bent by a table of 256.

    It takes the place of ``shares.line``.
    """
    low, high = levels
    steps = np.clip((np.arange(256) / 255 - low) / max(high - low, 1e-3), 0, 1)
    table = response[np.rint(steps * 255).astype(int)]
    matte, others = shares.line, (shares.doubt, shares.chroma)
    _draw(matte, others, packed(pixels), corner, regions.open)
    return np.asarray(cv2.LUT(matte, table, dst=matte))


def _twice(half: Mask) -> Mask:
    size = half.shape[1] * 2, half.shape[0] * 2
    return np.asarray(cv2.resize(half, size, interpolation=cv2.INTER_NEAREST))


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _measure(
    pixels: Packed,
    corner: Corner,
    light: Lit,
    regions: tuple[Numbers, Mask, Mask],
    before: Array,
    screen: Array,
    weights: Array,
    out: tuple[Mask, Mask, Mask],
) -> None:
    numbers, near, top = regions
    line, doubt, chroma = out
    width = near.shape[1]
    one, least, zero = np.float32(1), np.float32(_LEAST), np.float32(0)
    unit, byte, step = np.float32(1 / 255), np.uint32(255), np.float32(1 / STEPS)
    fine, coarse = np.float32(BLOCK), np.float32(SCREEN_BLOCK)
    known = before[0, 0, 3] > 0
    y, row = 0, 0
    for number in numbers:
        while number >= row + width:
            y, row = y + 1, row + width
        x = number - row
        b, to, solid = (zero, zero, zero), (zero, zero, zero), one
        if known:
            f, b = at_pixel(before, fine, x, y), at_pixel(screen, coarse, x, y)
            to = _ycc(f[0] - b[0], f[1] - b[1], f[2] - b[2])
            solid = max(distance(f, weights, one), least)
        if near[y, x]:
            solid = max(min(solid, one), np.float32(top[y, x]) * step)
        lit, part = lit_at(light, y, x), one / solid
        for j in range(2 * y, 2 * y + 2):
            for i in range(2 * x, 2 * x + 2):
                word = pixels[corner[0] + j, corner[1] + i]
                c = (
                    np.float32(word & byte) * unit,
                    np.float32((word >> np.uint32(8)) & byte) * unit,
                    np.float32((word >> np.uint32(16)) & byte) * unit,
                )
                share, off = _on_line(_ycc(c[0] - b[0], c[1] - b[1], c[2] - b[2]), to)
                line[j, i], doubt[j, i] = _byte(share), _byte(off)
                chroma[j, i] = _byte(distance(c, weights, lit) * part)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _draw(
    line: Mask, others: tuple[Mask, Mask], pixels: Packed, corner: Corner, numbers: Numbers
) -> None:
    doubt, chroma = others
    width = line.shape[1] // 2
    zero, unit = np.float32(0), np.float32(1 / 255)
    around = np.empty(_SIDE**2, np.int32), np.empty(_SIDE**2, np.int32)
    y, row = 0, 0
    for number in numbers:
        while number >= row + width:
            y, row = y + 1, row + width
        x = number - row
        fit, fitted = (zero, zero, zero), False
        for j in range(2 * y, 2 * y + 2):
            for i in range(2 * x, 2 * x + 2):
                share = np.float32(line[j, i]) * unit
                wrong = _wrong(_mean_around(doubt, i, j))
                if wrong > zero:
                    if not fitted:
                        fit, fitted = _fit(chroma, pixels, corner, (2 * x, 2 * y), around), True
                    alone = np.float32(chroma[j, i])
                    luma = np.float32(_luma(pixels[corner[0] + j, corner[1] + i]))
                    alone += fit[2] * (fit[0] + fit[1] * luma - alone)
                    share += wrong * (alone * unit - share)
                line[j, i] = _byte(share)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _wrong(off: np.float32) -> np.float32:
    """How little the line is believed, 0..1, by the distance from it."""
    far = (off - np.float32(_ON_LINE)) / np.float32(_OFF_LINE - _ON_LINE)
    far = min(max(far, np.float32(0)), np.float32(1))
    return far * far * (np.float32(3) - np.float32(2) * far)


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


@njit(inline="always")
def _luma(word):  # type: ignore[no-untyped-def]
    """0..255, by weights of 256."""
    byte = np.uint32(255)
    red, green, blue = word & byte, (word >> np.uint32(8)) & byte, (word >> np.uint32(16)) & byte
    return (red * _RED + green * _GREEN + blue * _BLUE) >> np.uint32(8)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _fit(
    values: Mask,
    pixels: Packed,
    corner: Corner,
    place: tuple[int, int],
    around: tuple[Array, Array],
) -> tuple[np.float32, np.float32, np.float32]:
    """The straight line that fits values to luma around four pixels, the first of them at ``place``.

    Where it begins, its slope, and the share of what the values do there that luma accounts for.
    ``around``: room for both.
    """
    height, width = values.shape
    if height < _SIDE or width < _SIDE:
        return np.float32(0), np.float32(0), np.float32(0)
    x = np.uint64(min(max(place[0] + 1 - _SIDE // 2, 0), width - _SIDE))
    y = np.uint64(min(max(place[1] + 1 - _SIDE // 2, 0), height - _SIDE))
    light, value = around
    for j in range(_SIDE):
        there = values[y + np.uint64(j), :]
        words = pixels[np.uint64(corner[0]) + y + np.uint64(j), :]
        left = np.uint64(corner[1]) + x
        for i in range(_SIDE):
            light[_SIDE * j + i] = np.int32(_luma(words[left + np.uint64(i)]))
        for i in range(_SIDE):
            value[_SIDE * j + i] = np.int32(there[x + np.uint64(i)])
    g = q = gg = gq = qq = np.int32(0)
    for k in range(_SIDE**2):
        a, b = light[k], value[k]
        g, q = np.int32(g + a), np.int32(q + b)
        gg, gq, qq = np.int32(gg + a * a), np.int32(gq + a * b), np.int32(qq + b * b)
    count, most = np.float32(_SIDE**2), np.float32(255)
    mean, level = np.float32(g) / count, np.float32(q) / count
    across = np.float32(gq) / count - mean * level
    spread = np.float32(gg) / count - mean * mean + np.float32(_STEADY) * most * most
    varied = np.float32(qq) / count - level * level + np.float32(1)
    slope = across / spread
    return level - slope * mean, slope, across * slope / varied

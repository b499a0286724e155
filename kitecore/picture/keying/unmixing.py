"""The colour of the foreground alone, once its share is known.

A pixel is C = F + (1 - a)·K, with the premultiplied foreground F, its share a and the screen's
colour K as it is lit there: so F is had by taking the rest away, and no rim is left. What of the
screen's light lies on the foreground itself (spill) is limited likewise (P. Vlahos, "Comprehensive
electronic compositing system", US patent 4 344 085, 1982).
"""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.document.keying import ChromaKey
from kitecore.motion.plain import number
from kitecore.picture.keying.edges import Matte
from kitecore.picture.keying.screen import (
    OWN_HUE,
    SCREEN_BLOCK,
    direction_of,
    weights_of,
)
from kitecore.picture.layer import Rgba, packed

Array = NDArray[Any]
Packed = NDArray[np.uint32]
Mask = NDArray[np.uint8]

_PIECE: Final = 32
"""Pixels of a row that are left out together where there is nothing."""
SPILL_FREE: Final = 0.3
"""How much of its deviation a sure colour may have of the screen's; at edges it may have none."""


def unmixed(
    pixels: Rgba, corner: tuple[int, int], matte: Matte, sure: Mask, screen: Array, key: ChromaKey
) -> Rgba:
    """What a matte leaves of the part of a picture that begins at ``corner``, without the screen.

    ``sure`` and the colours of the ``screen``, as ``gathered``, are of that part at half the size.
    Sure foreground with a hue of its own keeps its colour.
    """
    out = np.zeros(pixels.shape, np.uint8)
    spill = np.float32(min(max(number(key.spill), 0.0), 1.0))
    _unmix(packed(pixels), corner, matte, sure, screen, _spill_of(key), spill, packed(out))
    return out


def _spill_of(key: ChromaKey) -> tuple[np.float32, ...]:
    """Weights along the screen's direction, and aside from it; what of its light is no luma."""
    along, aside = weights_of(key)
    direction = direction_of(key)
    return (*along, *aside, *(direction[3:6] - direction[6]))


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _unmix(
    pixels: Packed,
    corner: tuple[int, int],
    matte: Matte,
    sure: Mask,
    screen: Array,
    spilt: tuple[np.float32, ...],
    spill: np.float32,
    out: Packed,
) -> None:
    height, width = matte.shape
    byte, full = np.uint32(255), np.float32(255)
    # Widened first: what is narrower than the rest would keep the compiler from doing many at a time.
    share, trusted = np.empty(width, np.float32), np.empty(width, np.float32)
    red, green, blue = (
        np.zeros(width, np.float32),
        np.zeros(width, np.float32),
        np.zeros(width, np.float32),
    )
    near = np.empty((screen.shape[1], 3), np.float32)
    filled, mixed = np.empty(-(-width // _PIECE), np.uint8), np.empty(-(-width // _PIECE), np.uint8)
    for y in range(height):
        _look_over(matte[y, :], filled, mixed)
        if mixed.any():
            _between_rows(screen, y, near)
        first, last = 0, 0
        while True:
            first, last = _run(filled, last)
            if first == last:
                break
            for piece in range(first, last):
                if mixed[piece]:
                    _fill(
                        near, piece * _PIECE, min((piece + 1) * _PIECE, width), (red, green, blue)
                    )
            begin, end = first * _PIECE, min(last * _PIECE, width)
            levels, known = matte[y, begin:end], sure[y // 2, begin // 2 : end // 2]
            for x in range(len(levels)):
                share[x] = np.float32(levels[x])
            for x in range(len(known)):
                trusted[2 * x] = trusted[2 * x + 1] = np.float32(known[x] != 0)
            source = pixels[corner[0] + y, corner[1] + begin : corner[1] + end]
            left = out[corner[0] + y, corner[1] + begin : corner[1] + end]
            r, g, b = red[begin:end], green[begin:end], blue[begin:end]
            for x in range(len(levels)):
                word, rest = source[x], full - share[x]
                rgb = (
                    np.float32(np.int32(word & byte)) - rest * r[x],
                    np.float32(np.int32((word >> np.uint32(8)) & byte)) - rest * g[x],
                    np.float32(np.int32((word >> np.uint32(16)) & byte)) - rest * b[x],
                )
                most = share[x] * np.float32(np.int32(word >> np.uint32(24))) / full
                left[x] = _without_spill(rgb, most, trusted[x], spill, spilt)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _between_rows(screen: Array, y: int, out: Array) -> None:
    """The screen's colours in a row of pixels, from above and below."""
    half, most = np.float32(0.5), screen.shape[0] - 1
    v = (np.float32(y) + half) / np.float32(2 * SCREEN_BLOCK) - half
    v = min(max(v, np.float32(0)), np.float32(most))
    j = int(v)
    upper, lower, part = screen[j], screen[min(j + 1, most)], v - np.float32(j)
    for i in range(len(out)):
        for c in range(3):
            out[i, c] = upper[i, c] + (lower[i, c] - upper[i, c]) * part


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _fill(near: Array, begin: int, end: int, behind: tuple[Array, Array, Array]) -> None:
    """A part of a row between its colours from left and right."""
    red, green, blue = behind
    half, most = np.float32(0.5), len(near) - 1
    for x in range(begin, end):
        u = (np.float32(x) + half) / np.float32(2 * SCREEN_BLOCK) - half
        u = min(max(u, np.float32(0)), np.float32(most))
        i = np.uint64(u)
        k, part = min(i + np.uint64(1), np.uint64(most)), u - np.float32(i)
        red[x] = near[i, 0] + (near[k, 0] - near[i, 0]) * part
        green[x] = near[i, 1] + (near[k, 1] - near[i, 1]) * part
        blue[x] = near[i, 2] + (near[k, 2] - near[i, 2]) * part


@njit(inline="always")
def _look_over(levels, filled, mixed):  # type: ignore[no-untyped-def]
    """Of each piece of a row whether anything is there, and whether something is partly so."""
    one, rest = np.uint8(1), np.uint8(254)
    for piece in range(len(filled)):
        part = levels[piece * _PIECE : min((piece + 1) * _PIECE, len(levels))]
        some = partly = np.uint8(0)
        for x in range(len(part)):
            some = np.uint8(some | part[x])
            partly = np.uint8(partly | (np.uint8(part[x] + one) & rest))
        filled[piece], mixed[piece] = some, partly


@njit(inline="always")
def _run(filled, begin):  # type: ignore[no-untyped-def]
    """The next pieces in a row that hold something, from ``begin`` on: first, and behind the last."""
    while begin < len(filled) and not filled[begin]:
        begin += 1
    end = begin
    while end < len(filled) and filled[end]:
        end += 1
    return begin, end


@njit(inline="always")
def _without_spill(rgb, most, trust, spill, spilt):  # type: ignore[no-untyped-def]
    """A premultiplied colour of which ``most`` is there, packed, the screen's light taken off it.

    ``trust``: 1 where it is surely foreground, which may have a hue of its own.
    """
    a0, a1, a2, b0, b1, b2, c0, c1, c2 = spilt
    zero, one, two = np.float32(0), np.float32(1), np.float32(2)
    r, g, b = (
        min(max(rgb[0], zero), most),
        min(max(rgb[1], zero), most),
        min(max(rgb[2], zero), most),
    )
    along = r * a0 + g * a1 + b * a2
    aside = abs(r * b0 + g * b1 + b * b2)
    own = aside / max(along * np.float32(OWN_HUE), np.float32(1e-6))
    less = min(max(two - two * own, zero), one)
    over = (along - trust * np.float32(SPILL_FREE) * aside) * spill
    over = max(over * (one + trust * (less - one)), zero)
    half = np.float32(0.5)
    r = min(max(r - over * c0, zero), most) + half
    g = min(max(g - over * c1, zero), most) + half
    b = min(max(b - over * c2, zero), most) + half
    low = np.uint32(np.int32(r)) | np.uint32(np.uint32(np.int32(g)) << np.uint32(8))
    high = np.uint32(np.uint32(np.int32(b)) << np.uint32(16))
    alpha = np.uint32(np.uint32(np.int32(most + half)) << np.uint32(24))
    return np.uint32(low | high | alpha)

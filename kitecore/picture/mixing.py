"""One picture over another where a mask lets it through."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba, packed


def luma_of(picture: Rgba) -> NDArray[np.uint8]:
    """BT.709 luma of premultiplied pixels, 0..255: of what is clear, 0."""
    out = np.empty(picture.shape[:2], np.uint8)
    _luma(packed(picture), out)
    return out


@njit(cache=True, nogil=True)
def _luma(picture: NDArray[np.uint32], out: NDArray[np.uint8]) -> None:
    byte, one, two = np.uint32(255), np.uint32(8), np.uint32(16)
    rows, columns = picture.shape
    for y in range(rows):
        for x in range(columns):
            p = picture[y, x]
            weighted = (p & byte) * np.uint32(13933) + np.uint32(32768)
            weighted += ((p >> one) & byte) * np.uint32(46871)
            weighted += ((p >> two) & byte) * np.uint32(4732)
            out[y, x] = np.uint8(weighted >> two)


def mixed_by(below: Rgba, above: Rgba, mask: NDArray[np.uint8]) -> Rgba:
    """``below`` where the mask is 0, ``above`` where it is 255; a new picture."""
    out = below.copy()
    mix_in(out, above, mask)
    return out


def mix_in(
    canvas: Rgba, above: Rgba, mask: NDArray[np.uint8], corner: tuple[int, int] = (0, 0)
) -> None:
    """The same in place, from the pixel ``corner`` (across, down) of the canvas on.

    ``above`` and ``mask`` have one size, and do not reach beyond the canvas.
    """
    _mix_in(packed(canvas), packed(np.ascontiguousarray(above)), mask, *corner)


@njit(cache=True, nogil=True)
def _mix_in(
    canvas: NDArray[np.uint32],
    above: NDArray[np.uint32],
    mask: NDArray[np.uint8],
    left: int,
    top: int,
) -> None:
    low, half, eight = np.uint32(0x00FF00FF), np.uint32(0x00800080), np.uint32(8)
    rows, columns = mask.shape
    for y in range(rows):
        line, own, shares = canvas[top + y, left : left + columns], above[y, :], mask[y, :]
        for x in range(columns):
            share = np.uint32(shares[x])
            rest = np.uint32(255) - share
            p, q = line[x], own[x]
            even = (p & low) * rest + (q & low) * share + half
            odd = ((p >> eight) & low) * rest + ((q >> eight) & low) * share + half
            even = ((even + ((even >> eight) & low)) >> eight) & low
            odd = (odd + ((odd >> eight) & low)) & ~low
            line[x] = np.uint32(even | odd)


def masked(pixels: Rgba, mask: NDArray[np.uint8]) -> Rgba:
    """Premultiplied pixels let through where the mask is; a new picture."""
    out = np.empty(pixels.shape, np.uint8)
    _masked(packed(pixels), mask, packed(out))
    return out


@njit(cache=True, nogil=True)
def _masked(pixels: NDArray[np.uint32], mask: NDArray[np.uint8], out: NDArray[np.uint32]) -> None:
    low, half, eight = np.uint32(0x00FF00FF), np.uint32(0x00800080), np.uint32(8)
    rows, columns = pixels.shape
    for y in range(rows):
        for x in range(columns):
            share, word = np.uint32(mask[y, x]), pixels[y, x]
            even = (word & low) * share + half
            odd = ((word >> eight) & low) * share + half
            even = ((even + ((even >> eight) & low)) >> eight) & low
            odd = (odd + ((odd >> eight) & low)) & ~low
            out[y, x] = np.uint32(even | odd)


def lay_over_deep(picture: NDArray[np.uint16], over: Rgba) -> None:
    """Premultiplied RGBA of 8 bits over RGB of 16, in place."""
    _lay_over_deep(picture, over)


@njit(cache=True, nogil=True)
def _lay_over_deep(picture: NDArray[np.uint16], over: NDArray[np.uint8]) -> None:
    height, width, _ = picture.shape
    for y in range(height):
        for x in range(width):
            rest = 255 - np.int64(over[y, x, 3])
            if rest == 255:
                continue
            for k in range(3):
                below = (np.int64(picture[y, x, k]) * rest + 127) // 255
                picture[y, x, k] = min(int(below) + int(over[y, x, k]) * 257, 65535)


@njit(cache=True, nogil=True)
def add_levels(total: NDArray[np.uint16], picture: NDArray[np.uint8]) -> None:
    """Add the first channels of RGBA to sums of 16 bits, shape (height, width, channels), in place."""
    rows, columns, channels = total.shape
    for y in range(rows):
        for x in range(columns):
            for k in range(channels):
                total[y, x, k] += picture[y, x, k]


@njit(cache=True, nogil=True)
def widen_mean(total: NDArray[np.uint16], count: int) -> None:
    """Sums of ``count`` levels of 8 bits, at most 255 of them, to their mean in 16 bits, in place."""
    rows, columns, channels = total.shape
    half = np.uint32(count // 2)
    for y in range(rows):
        for x in range(columns):
            for k in range(channels):
                wide = np.uint32(total[y, x, k]) * np.uint32(257) + half
                total[y, x, k] = np.uint16(wide // np.uint32(count))

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import packed
from kitecore.registry import Registry

Rgba = NDArray[np.uint8]
Packed = NDArray[np.uint32]
Draw = Callable[[Rgba, Rgba, int], None]
Channel = NDArray[Any]
Formula = Callable[[Channel, Channel], Channel]

blends: Registry[Draw] = Registry("blend mode")


def separable(formula: Formula) -> Draw:
    """A blend mode from its formula for one channel, ``B(Cb, Cs)`` of the W3C document.

    ``formula(below, above)`` takes arrays of straight colours 0..1. It is tabled once for all pairs
    of bytes; alpha goes source-over.
    """

    @cache
    def table() -> NDArray[np.uint8]:
        values = np.arange(256) / 255
        with np.errstate(divide="ignore", invalid="ignore"):
            mixed = formula(values[:, None], values[None, :])
        return np.asarray(np.rint(np.clip(mixed, 0, 1) * 255), np.uint8).ravel()

    def draw(below: Rgba, above: Rgba, level: int) -> None:
        _by_table(packed(below), packed(above), np.uint32(level), table(), _RECIPROCALS)

    return draw


@njit(cache=True, nogil=True, inline="always")
def over_255(x: np.uint32) -> np.uint32:
    """``x / 255`` rounded, exact for all products of two bytes."""
    y = np.uint32(x + np.uint32(128))
    return np.uint32((y + (y >> np.uint32(8))) >> np.uint32(8))


_RECIPROCALS = np.array([0, *(round(255 * 65536 / alpha) for alpha in range(1, 256))], np.uint32)
"""255 / alpha in 16.16, so that straight colours need no division."""


@njit(cache=True, nogil=True, inline="always")
def _straight(value: np.uint32, reciprocal: np.uint32) -> np.uint32:
    return np.uint32(min(np.uint32(255), (value * reciprocal + np.uint32(32768)) >> np.uint32(16)))


@njit(cache=True, nogil=True, inline="always")
def _channel(
    s: np.uint32,
    d: np.uint32,
    parts: tuple[np.uint32, np.uint32, np.uint32],
    turns: tuple[np.uint32, np.uint32],
    table: NDArray[np.uint8],
) -> np.uint32:
    """αs(1 - αb)Cs + αsαb B(Cb, Cs) + (1 - αs)αb Cb, the three shares given as 0..255²."""
    row, column = _straight(d, turns[1]), _straight(s, turns[0])
    mixed = np.uint32(table[np.uint64(np.uint32(row << np.uint32(8)) | column)])
    own, both, rest = parts
    return np.uint32((column * own + mixed * both + row * rest + np.uint32(32512)) // 65025)


@njit(cache=True, nogil=True)
def _by_table(
    below: Packed,
    above: Packed,
    level: np.uint32,
    table: NDArray[np.uint8],
    reciprocals: NDArray[np.uint32],
) -> None:
    byte, one, two, high = np.uint32(255), np.uint32(8), np.uint32(16), np.uint32(24)
    rows, columns = below.shape
    for y in range(rows):
        for x in range(columns):
            p = above[y, x]
            if p == np.uint32(0):
                continue
            q = below[y, x]
            sa, da = np.uint32(p >> high), np.uint32(q >> high)
            share = over_255(np.uint32(sa * level))
            rest = np.uint32(byte - share)
            sr, sg, sb = p & byte, np.uint32(p >> one) & byte, np.uint32(p >> two) & byte
            dr, dg, db = q & byte, np.uint32(q >> one) & byte, np.uint32(q >> two) & byte
            if da == byte:
                if sa != byte:
                    turn = reciprocals[np.uint64(sa)]
                    sr, sg, sb = _straight(sr, turn), _straight(sg, turn), _straight(sb, turn)
                r = np.uint32(table[np.uint64(np.uint32(dr << one) | sr)])
                g = np.uint32(table[np.uint64(np.uint32(dg << one) | sg)])
                b = np.uint32(table[np.uint64(np.uint32(db << one) | sb)])
                if share != byte:
                    r = over_255(np.uint32(r * share + dr * rest))
                    g = over_255(np.uint32(g * share + dg * rest))
                    b = over_255(np.uint32(b * share + db * rest))
                out = byte
            else:
                out = np.uint32(share + over_255(np.uint32(da * rest)))
                parts = (
                    np.uint32(share * (byte - da)),
                    np.uint32(share * da),
                    np.uint32(rest * da),
                )
                turns = (reciprocals[np.uint64(sa)], reciprocals[np.uint64(da)])
                r = _channel(sr, dr, parts, turns, table)
                g = _channel(sg, dg, parts, turns, table)
                b = _channel(sb, db, parts, turns, table)
            low, mid = np.uint32(r | np.uint32(g << one)), np.uint32(b << two)
            below[y, x] = np.uint32(low | mid | np.uint32(out << high))

"""Holdouts: a layer that is not seen, but cuts a hole in what lies below."""

# mypy: disable-error-code="no-untyped-def"
from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Packed, over_255, pair_over_255, register


@njit(inline="always")
def _cut(below, above, left, top, level, hole):
    """``below`` keeps the share that ``hole``, 0..255 by a pixel of ``above``, leaves."""
    low, eight, byte = np.uint32(0x00FF00FF), np.uint32(8), np.uint32(255)
    rows, columns = above.shape
    for y in range(rows):
        line, own = below[top + y, left : left + columns], above[y, :]
        for x in range(columns):
            rest = np.uint32(byte - over_255(np.uint32(hole(own[x]) * level)))
            even = pair_over_255(np.uint32((line[x] & low) * rest))
            odd = pair_over_255(np.uint32(((line[x] >> eight) & low) * rest))
            line[x] = np.uint32(even | np.uint32(odd << eight))


@njit
def _alpha(p):
    return np.uint32(p >> np.uint32(24))


@njit
def _luma(p):
    """BT.709, of what is premultiplied."""
    byte = np.uint32(255)
    red, green = np.uint32(p & byte), np.uint32((p >> np.uint32(8)) & byte)
    blue = np.uint32((p >> np.uint32(16)) & byte)
    weighted = np.uint32(red * np.uint32(13933) + green * np.uint32(46871))
    weighted = np.uint32(weighted + blue * np.uint32(4732) + np.uint32(32768))
    return np.uint32(weighted >> np.uint32(16))


@njit
def _not_alpha(p):
    return np.uint32(np.uint32(255) - _alpha(p))


@njit
def _not_luma(p):
    return np.uint32(np.uint32(255) - _luma(p))


@njit(cache=True, nogil=True)
def by_alpha(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _cut(below, above, left, top, level, _alpha)


@njit(cache=True, nogil=True)
def by_alpha_inverted(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _cut(below, above, left, top, level, _not_alpha)


@njit(cache=True, nogil=True)
def by_luma(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _cut(below, above, left, top, level, _luma)


@njit(cache=True, nogil=True)
def by_luma_inverted(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _cut(below, above, left, top, level, _not_luma)


register("holdout_alpha", by_alpha)
register("holdout_alpha_inverted", by_alpha_inverted)
register("holdout_luma", by_luma)
register("holdout_luma_inverted", by_luma_inverted)

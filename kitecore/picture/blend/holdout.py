"""Holdouts: a layer that is not seen, but cuts a hole in what lies below."""

from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Draw, Packed, Rgba, blends, over_255
from kitecore.picture.layer import packed

_BY_ALPHA, _BY_LUMA = np.uint32(0), np.uint32(1)


@njit(cache=True, nogil=True)
def _cut(below: Packed, above: Packed, level: np.uint32, luma: np.uint32, flip: np.uint32) -> None:
    """``below`` keeps the share that the hole leaves. BT.709 luma of what is premultiplied."""
    byte, low, half = np.uint32(255), np.uint32(0x00FF00FF), np.uint32(0x00800080)
    eight = np.uint32(8)
    rows, columns = below.shape
    for y in range(rows):
        for x in range(columns):
            p = above[y, x]
            if luma:
                red, green = np.uint32(p & byte), np.uint32((p >> eight) & byte)
                blue = np.uint32((p >> np.uint32(16)) & byte)
                weighted = red * np.uint32(13933) + green * np.uint32(46871)
                weighted += blue * np.uint32(4732) + np.uint32(32768)
                hole = np.uint32(weighted >> np.uint32(16))
            else:
                hole = np.uint32(p >> np.uint32(24))
            if flip:
                hole = np.uint32(byte - hole)
            rest = np.uint32(byte - over_255(np.uint32(hole * level)))
            if rest == byte:
                continue
            ground = below[y, x]
            even = (ground & low) * rest + half
            odd = ((ground >> eight) & low) * rest + half
            even = ((even + ((even >> eight) & low)) >> eight) & low
            odd = (odd + ((odd >> eight) & low)) & ~low
            below[y, x] = np.uint32(even | odd)


def _holdout(luma: np.uint32, flip: bool) -> Draw:
    def draw(below: Rgba, above: Rgba, level: int) -> None:
        _cut(packed(below), packed(above), np.uint32(level), luma, np.uint32(flip))

    return draw


blends.register("holdout_alpha")(_holdout(_BY_ALPHA, flip=False))
blends.register("holdout_alpha_inverted")(_holdout(_BY_ALPHA, flip=True))
blends.register("holdout_luma")(_holdout(_BY_LUMA, flip=False))
blends.register("holdout_luma_inverted")(_holdout(_BY_LUMA, flip=True))

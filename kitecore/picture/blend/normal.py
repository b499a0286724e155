"""Source over: by far the most used, hence in integers on packed pixels."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.blend._base import Rgba, blends
from kitecore.picture.layer import packed

Packed = NDArray[np.uint32]


@njit(cache=True, nogil=True)
def _normal(below: Packed, above: Packed, level: np.uint32) -> None:
    """Two channels at a time: red and blue, then green and alpha, each in 16 bits of a word.

    ``x / 255`` is ``(x + 128 + (x + 128 >> 8)) >> 8``, exact for all products of two bytes.
    """
    low, half, eight = np.uint32(0x00FF00FF), np.uint32(0x00800080), np.uint32(8)
    rows, columns = below.shape
    for y in range(rows):
        for x in range(columns):
            source = above[y, x]
            if source == np.uint32(0):
                continue
            if level != np.uint32(255):
                even = (source & low) * level + half
                odd = ((source >> eight) & low) * level + half
                even = ((even + ((even >> eight) & low)) >> eight) & low
                odd = (odd + ((odd >> eight) & low)) & ~low
                source = np.uint32(even | odd)
            rest = np.uint32(255) - (source >> np.uint32(24))
            if rest == np.uint32(0):
                below[y, x] = source
                continue
            ground = below[y, x]
            even = (ground & low) * rest + half
            odd = ((ground >> eight) & low) * rest + half
            even = ((even + ((even >> eight) & low)) >> eight) & low
            odd = (odd + ((odd >> eight) & low)) & ~low
            below[y, x] = np.uint32(source + (even | odd))


@blends.register("normal")
def normal(below: Rgba, above: Rgba, level: int) -> None:
    _normal(packed(below), packed(above), np.uint32(level))

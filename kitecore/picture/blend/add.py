"""Light added to light: ``plus-lighter`` (W3C Compositing and Blending Level 1, section 9.1.14)."""

from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Packed, Rgba, blends
from kitecore.picture.layer import packed


@njit(cache=True, nogil=True)
def _add(below: Packed, above: Packed, level: np.uint32) -> None:
    """Two channels at a time in 16 bits each; a sum over 255 shows in the bit above its byte."""
    low, half, eight = np.uint32(0x00FF00FF), np.uint32(0x00800080), np.uint32(8)
    one = np.uint32(0x00010001)
    rows, columns = below.shape
    for y in range(rows):
        for x in range(columns):
            source = above[y, x]
            if source == np.uint32(0):
                continue
            even = (source & low) * level + half
            odd = ((source >> eight) & low) * level + half
            even = ((even + ((even >> eight) & low)) >> eight) & low
            odd = ((odd + ((odd >> eight) & low)) >> eight) & low
            ground = below[y, x]
            even = np.uint32(even + (ground & low))
            odd = np.uint32(odd + ((ground >> eight) & low))
            even = np.uint32((even | (((even >> eight) & one) * np.uint32(255))) & low)
            odd = np.uint32((odd | (((odd >> eight) & one) * np.uint32(255))) & low)
            below[y, x] = np.uint32(even | (odd << eight))


@blends.register("add")
def add(below: Rgba, above: Rgba, level: int) -> None:
    _add(packed(below), packed(above), np.uint32(level))

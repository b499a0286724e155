"""Light added to light: ``plus-lighter`` (W3C Compositing and Blending Level 1, section 9.1.14)."""

from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Packed, pair_over_255, register


@njit(cache=True, nogil=True)
def add(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    """Two channels at a time in 16 bits each; a sum over 255 shows in the bit above its byte."""
    low, eight = np.uint32(0x00FF00FF), np.uint32(8)
    one, byte = np.uint32(0x00010001), np.uint32(255)
    rows, columns = above.shape
    for y in range(rows):
        line, own = below[top + y, left : left + columns], above[y, :]
        for x in range(columns):
            p, q = own[x], line[x]
            even = np.uint32(pair_over_255(np.uint32((p & low) * level)) + (q & low))
            odd = pair_over_255(np.uint32(((p >> eight) & low) * level))
            odd = np.uint32(odd + ((q >> eight) & low))
            even = np.uint32((even | np.uint32(((even >> eight) & one) * byte)) & low)
            odd = np.uint32((odd | np.uint32(((odd >> eight) & one) * byte)) & low)
            line[x] = np.uint32(even | np.uint32(odd << eight))


register("add", add)

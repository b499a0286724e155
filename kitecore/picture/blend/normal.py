"""Source over: by far the most used, hence two channels at a time."""

from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Packed, pair_over_255, register


@njit(cache=True, nogil=True)
def normal(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    """Red and blue, then green and alpha, each in 16 bits of a word."""
    low, eight, byte = np.uint32(0x00FF00FF), np.uint32(8), np.uint32(255)
    rows, columns = above.shape
    for y in range(rows):
        line, own = below[top + y, left : left + columns], above[y, :]
        for x in range(columns):
            p, q = own[x], line[x]
            even = pair_over_255(np.uint32((p & low) * level))
            odd = pair_over_255(np.uint32(((p >> eight) & low) * level))
            rest = np.uint32(byte - np.uint32(odd >> np.uint32(16)))
            even = np.uint32(even + pair_over_255(np.uint32((q & low) * rest)))
            odd = np.uint32(odd + pair_over_255(np.uint32(((q >> eight) & low) * rest)))
            line[x] = np.uint32(even | np.uint32(odd << eight))


register("normal", normal)

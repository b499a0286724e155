"""Dodge and burn: too steep for a table of bytes where anything is half clear.

W3C Compositing and Blending Level 1, 10.1.7 and 10.1.8, in premultiplied form, by division in
floating point.
"""

from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Draw, Packed, Rgba, blends
from kitecore.picture.layer import packed


@njit(cache=True, nogil=True, fastmath=True)
def _dodge(s: np.float32, d: np.float32, sa: np.float32, da: np.float32) -> np.float32:
    one = np.float32(1)
    rest = s * (one - da) + d * (one - sa)
    if d <= 0:
        return rest
    if s >= sa:
        return sa * da + rest
    return sa * min(da, d * sa / (sa - s)) + rest


@njit(cache=True, nogil=True, fastmath=True)
def _burn(s: np.float32, d: np.float32, sa: np.float32, da: np.float32) -> np.float32:
    one = np.float32(1)
    rest = s * (one - da) + d * (one - sa)
    if d >= da:
        return sa * da + rest
    if s <= 0:
        return rest
    return sa * (da - min(da, (da - d) * sa / s)) + rest


@njit(cache=True, nogil=True, fastmath=True)
def _blend(below: Packed, above: Packed, level: np.uint32, burns: bool) -> None:
    byte, unit = np.uint32(255), np.float32(1 / 255)
    scale = np.float32(level) * unit * unit
    half, most = np.float32(0.5), np.float32(255)
    rows, columns = below.shape
    for y in range(rows):
        for x in range(columns):
            p, q = above[y, x], below[y, x]
            sa = np.float32(p >> np.uint32(24)) * scale
            if sa <= 0:
                continue
            da = np.float32(q >> np.uint32(24)) * unit
            out = np.uint32((sa + da - sa * da) * most + half) << np.uint32(24)
            for shift in (np.uint32(0), np.uint32(8), np.uint32(16)):
                s = np.float32((p >> shift) & byte) * scale
                d = np.float32((q >> shift) & byte) * unit
                mixed = _burn(s, d, sa, da) if burns else _dodge(s, d, sa, da)
                out |= np.uint32(np.uint32(mixed * most + half) << shift)
            below[y, x] = np.uint32(out)


def _steep(*, burns: bool) -> Draw:
    def draw(below: Rgba, above: Rgba, level: int) -> None:
        _blend(packed(below), packed(above), np.uint32(level), burns)

    return draw


blends.register("colour_dodge")(_steep(burns=False))
blends.register("colour_burn")(_steep(burns=True))

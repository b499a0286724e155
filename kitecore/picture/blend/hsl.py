"""Modes that take hue, saturation or luma from one side (W3C, section 10.2)."""

from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Draw, Packed, Rgba, blends
from kitecore.picture.layer import packed

_Rgb = tuple[np.float32, np.float32, np.float32]


@njit(cache=True, nogil=True, inline="always")
def _lum(r: np.float32, g: np.float32, b: np.float32) -> np.float32:
    return np.float32(0.3) * r + np.float32(0.59) * g + np.float32(0.11) * b


@njit(cache=True, nogil=True, fastmath=True)
def _with_lum(r: np.float32, g: np.float32, b: np.float32, lum: np.float32) -> _Rgb:
    """SetLum and ClipColor of the document."""
    by = np.float32(lum - _lum(r, g, b))
    r, g, b = r + by, g + by, b + by
    low, high = min(r, g, b), max(r, g, b)
    if low < 0:
        scale = np.float32(lum / (lum - low))
        r, g, b = lum + (r - lum) * scale, lum + (g - lum) * scale, lum + (b - lum) * scale
    if high > 1:
        scale = np.float32((1 - lum) / (high - lum))
        r, g, b = lum + (r - lum) * scale, lum + (g - lum) * scale, lum + (b - lum) * scale
    return r, g, b


@njit(cache=True, nogil=True, fastmath=True)
def _with_sat(r: np.float32, g: np.float32, b: np.float32, sat: np.float32) -> _Rgb:
    """SetSat: the least channel becomes 0, the greatest ``sat``, the middle one in between."""
    low, high = min(r, g, b), max(r, g, b)
    if high <= low:
        return np.float32(0), np.float32(0), np.float32(0)
    scale = np.float32(sat / (high - low))
    return (r - low) * scale, (g - low) * scale, (b - low) * scale


@njit(cache=True, nogil=True, fastmath=True)
def _blend(
    below: Packed, above: Packed, level: np.uint32, colour: bool, sat: int, lum: bool
) -> None:
    """``colour``, ``lum``: whether taken from above; ``sat``: 0 as it is, 1 of above, 2 of below."""
    byte, unit = np.uint32(255), np.float32(1 / 255)
    rows, columns = below.shape
    for y in range(rows):
        for x in range(columns):
            p, q = above[y, x], below[y, x]
            sa, da = np.float32(p >> np.uint32(24)), np.float32(q >> np.uint32(24))
            if sa == 0:
                continue
            s = np.float32(1) / sa
            d = np.float32(1) / da if da > 0 else np.float32(0)
            sr, sg = np.float32(p & byte) * s, np.float32((p >> np.uint32(8)) & byte) * s
            sb = np.float32((p >> np.uint32(16)) & byte) * s
            dr, dg = np.float32(q & byte) * d, np.float32((q >> np.uint32(8)) & byte) * d
            db = np.float32((q >> np.uint32(16)) & byte) * d
            r, g, b = (sr, sg, sb) if colour else (dr, dg, db)
            if sat == 1:
                r, g, b = _with_sat(r, g, b, max(sr, sg, sb) - min(sr, sg, sb))
            elif sat == 2:
                r, g, b = _with_sat(r, g, b, max(dr, dg, db) - min(dr, dg, db))
            r, g, b = _with_lum(r, g, b, _lum(sr, sg, sb) if lum else _lum(dr, dg, db))
            sa, da = sa * unit * np.float32(level) * unit, da * unit
            own, both, rest = sa * (1 - da), sa * da, (1 - sa) * da
            half = np.float32(0.5)
            r = (own * sr + both * r + rest * dr) * np.float32(255) + half
            g = (own * sg + both * g + rest * dg) * np.float32(255) + half
            b = (own * sb + both * b + rest * db) * np.float32(255) + half
            a = np.uint32((sa + da - sa * da) * np.float32(255) + half)
            low, middle = np.uint32(r), np.uint32(np.uint32(g) << np.uint32(8))
            high = np.uint32(np.uint32(b) << np.uint32(16))
            below[y, x] = np.uint32(low | middle | high | np.uint32(a << np.uint32(24)))


def _mode(*, colour: bool, sat: int, lum: bool) -> Draw:
    def draw(below: Rgba, above: Rgba, level: int) -> None:
        _blend(packed(below), packed(above), np.uint32(level), colour, sat, lum)

    return draw


blends.register("hue")(_mode(colour=True, sat=2, lum=False))
blends.register("saturation")(_mode(colour=False, sat=1, lum=False))
blends.register("colour")(_mode(colour=True, sat=0, lum=False))
blends.register("luminosity")(_mode(colour=False, sat=0, lum=True))

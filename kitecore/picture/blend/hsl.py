"""Modes that take hue, saturation or luma from one side (W3C, section 10.2)."""

# mypy: disable-error-code="no-untyped-def"
from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Packed, byte_of, register, unit_of


@njit(inline="always")
def _lum(rgb):
    return np.float32(0.3) * rgb[0] + np.float32(0.59) * rgb[1] + np.float32(0.11) * rgb[2]


@njit(inline="always")
def _range(rgb):
    return min(min(rgb[0], rgb[1]), rgb[2]), max(max(rgb[0], rgb[1]), rgb[2])


@njit(inline="always", error_model="numpy")
def _with_lum(rgb, lum):
    """SetLum and ClipColor of the document."""
    zero, one = np.float32(0), np.float32(1)
    by = lum - _lum(rgb)
    low, high = _range(rgb)
    low, high = low + by, high + by
    down = lum / (lum - low) if low < zero else one
    up = (one - lum) / (high - lum) if high > one else one
    scale = min(down, up)
    return (
        lum + (rgb[0] + by - lum) * scale,
        lum + (rgb[1] + by - lum) * scale,
        lum + (rgb[2] + by - lum) * scale,
    )


@njit(inline="always", error_model="numpy")
def _with_sat(rgb, sat):
    """SetSat: the least channel becomes 0, the greatest ``sat``, the middle one in between."""
    low, high = _range(rgb)
    # A grey has nothing to be scaled.
    scale = sat / max(high - low, np.float32(1e-6))
    return (rgb[0] - low) * scale, (rgb[1] - low) * scale, (rgb[2] - low) * scale


@njit(inline="always")
def _channels(p):
    """Red, green and blue of a pixel, premultiplied, 0 to 1."""
    byte = np.uint32(255)
    return (
        unit_of(p & byte),
        unit_of((p >> np.uint32(8)) & byte),
        unit_of((p >> np.uint32(16)) & byte),
    )


@njit(inline="always", error_model="numpy")
def _straight(rgb, alpha):
    turn = np.float32(1) / alpha if alpha > np.float32(0) else np.float32(0)
    return rgb[0] * turn, rgb[1] * turn, rgb[2] * turn


@njit(inline="always", error_model="numpy")
def _mix_colours(below, above, left, top, level, change):
    """A mode that is not separable: ``change(s, d)`` gives B(Cb, Cs) of straight colours."""
    unit, one = np.float32(1 / 255), np.float32(1)
    rows, columns = above.shape
    for y in range(rows):
        line, own = below[top + y, left : left + columns], above[y, :]
        for x in range(columns):
            p, q = own[x], line[x]
            sa, da = unit_of(p >> np.uint32(24)), unit_of(q >> np.uint32(24))
            s, d = _straight(_channels(p), sa), _straight(_channels(q), da)
            mixed = change(s, d)
            sa = sa * (np.float32(level) * unit)
            alone, both, rest = sa * (one - da), sa * da, (one - sa) * da
            r = byte_of(alone * s[0] + both * mixed[0] + rest * d[0])
            g = byte_of(alone * s[1] + both * mixed[1] + rest * d[1])
            b = byte_of(alone * s[2] + both * mixed[2] + rest * d[2])
            a = byte_of(sa + da - both)
            low = np.uint32(r | np.uint32(g << np.uint32(8)))
            line[x] = np.uint32(low | np.uint32(b << np.uint32(16)) | np.uint32(a << np.uint32(24)))


@njit
def _hue(s, d):
    low, high = _range(d)
    return _with_lum(_with_sat(s, high - low), _lum(d))


@njit
def _saturation(s, d):
    low, high = _range(s)
    return _with_lum(_with_sat(d, high - low), _lum(d))


@njit
def _colour(s, d):
    return _with_lum(s, _lum(d))


@njit
def _luminosity(s, d):
    return _with_lum(d, _lum(s))


@njit(cache=True, nogil=True, error_model="numpy")
def hue(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _mix_colours(below, above, left, top, level, _hue)


@njit(cache=True, nogil=True, error_model="numpy")
def saturation(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _mix_colours(below, above, left, top, level, _saturation)


@njit(cache=True, nogil=True, error_model="numpy")
def colour(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _mix_colours(below, above, left, top, level, _colour)


@njit(cache=True, nogil=True, error_model="numpy")
def luminosity(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    _mix_colours(below, above, left, top, level, _luminosity)


for _kernel in (hue, saturation, colour, luminosity):
    register(_kernel.py_func.__name__, _kernel)

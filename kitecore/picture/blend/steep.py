"""Dodge and burn (W3C Compositing and Blending Level 1, 10.1.7 and 10.1.8), in premultiplied form.

By division in floating point: they are too steep for bytes where anything is half clear.
"""

# mypy: disable-error-code="no-untyped-def"
from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Packed, byte_of, mix_channels, register, unit_of


@njit(error_model="numpy")
def _dodge(s, d, sa, da):
    s, d, sa, da = unit_of(s), unit_of(d), unit_of(sa), unit_of(da)
    one, zero = np.float32(1), np.float32(0)
    lit = da if s >= sa else min(da, d * sa / (sa - s))
    return byte_of(s * (one - da) + d * (one - sa) + (sa * lit if d > zero else zero))


@njit(error_model="numpy")
def _burn(s, d, sa, da):
    s, d, sa, da = unit_of(s), unit_of(d), unit_of(sa), unit_of(da)
    one, zero = np.float32(1), np.float32(0)
    dark = zero if s <= zero else da - min(da, (da - d) * sa / s)
    return byte_of(s * (one - da) + d * (one - sa) + sa * (da if d >= da else dark))


@njit(cache=True, nogil=True, error_model="numpy")
def dodge(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _dodge)


@njit(cache=True, nogil=True, error_model="numpy")
def burn(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _burn)


register("colour_dodge", dodge)
register("colour_burn", burn)

"""Modes of one line each (W3C Compositing and Blending Level 1, section 10.1; subtract is ours).

In premultiplied form, as the document has it: αs(1 - αb)Cs + αsαb B(Cb, Cs) + (1 - αs)αb Cb. Each
formula is that sum for one channel, with s = αs Cs and d = αb Cb in bytes; it is rounded once.
"""

# mypy: disable-error-code="no-untyped-def"
from __future__ import annotations

import numpy as np
from numba import njit

from kitecore.picture.blend._base import Packed, mix_channels, over_255, register


@njit(inline="always")
def _alone(s, d, sa, da):
    """What is seen of either where the other is not, times 255."""
    byte = np.uint32(255)
    return np.uint32(s * np.uint32(byte - da) + d * np.uint32(byte - sa))


@njit
def _multiply(s, d, sa, da):
    return over_255(np.uint32(_alone(s, d, sa, da) + s * d))


@njit
def _screen(s, d, sa, da):
    return np.uint32(s + d - over_255(np.uint32(s * d)))


@njit
def _exclusion(s, d, sa, da):
    return over_255(np.uint32(np.uint32(255) * np.uint32(s + d) - np.uint32(2) * s * d))


@njit
def _darken(s, d, sa, da):
    return over_255(np.uint32(_alone(s, d, sa, da) + min(np.uint32(s * da), np.uint32(d * sa))))


@njit
def _lighten(s, d, sa, da):
    return over_255(np.uint32(_alone(s, d, sa, da) + max(np.uint32(s * da), np.uint32(d * sa))))


@njit
def _difference(s, d, sa, da):
    both = min(np.uint32(s * da), np.uint32(d * sa))
    return over_255(np.uint32(np.uint32(255) * np.uint32(s + d) - np.uint32(2) * both))


@njit
def _subtract(s, d, sa, da):
    own, ground = np.uint32(s * da), np.uint32(d * sa)
    return over_255(np.uint32(_alone(s, d, sa, da) + ground - min(own, ground)))


@njit(inline="always")
def _dark_or_light(s, d, sa, da, dark):
    """Multiplied where ``dark``, else screened; both with twice the light."""
    two = np.uint32(2)
    multiplied = np.uint32(two * s * d)
    screened = np.uint32(sa * da - two * np.uint32(da - d) * np.uint32(sa - s))
    return over_255(np.uint32(_alone(s, d, sa, da) + (multiplied if dark else screened)))


@njit
def _hard_light(s, d, sa, da):
    return _dark_or_light(s, d, sa, da, np.uint32(2) * s <= sa)


@njit
def _overlay(s, d, sa, da):
    return _dark_or_light(s, d, sa, da, np.uint32(2) * d <= da)


@njit(error_model="numpy")
def _soft_light(s, d, sa, da):
    """In floating point: it has a square root."""
    zero, one, four = np.float32(0), np.float32(1), np.float32(4)
    s, d = np.float32(np.int32(s)), np.float32(np.int32(d))
    sa, da = np.float32(np.int32(sa)), np.float32(np.int32(da))
    cb = d / max(da, one)
    tilt = np.float32(2) * s - sa
    steep = ((np.float32(16) * cb - np.float32(12)) * cb + four) * cb
    root = steep if cb <= np.float32(0.25) else np.sqrt(cb)
    way = cb * (one - cb) if tilt <= zero else root - cb
    full = np.float32(255)
    sum_ = s * (full - da) + d * full + tilt * da * way
    return np.uint32(np.int32(sum_ / full + np.float32(0.5)))


@njit(cache=True, nogil=True)
def multiply(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _multiply)


@njit(cache=True, nogil=True)
def screen(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _screen)


@njit(cache=True, nogil=True)
def exclusion(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _exclusion)


@njit(cache=True, nogil=True)
def darken(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _darken)


@njit(cache=True, nogil=True)
def lighten(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _lighten)


@njit(cache=True, nogil=True)
def difference(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _difference)


@njit(cache=True, nogil=True)
def subtract(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _subtract)


@njit(cache=True, nogil=True)
def hard_light(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _hard_light)


@njit(cache=True, nogil=True)
def overlay(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _overlay)


@njit(cache=True, nogil=True, error_model="numpy")
def soft_light(below: Packed, above: Packed, left: int, top: int, level: np.uint32) -> None:
    mix_channels(below, above, left, top, level, _soft_light)


for _kernel in (
    multiply,
    screen,
    overlay,
    darken,
    lighten,
    hard_light,
    soft_light,
    difference,
    exclusion,
    subtract,
):
    register(_kernel.py_func.__name__, _kernel)

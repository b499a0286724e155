"""Pictures between two frames, by what moved.

Dense inverse search: T. Kroeger et al., Fast Optical Flow using Dense Inverse Search, ECCV 2016
(OpenCV's implementation).
"""

from __future__ import annotations

from typing import Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba, packed

Flow = NDArray[np.float32]
Packed = NDArray[np.uint32]

FLOW_SIDE: Final = 360
"""Pixels of the longer side at which motion is looked for."""

_TRUSTED: Final = 1.5
"""Pixels (at flow size) by which there and back may disagree; more counts as covered."""


def flows(a: Rgba, b: Rgba) -> Flow:
    """Motion from ``a`` to ``b`` and back, at a size of at most `FLOW_SIDE`.

    Returns
    -------
    float32, shape (h, w, 4): x and y there, x and y back, in pixels of that size.
    """
    height, width = a.shape[:2]
    factor = min(1.0, FLOW_SIDE / max(width, height))
    size = max(16, round(width * factor)), max(16, round(height * factor))
    first, second = (_grey(picture, size) for picture in (a, b))
    search = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST)
    search.setUseSpatialPropagation(True)
    there = search.calc(first, second, None)
    back = search.calc(second, first, None)
    return np.concatenate([there, back], axis=2)


def _grey(picture: Rgba, size: tuple[int, int]) -> NDArray[np.uint8]:
    grey = cv2.cvtColor(picture, cv2.COLOR_RGBA2GRAY)
    return np.asarray(cv2.resize(grey, size, interpolation=cv2.INTER_AREA))


def moved_between(a: Rgba, b: Rgba, share: float, motion: Flow) -> Rgba:
    """The picture at ``share`` (0..1) of the way from ``a`` to ``b``.

    Both are warped to that moment and mixed; where there and back disagree, a picture that shows
    what the other covers counts for more.

    Parameters
    ----------
    motion
        What `flows` found, for these or larger copies of the two pictures.
    """
    height, width = a.shape[:2]
    there, back = motion[..., :2], motion[..., 2:]
    shift_a, doubt_a = _pulled(there * -share, _doubt(there, back))
    shift_b, doubt_b = _pulled(back * -(1 - share), _doubt(back, there))
    weight_a = (1 - share) * np.exp(-doubt_a / _TRUSTED)
    weight_b = share * np.exp(-doubt_b / _TRUSTED)
    part = weight_b / (weight_a + weight_b + 1e-6)
    scale = np.array([width / motion.shape[1], height / motion.shape[0]], np.float32)
    size = (width, height)
    full_a, full_b = (cv2.resize(shift * scale, size) for shift in (shift_a, shift_b))
    out = np.empty_like(a)
    _mix(packed(a), packed(b), full_a, full_b, cv2.resize(part, size), packed(out))
    return out


def _doubt(there: Flow, back: Flow) -> Flow:
    """How far one lands from where one started, there and back."""
    height, width = there.shape[:2]
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    landed = cv2.remap(
        back,
        x + there[..., 0],
        y + there[..., 1],
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
    return np.asarray(np.hypot(there[..., 0] + landed[..., 0], there[..., 1] + landed[..., 1]))


def _pulled(shift: Flow, doubt: Flow) -> tuple[Flow, Flow]:
    """Shift and doubt where things are in between: about those at the place they come from."""
    h, w = shift.shape[:2]
    y, x = np.mgrid[0:h, 0:w].astype(np.float32)
    pulled = cv2.remap(
        shift,
        x + shift[..., 0],
        y + shift[..., 1],
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
    unsure = cv2.remap(doubt, x + pulled[..., 0], y + pulled[..., 1], cv2.INTER_LINEAR)
    return np.asarray(pulled), np.asarray(unsure)


@njit(cache=True, nogil=True)
def _mix(a: Packed, b: Packed, shift_a: Flow, shift_b: Flow, part: Flow, out: Packed) -> None:
    """Both pictures sampled along their shifts, mixed by ``part``; edges go on as they are."""
    height, width = a.shape
    for row in range(height):
        for column in range(width):
            share = np.uint32(part[row, column] * np.float32(256) + np.float32(0.5))
            one = _sample(a, column + shift_a[row, column, 0], row + shift_a[row, column, 1])
            other = _sample(b, column + shift_b[row, column, 0], row + shift_b[row, column, 1])
            out[row, column] = _blend(one, other, share)


@njit(cache=True, nogil=True)
def _sample(pixels: Packed, x: float, y: float) -> np.uint32:
    """Bilinear, at pixel middles."""
    height, width = pixels.shape
    x = min(max(x, 0.0), width - 1.001)
    y = min(max(y, 0.0), height - 1.001)
    i, j = int(x), int(y)
    fu = np.uint32((x - i) * 256.0)
    fv = np.uint32((y - j) * 256.0)
    top = _blend(pixels[j, i], pixels[j, i + 1], fu)
    bottom = _blend(pixels[j + 1, i], pixels[j + 1, i + 1], fu)
    return _blend(top, bottom, fv)  # type: ignore[no-any-return]


@njit(cache=True, nogil=True)
def _blend(p: np.uint32, q: np.uint32, share: np.uint32) -> np.uint32:
    """Four channels at once, ``share`` 0..256 of the second."""
    low, eight, half = np.uint32(0x00FF00FF), np.uint32(8), np.uint32(0x00800080)
    rest = np.uint32(np.uint32(256) - share)
    even = np.uint32(np.uint32((p & low) * rest + (q & low) * share + half) >> eight)
    odd = np.uint32(np.uint32(p >> eight) & low) * rest
    odd = np.uint32(odd + np.uint32(np.uint32(q >> eight) & low) * share + half)
    return np.uint32((even & low) | (odd & ~low))

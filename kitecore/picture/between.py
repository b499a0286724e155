"""Pictures between two frames, by what moved, and plainly mixed where that is not to be believed.

Dense inverse search: T. Kroeger et al., Fast Optical Flow using Dense Inverse Search, ECCV 2016
(OpenCV's implementation). Of three films whose every second frame was left out, the pictures made
for those are nearer to them than motion by blocks (FFmpeg's ``minterpolate``): see decision 35.
"""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba, packed

Flow = NDArray[np.float32]
Packed = NDArray[np.uint32]
Lights = tuple[Flow, Flow]

FLOW_SIDE: Final = 360
"""Pixels of the longer side at which motion is looked for; it is told at half of that."""

_TRUSTED: Final = 1.5
"""Pixels (of motion as it is told) by which there and back may disagree; more counts as covered."""

_WINDOW: Final = 5
"""Pixels (of motion as it is told) over which it is asked whether motion explains what has changed."""

_BELIEVED: Final = 0.4
_DOUBTED: Final = 1.0
"""Shares of the change that motion leaves unexplained: all believed below, nothing above."""


def flows(a: Rgba, b: Rgba) -> Flow:
    """Motion from ``a`` to ``b`` and back, on a grid of at most half `FLOW_SIDE`.

    Returns
    -------
    float32, shape (8, h, w): x and y there, x and y back, in pixels of that grid; how far one lands
    from where one started, from ``a`` and from ``b``; how light both pictures are, 0..255.
    """
    height, width = a.shape[:2]
    factor = min(1.0, FLOW_SIDE / max(width, height))
    size = max(16, round(width * factor)), max(16, round(height * factor))
    first, second = (_grey(picture, size) for picture in (a, b))
    search = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST)
    # Finer than the preset, with fewer rounds: nearer in all that was tried, in little more time.
    search.setFinestScale(1)
    search.setGradientDescentIterations(12)
    search.setVariationalRefinementIterations(2)
    search.setUseSpatialPropagation(True)
    there = _halved(search.calc(first, second, None)) * np.float32(0.5)
    back = _halved(search.calc(second, first, None)) * np.float32(0.5)
    first, second = _halved(first), _halved(second)
    ways = (*cv2.split(there), *cv2.split(back), _doubt(there, back), _doubt(back, there))
    return np.stack([*ways, first, second]).astype(np.float32, copy=False)


def _halved(values: NDArray[Any]) -> NDArray[Any]:
    return np.asarray(cv2.resize(values, None, fx=0.5, fy=0.5, interpolation=cv2.INTER_AREA))


def _grey(picture: Rgba, size: tuple[int, int]) -> NDArray[np.uint8]:
    grey = cv2.cvtColor(picture, cv2.COLOR_RGBA2GRAY)
    return np.asarray(cv2.resize(grey, size, interpolation=cv2.INTER_AREA))


def moved_between(a: Rgba, b: Rgba, share: float, motion: Flow) -> Rgba:
    """The picture at ``share`` (0..1) of the way from ``a`` to ``b``.

    Both are warped to that moment and mixed; where there and back disagree, a picture that shows
    what the other covers counts for more. Where the two still differ nearly as much as unmoved,
    motion is not believed and the pictures are mixed as they are.

    Parameters
    ----------
    motion
        What `flows` found, for these or larger copies of the two pictures.
    """
    height, width = a.shape[:2]
    there, back = (np.ascontiguousarray(np.moveaxis(motion[at : at + 2], 0, 2)) for at in (0, 2))
    lights = motion[6], motion[7]
    shift_a, doubt_a = _pulled(there * -share, motion[4])
    shift_b, doubt_b = _pulled(back * -(1 - share), motion[5])
    weight_a = (1 - share) * np.exp(-doubt_a / _TRUSTED)
    weight_b = share * np.exp(-doubt_b / _TRUSTED)
    part = weight_b / (weight_a + weight_b + 1e-6)
    shift_a, shift_b, left = _likeliest(shift_a, shift_b, share, lights)
    believed = _believed(left, lights)
    scale = np.array([width / motion.shape[2], height / motion.shape[1]], np.float32)
    size = (width, height)
    full_a, full_b = (
        _sharply(picture, cv2.resize(shift * scale, size))
        for picture, shift in ((a, shift_a), (b, shift_b))
    )
    out = np.empty_like(a)
    shares = cv2.resize(np.dstack([part, believed]).astype(np.float32), size)
    _mix(packed(a), packed(b), packed(full_a), packed(full_b), shares, share, packed(out))
    return out


def _sharply(picture: Rgba, shift: Flow) -> Rgba:
    """Sampled along a shift by a cubic; edges go on as they are."""
    moved = _along(picture, shift, cv2.INTER_CUBIC)
    if picture[..., 3].min() < 255:
        # A cubic overshoots: no colour is more than its cover.
        np.minimum(moved[..., :3], moved[..., 3:], out=moved[..., :3])
    return moved


def _along(values: NDArray[Any], shift: Flow, by: int = cv2.INTER_LINEAR) -> NDArray[Any]:
    """Values from where a shift points to."""
    height, width = shift.shape[:2]
    columns, rows = np.arange(width, dtype=np.float32), np.arange(height, dtype=np.float32)
    x, y = shift[..., 0] + columns, shift[..., 1] + rows[:, None]
    moved = cv2.remap(values, x, y, by, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(moved)


def _likeliest(
    shift_a: Flow, shift_b: Flow, share: float, lights: Lights
) -> tuple[Flow, Flow, Flow]:
    """At each place the two shifts under which both pictures are most alike, and what is left.

    Each way of looking for motion tells both shifts, since what moves keeps its speed.
    """
    light_a, light_b = _along(lights[0], shift_a), _along(lights[1], shift_b)
    first, second, left = shift_a, shift_b, _difference(light_a, light_b)
    if not 0 < share < 1:
        return first, second, left
    by_a = shift_a * np.float32(1 - 1 / share)
    by_b = shift_b * np.float32(1 - 1 / (1 - share))
    for one, other, unlike in (
        (shift_a, by_a, _difference(light_a, _along(lights[1], by_a))),
        (by_b, shift_b, _difference(_along(lights[0], by_b), light_b)),
    ):
        nearer = (unlike < left)[..., None]
        first, second = np.where(nearer, one, first), np.where(nearer, other, second)
        left = np.minimum(left, unlike)
    return first, second, left


def _difference(one: Flow, other: Flow) -> Flow:
    """How unlike two pictures are around each place."""
    return np.asarray(cv2.blur(np.abs(one - other), (_WINDOW, _WINDOW)))


def _believed(left: Flow, lights: Lights) -> Flow:
    """How far motion is believed, 0..1: by what it leaves unexplained of a change."""
    unexplained = left / (_difference(*lights) + 1)
    return np.asarray(np.clip((_DOUBTED - unexplained) / (_DOUBTED - _BELIEVED), 0, 1))


def _doubt(there: Flow, back: Flow) -> Flow:
    """How far one lands from where one started, there and back."""
    landed = _along(back, there)
    return np.asarray(np.hypot(there[..., 0] + landed[..., 0], there[..., 1] + landed[..., 1]))


def _pulled(shift: Flow, doubt: Flow) -> tuple[Flow, Flow]:
    """Shift and doubt where things are in between: about those at the place they come from."""
    pulled = _along(shift, _along(shift, shift))
    return pulled, _along(doubt, pulled)


@njit(cache=True, nogil=True)
def _mix(
    a: Packed, b: Packed, moved_a: Packed, moved_b: Packed, shares: Flow, plain: float, out: Packed
) -> None:
    """The moved pictures by their part, over the unmoved ones as far as motion is believed."""
    height, width = a.shape
    part = np.uint32(plain * 256 + 0.5)
    for row in range(height):
        for column in range(width):
            second = np.uint32(shares[row, column, 0] * np.float32(256) + np.float32(0.5))
            believed = np.uint32(shares[row, column, 1] * np.float32(256) + np.float32(0.5))
            moved = _blend(moved_a[row, column], moved_b[row, column], second)
            if believed < 256:
                unmoved = _blend(a[row, column], b[row, column], part)
                moved = _blend(unmoved, moved, believed)
            out[row, column] = moved


@njit(cache=True, nogil=True)
def _blend(p: np.uint32, q: np.uint32, share: np.uint32) -> np.uint32:
    """Four channels at once, ``share`` 0..256 of the second."""
    low, eight, half = np.uint32(0x00FF00FF), np.uint32(8), np.uint32(0x00800080)
    rest = np.uint32(np.uint32(256) - share)
    even = np.uint32(np.uint32((p & low) * rest + (q & low) * share + half) >> eight)
    odd = np.uint32(np.uint32(p >> eight) & low) * rest
    odd = np.uint32(odd + np.uint32(np.uint32(q >> eight) & low) * share + half)
    return np.uint32((even & low) | (odd & ~low))

"""What is surely screen and what is surely before it; the edge between them is left open.

What asks for surroundings is answered at half the size, from the least and the most of two by two
pixels, so what is sure there is sure of all four.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.keying.screen import STEPS
from kitecore.picture.keying.spreading import BLOCK

Array = NDArray[Any]
Mask = NDArray[np.uint8]

_CARD: Final = 0.4
"""Distance from which on an even patch with a hue of its own is no mixture with the screen."""
_WEAK: Final = 0.6
"""Distance below which something of the screen may be mixed in."""
_EVEN: Final = 0.12
"""By how much distances may differ within five pixels of an even patch."""
_DEPTH: Final = 24
"""Canvas pixels from what is weak within which an edge may still be blurred by motion."""
_STRAND: Final = 5
"""Canvas pixels from the screen within which strands are looked for."""
_BETWEEN: Final = 0.5
"""Distance from which on a seam between two sure patches is no gap."""
_SEAM: Final = np.ones((7, 7), np.uint8)
_AROUND: Final = np.ones((3, 3), np.uint8)
"""Pixels of half the size."""


@dataclass(frozen=True)
class Regions:
    """255 where it is so, 0 elsewhere.

    Of the picture's size: ``sure``, foreground; ``clear``, screen. Of half that, rounded up:
    ``bare``, screen with nothing but screen around it; ``near``, within a strand's reach of the
    screen. ``top``: the greatest distance within that reach, ``STEPS`` to 1.
    """

    sure: Mask
    clear: Mask
    bare: Mask
    near: Mask
    top: Mask

    @cached_property
    def open(self) -> NDArray[np.int64]:
        """Where it is neither sure nor clear: numbers of pixels, row by row."""
        return np.flatnonzero((self.sure | self.clear) == 0)


@dataclass(frozen=True)
class Pooled:
    """Of two by two pixels each the ``least`` and the ``most`` distance, and 255 where all ``own`` a hue."""

    least: Mask
    most: Mask
    own: Mask

    def within(self, top: int, left: int, bottom: int, right: int) -> Pooled:
        """Of a part of the picture that begins at even pixels."""
        part = np.s_[top // 2 : (bottom + 1) // 2, left // 2 : (right + 1) // 2]
        return Pooled(
            *(np.ascontiguousarray(one[part]) for one in (self.least, self.most, self.own))
        )


def pooled(calm: Mask, own: Mask) -> Pooled:
    """Of distances and of hues of their own (255 or 0)."""
    shape = (calm.shape[0] + 1) // 2, (calm.shape[1] + 1) // 2
    least, most, all_own = (np.empty(shape, np.uint8) for _ in range(3))
    _pool(calm, own, least, most, all_own)
    return Pooled(least, most, all_own)


def regions_of(
    calm: Mask, pool: Pooled, levels: tuple[float, float], grain: float, density: float
) -> Regions:
    """Parted by distances from the screen (``calmed``) and hues of their own.

    ``levels``: distances up to which it is clear, and from which on solid. ``grain``: standard
    deviation that is left unregarded where something is called even.
    """
    low, high = levels
    least, most = cv2.erode(pool.least, _AROUND), cv2.dilate(pool.most, _AROUND)
    cut = low * STEPS
    flat = _below(cv2.subtract(most, least), (_EVEN + 4 * grain) * STEPS)
    strong = cv2.bitwise_and(_above(pool.least, high * STEPS), flat | _deep(least, density))
    card = cv2.bitwise_and(_above(pool.least, _CARD * STEPS), flat & pool.own)
    found = cv2.bitwise_and(strong | card, _above(least, cut))
    seams = cv2.morphologyEx(found, cv2.MORPH_CLOSE, _SEAM)
    sure = found | (seams & _above(pool.least, _BETWEEN * STEPS))
    reach = max(1, round(_STRAND * density / 2))
    square = np.ones((2 * reach + 1, 2 * reach + 1), np.uint8)
    return Regions(
        sure=_whole(sure, calm.shape),
        clear=_below(calm, cut),
        bare=_below(most, cut),
        near=_below(cv2.erode(pool.least, square), cut),
        top=np.asarray(cv2.dilate(pool.most, square)),
    )


def _whole(half: Mask, shape: tuple[int, ...]) -> Mask:
    """Twice as large, or less by the last row and column."""
    size = half.shape[1] * 2, half.shape[0] * 2
    large = cv2.resize(half, size, interpolation=cv2.INTER_NEAREST)
    return np.ascontiguousarray(large[: shape[0], : shape[1]])


@njit(cache=True, nogil=True)
def _pool(calm: Mask, own: Mask, least: Mask, most: Mask, all_own: Mask) -> None:
    height, width = calm.shape
    halves = (width + 1) // 2
    # Rows first, then pairs as words of 16 bits: either goes many at a time.
    low, high, both = (
        np.zeros(2 * halves, np.uint8),
        np.zeros(2 * halves, np.uint8),
        np.zeros(2 * halves, np.uint8),
    )
    for row in range(least.shape[0]):
        upper, lower = 2 * row, min(2 * row + 1, height - 1)
        first, second, mine, yours = calm[upper, :], calm[lower, :], own[upper, :], own[lower, :]
        for x in range(width):
            low[x], high[x] = min(first[x], second[x]), max(first[x], second[x])
            both[x] = mine[x] & yours[x]
        if width % 2:
            low[width], high[width], both[width] = low[width - 1], high[width - 1], both[width - 1]
        _pair(
            low.view(np.uint16),
            high.view(np.uint16),
            both.view(np.uint16),
            (least[row, :], most[row, :], all_own[row, :]),
        )


@njit(inline="always")
def _pair(low, high, both, out):  # type: ignore[no-untyped-def]
    least, most, all_own = out
    byte, eight = np.uint16(255), np.uint16(8)
    for x in range(len(least)):
        p, q, r = low[x], high[x], both[x]
        least[x] = np.uint8(min(p & byte, p >> eight))
        most[x] = np.uint8(max(q & byte, q >> eight))
        all_own[x] = np.uint8(r & (r >> eight))


def _below(values: Mask, limit: float) -> Mask:
    return np.asarray(cv2.threshold(values, round(limit) - 1, 255, cv2.THRESH_BINARY_INV)[1])


def _above(values: Mask, limit: float) -> Mask:
    return np.asarray(cv2.threshold(values, round(limit) - 1, 255, cv2.THRESH_BINARY)[1])


def calmed(far: Mask, low: float) -> tuple[Mask, float]:
    """Distances without the grain of the screen, and its standard deviation.

    What differs from its surroundings by more than grain does stays. ``low``: distance up to which
    it is screen.
    """
    mean = np.asarray(cv2.blur(far, (5, 5)))
    grain = _grain(far, mean, low)
    # Bytes that wrap around: what is too large for one sign is kept whole, so it comes out right.
    off = far - mean
    cv2.LUT(off, _kept(grain), dst=off)
    return np.add(mean, off, out=mean), grain


def _grain(far: Mask, mean: Mask, low: float) -> float:
    """From the median of deviations, which edges do not move."""
    some, level = far[::8, ::8], mean[::8, ::8]
    off = cv2.absdiff(some, level)[level < 2 * low * STEPS]
    return float(1.4826 * np.median(off) / STEPS) if off.size else 0.0


def _kept(grain: float) -> Mask:
    """How much is kept of a deviation: none of the grain, all of what is more."""
    off = np.arange(256).astype(np.uint8).astype(np.int8).astype(int)
    share = np.clip((np.abs(off) / STEPS - 2 * grain) / (3 * grain + 1e-4), 0, 1)
    return np.asarray(np.rint(off * share * share * (3 - 2 * share)).astype(np.int8).view(np.uint8))


def _deep(least: Mask, density: float) -> Mask:
    """Where nothing weak is within reach, in steps of a block."""
    height, width = least.shape
    half = BLOCK // 2
    weak = _below(np.ascontiguousarray(least[::half, ::half]), _WEAK * STEPS)
    reach = max(1, round(_DEPTH * density / BLOCK))
    deep = ~cv2.dilate(weak, np.ones((2 * reach + 1, 2 * reach + 1), np.uint8))
    size = deep.shape[1] * half, deep.shape[0] * half
    return np.asarray(cv2.resize(deep, size, interpolation=cv2.INTER_NEAREST)[:height, :width])

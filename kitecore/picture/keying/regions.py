"""What is surely screen and what is surely before it; the edge between them is left open.

All of it at half the size of the picture, whose pixels are the means of four.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any, Final

import cv2
import numpy as np
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
"""By how much distances may differ around a pixel of an even patch."""
_DEPTH: Final = 24
"""Canvas pixels from what is weak within which an edge may still be blurred by motion."""
_STRAND: Final = 5
"""Canvas pixels from the screen within which strands are looked for."""
_BETWEEN: Final = 0.5
"""Distance from which on a seam between two sure patches is no gap."""
_SEAM: Final = np.ones((7, 7), np.uint8)
_AROUND: Final = np.ones((3, 3), np.uint8)


@dataclass(frozen=True)
class Regions:
    """255 where it is so, 0 elsewhere; of half the picture's size.

    ``sure``: foreground; ``clear``: screen; ``bare``: screen with nothing but screen around it;
    ``near``: within a strand's reach of the screen. ``top``: the greatest distance within that
    reach, ``STEPS`` to 1.
    """

    sure: Mask
    clear: Mask
    bare: Mask
    near: Mask
    top: Mask

    @cached_property
    def open(self) -> NDArray[np.int64]:
        """Where it is neither sure nor clear: numbers of pixels of half the size, row by row."""
        return np.flatnonzero((self.sure | self.clear) == 0)


def regions_of(
    calm: Mask, own: Mask, levels: tuple[float, float], grain: float, density: float
) -> Regions:
    """Parted by distances from the screen (``calmed``) and hues of their ``own``.

    ``levels``: distances up to which it is clear, and from which on solid. ``grain``: standard
    deviation that is left unregarded where something is called even.
    """
    low, high = levels
    least, most = cv2.erode(calm, _AROUND), cv2.dilate(calm, _AROUND)
    cut = low * STEPS
    flat = _below(cv2.subtract(most, least), (_EVEN + 4 * grain) * STEPS)
    strong = cv2.bitwise_and(_above(calm, high * STEPS), flat | _deep(least, density))
    card = cv2.bitwise_and(_above(calm, _CARD * STEPS), flat & own)
    found = cv2.bitwise_and(strong | card, _above(least, cut))
    seams = cv2.morphologyEx(found, cv2.MORPH_CLOSE, _SEAM)
    sure = found | (seams & _above(calm, _BETWEEN * STEPS))
    reach = max(1, round(_STRAND * density / 2))
    square = np.ones((2 * reach + 1, 2 * reach + 1), np.uint8)
    return Regions(
        sure=sure,
        clear=_below(calm, cut),
        bare=_below(most, cut),
        near=_below(cv2.erode(calm, square), cut),
        top=np.asarray(cv2.dilate(calm, square)),
    )


def _below(values: Mask, limit: float) -> Mask:
    return np.asarray(cv2.threshold(values, round(limit) - 1, 255, cv2.THRESH_BINARY_INV)[1])


def _above(values: Mask, limit: float) -> Mask:
    return np.asarray(cv2.threshold(values, round(limit) - 1, 255, cv2.THRESH_BINARY)[1])


def calmed(far: Mask, low: float) -> tuple[Mask, float]:
    """Distances without the grain of the screen, and its standard deviation.

    What differs from its surroundings by more than grain does stays. ``low``: distance up to which
    it is screen.
    """
    mean = np.asarray(cv2.blur(far, (3, 3)))
    grain = _grain(far, mean, low)
    # Bytes that wrap around: what is too large for one sign is kept whole, so it comes out right.
    off = far - mean
    cv2.LUT(off, _kept(grain), dst=off)
    return np.add(mean, off, out=mean), grain


def _grain(far: Mask, mean: Mask, low: float) -> float:
    """From the median of deviations, which edges do not move."""
    some, level = far[::4, ::4], mean[::4, ::4]
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
    weak = _below(np.ascontiguousarray(least[::BLOCK, ::BLOCK]), _WEAK * STEPS)
    reach = max(1, round(_DEPTH * density / (2 * BLOCK)))
    deep = ~cv2.dilate(weak, np.ones((2 * reach + 1, 2 * reach + 1), np.uint8))
    size = deep.shape[1] * BLOCK, deep.shape[0] * BLOCK
    return np.asarray(cv2.resize(deep, size, interpolation=cv2.INTER_NEAREST)[:height, :width])

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Box, Coverage
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.registry import Registry

_HALF = 128


@dataclass(frozen=True)
class Spot:
    """A part of a picture with a stroke on it.

    Attributes
    ----------
    whole
        The picture, so far.
    box
        The part.
    cover
        How far each of its pixels is meant, 0..255.
    unit
        Pixels to a height of the picture.
    far
        How many pixels across and down the stroke's source lies.
    patch
        What is to lie there, of the size of the part, where that is known from elsewhere.
    seen
        How far each pixel shows what is mended, 0..255, and not something before it.
    """

    whole: Rgba
    box: Box
    cover: Coverage
    unit: float
    far: tuple[int, int] = (0, 0)
    patch: Rgba | None = None
    seen: Coverage | None = None

    @cached_property
    def pixels(self) -> Rgba:
        """The part, as it is."""
        left, top, right, bottom = self.box
        return self.whole[top:bottom, left:right]

    @cached_property
    def source(self) -> Rgba:
        """What is laid there: what is known, or lies at its source.

        Beyond the edges the picture is mirrored.
        """
        if self.patch is not None:
            return self.patch
        return sourced(self.whole, self.box, self.far)

    @property
    def taken(self) -> Coverage:
        """0 where the picture around may be looked at."""
        if self.seen is None:
            return self.cover
        return np.where(self.seen < _HALF, np.maximum(self.cover, 1), self.cover)


def sourced(whole: Rgba, box: Box, far: tuple[int, int]) -> Rgba:
    """What lies so far across and down from a part; beyond its edges the picture is mirrored."""
    left, top, right, bottom = box
    across, down = far
    height, width = whole.shape[:2]
    if top + down >= 0 <= left + across and bottom + down <= height and right + across <= width:
        return whole[top + down : bottom + down, left + across : right + across].copy()
    rows = mirrored(np.arange(top + down, bottom + down), height)
    columns = mirrored(np.arange(left + across, right + across), width)
    return np.asarray(whole[rows[:, None], columns[None, :]])


def mirrored(places: NDArray[np.int_], count: int) -> NDArray[np.int_]:
    """Places within a row of so many, to and fro."""
    period = max(2 * count - 2, 1)
    back = places % period
    return np.where(back < count, back, period - back)


Retouch = Callable[[Any, Spot], Rgba]
"""``retouch(stroke, spot)``: the part of the picture as it is where the stroke works fully."""

retouches: Registry[Retouch] = Registry("stroke")
rims: Registry[Callable[[Any, Grid], float]] = Registry("rim of a stroke")
"""By kind, of those that need more: pixels around it that it looks at."""

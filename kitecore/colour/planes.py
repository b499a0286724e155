"""A grade baked for the planes of a video, so that no detour by RGB is needed.

Luma is looked up exactly, colour difference between its three nearest neighbours. The colour of two
by two pixels is that of all four; where planes come out, it is graded at their mean luma.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.colour.chain import graded
from kitecore.colour.cube import FindLook
from kitecore.colour.lookup import packed_entries
from kitecore.colour.planes_lookup import (
    PLANE_STEPS,
    Planes,
    Words,
    planes_through,
    rgba_through,
)
from kitecore.colour.rgb import Rgb, chroma, from_chroma
from kitecore.document import Grade

FINE_CHROMA: Final = 33
DRAFT_CHROMA: Final = 17
"""Colour differences along each axis of a table, for a finished film and for watching: a cell is 8 or
16 levels wide, so that grey lies on one of them."""

_DRAFT_STEP: Final = 3
"""For watching, levels of luma from one that is computed to the next; between them it goes straight."""
_DARK: Final = 48
"""Levels of luma that are all computed: there curves are steep."""


class PlaneTable:
    """From planes of BT.709 in limited range to the same.

    Parameters
    ----------
    words
        uint64, shape (chroma, chroma, 256) by Cb, Cr and Y; Y, Cb and Cr times ``PLANE_STEPS``, in
        lanes of 21 bits.
    """

    def __init__(self, words: Words) -> None:
        self._words, self._size = words.reshape(-1), len(words)

    def over(self, planes: Planes, out: Planes, size: tuple[int, int]) -> None:
        """Write the planes of a 4:2:0 picture of an even width and height after the grade to ``out``."""
        planes_through(planes, self._words, self._size, size, out)


class RgbaTable:
    """From planes of BT.709 in limited range to RGBA.

    Parameters
    ----------
    words
        As in `PlaneTable`; red, green and blue as in a lattice (`lookup.packed_entries`).
    """

    def __init__(self, words: Words) -> None:
        self._words, self._size = words.reshape(-1), len(words)

    def over(self, planes: Planes, size: tuple[int, int]) -> NDArray[np.uint8]:
        """Opaque RGBA, shape (height, width, 4), of a 4:2:0 picture after the grade.

        Chroma has half of the width and height, rounded up.
        """
        out = np.empty((size[1], size[0], 4), np.uint8)
        rgba_through(planes, self._words, self._size, out.view(np.uint32)[..., 0])
        return out


def bake_planes(grade: Grade, find: FindLook, size: int = FINE_CHROMA) -> PlaneTable:
    """The table of a grade that has no keys; zones with masks are not in it."""
    new_y, new_cb, new_cr = chroma(np.clip(_graded(grade, find, size), 0, 1))
    words = np.zeros((size, size, 256), np.uint64)
    for lane, plane in enumerate((new_y * 219 + 16, new_cb * 224 + 128, new_cr * 224 + 128)):
        words |= np.rint(plane * PLANE_STEPS).astype(np.uint64) << np.uint64(21 * lane)
    return PlaneTable(words)


def bake_rgba(grade: Grade, find: FindLook, size: int = FINE_CHROMA) -> RgbaTable:
    """The same for a video that becomes a layer."""
    return RgbaTable(packed_entries(_graded(grade, find, size)))


def _graded(grade: Grade, find: FindLook, size: int) -> Rgb:
    """RGB after the grade by Cb, Cr and all levels of Y, not cut off; shape (size, size, 256, 3)."""
    levels = _levels(1 if size >= FINE_CHROMA else _DRAFT_STEP)
    coded = np.arange(size, dtype=np.float32) * (256 / (size - 1))
    cb, cr, y = np.meshgrid(
        (coded - 128) / 224, (coded - 128) / 224, (levels - 16) / 219, indexing="ij"
    )
    done = graded(from_chroma(y, cb, cr).reshape(-1, 3), grade, find)
    return _every_level(done.reshape(size, size, len(levels), 3), levels)


def _levels(step: int) -> NDArray[np.float32]:
    """Levels of luma that are computed, the first and the last among them."""
    every = np.arange(256)
    chosen = (every < _DARK) | (every % step == 0) | (every == 255)
    return np.asarray(every[chosen], np.float32)


def _every_level(colours: Rgb, levels: NDArray[np.float32]) -> Rgb:
    """Straight between the computed levels."""
    index = np.clip(np.searchsorted(levels, np.arange(256), side="right") - 1, 0, len(levels) - 2)
    part = ((np.arange(256) - levels[index]) / (levels[index + 1] - levels[index]))[:, None]
    straight = colours[:, :, index] * (1 - part) + colours[:, :, index + 1] * part
    return np.asarray(straight, np.float32)

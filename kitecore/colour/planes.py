"""A grade baked for the planes of a video, so that no detour by RGB is needed.

Luma is looked up exactly, colour difference between its four neighbours. The colour of two by two
pixels is graded at their mean luma.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.colour.chain import graded
from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import chroma, from_chroma
from kitecore.document import Grade

FINE_CHROMA: Final = 33
DRAFT_CHROMA: Final = 17
"""Colour differences along each axis of a table, for a finished film and for watching."""

_DRAFT_STEP: Final = 3
"""For watching, levels of luma from one that is computed to the next; between them it goes straight."""
_DARK: Final = 48
"""Levels of luma that are all computed: there curves are steep."""
_SCALE: Final = 32
_PARTS: Final = 16

Plane = NDArray[np.uint8]


class PlaneTable:
    """From BT.709 in limited range to the same.

    Parameters
    ----------
    words
        uint64, shape (chroma, chroma, 256) by Cb, Cr and Y; Y, Cb and Cr times 32, in lanes of 21
        bits.
    """

    def __init__(self, words: NDArray[np.uint64]) -> None:
        self.words = words
        at = np.arange(256) * (len(words) - 1) / 255
        begin = np.minimum(at.astype(np.int64), len(words) - 2)
        self._begin = begin
        self._part = np.rint((at - begin) * _PARTS).astype(np.int64)

    def over(
        self,
        planes: tuple[Plane, Plane, Plane],
        out: tuple[Plane, Plane, Plane],
        size: tuple[int, int],
    ) -> None:
        """Write the planes of a 4:2:0 picture after the grade to ``out``.

        Parameters
        ----------
        planes, out
            Luma, Cb and Cr, C-contiguous; rows may be padded.
        size
            Width and height of the picture, both even.
        """
        many = len(self.words)
        _over(*planes, self.words.reshape(-1), many, self._begin, self._part, *size, *out)


def bake_planes(grade: Grade, find: FindLook, size: int = FINE_CHROMA) -> PlaneTable:
    """The table of a grade that has no keys; zones with masks are not in it."""
    levels = _levels(1 if size >= FINE_CHROMA else _DRAFT_STEP)
    coded = np.linspace(0, 255, size, dtype=np.float32)
    cb, cr, y = np.meshgrid(
        (coded - 128) / 224, (coded - 128) / 224, (levels - 16) / 219, indexing="ij"
    )
    done = np.clip(graded(from_chroma(y, cb, cr).reshape(-1, 3), grade, find), 0, 1)
    shape = (size * size, len(levels))
    new_y, new_cb, new_cr = (plane.reshape(shape) for plane in chroma(done))
    coded_planes = (new_y * 219 + 16, new_cb * 224 + 128, new_cr * 224 + 128)
    words = np.zeros((size * size, 256), np.uint64)
    for lane, plane in enumerate(coded_planes):
        whole = np.rint(_every_level(plane, levels) * _SCALE).astype(np.uint64)
        words |= whole << np.uint64(21 * lane)
    return PlaneTable(words.reshape(size, size, 256))


def _levels(step: int) -> NDArray[np.float32]:
    """Levels of luma that are computed, the first and the last among them."""
    every = np.arange(256)
    chosen = (every < _DARK) | (every % step == 0) | (every == 255)
    return np.asarray(every[chosen], np.float32)


def _every_level(plane: NDArray[np.float32], levels: NDArray[np.float32]) -> NDArray[np.float32]:
    """Straight between the computed levels, shape (n, 256)."""
    index = np.clip(np.searchsorted(levels, np.arange(256), side="right") - 1, 0, len(levels) - 2)
    part = (np.arange(256) - levels[index]) / (levels[index + 1] - levels[index])
    straight = plane[:, index] * (1 - part) + plane[:, index + 1] * part
    return np.asarray(straight, np.float32)


@njit(cache=True, nogil=True)
def _over(
    luma: Plane,
    cb: Plane,
    cr: Plane,
    words: NDArray[np.uint64],
    many: int,
    begin: NDArray[np.int64],
    part: NDArray[np.int64],
    width: int,
    height: int,
    new_luma: Plane,
    new_cb: Plane,
    new_cr: Plane,
) -> None:
    lane = np.uint64(8191)
    # Down from the weights' sum of 256 and the scale of 32, with a rounding half.
    shift, half = np.uint64(5), np.uint64(16)
    eight, second, third = np.uint64(8), np.uint64(29), np.uint64(50)
    for row in range(height // 2):
        for column in range(width // 2):
            u, v = cb[row, column], cr[row, column]
            pu, pv = part[u], part[v]
            w00 = np.uint64((_PARTS - pu) * (_PARTS - pv))
            w01, w10 = np.uint64((_PARTS - pu) * pv), np.uint64(pu * (_PARTS - pv))
            w11 = np.uint64(pu * pv)
            a = np.uint64((begin[u] * many + begin[v]) * 256)
            b, c = a + np.uint64(256), a + np.uint64(many * 256)
            d = c + np.uint64(256)
            total = np.uint64(2)
            for dy in range(2):
                for dx in range(2):
                    at = np.uint64(luma[2 * row + dy, 2 * column + dx])
                    total += at
                    mixed = words[a + at] * w00 + words[b + at] * w01
                    mixed += words[c + at] * w10 + words[d + at] * w11
                    value = (((mixed >> eight) & lane) + half) >> shift
                    new_luma[2 * row + dy, 2 * column + dx] = np.uint8(value)
            at = total >> np.uint64(2)
            mixed = words[a + at] * w00 + words[b + at] * w01
            mixed += words[c + at] * w10 + words[d + at] * w11
            new_cb[row, column] = np.uint8((((mixed >> second) & lane) + half) >> shift)
            new_cr[row, column] = np.uint8(((mixed >> third) + half) >> shift)

"""Pictures cut out by strokes, or by a line around: what is meant, how much of each pixel, and its own colours."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.cutouts import Cut, CutStroke
from kitecore.picture.cutting.matting import colours_of, matte_of
from kitecore.picture.cutting.selecting import selected
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid, painted_part

SIDE: Final = 400
"""Pixels of the longer side of the picture in which edges are found."""

Array = NDArray[Any]


@dataclass(frozen=True)
class CutFound:
    """Of a picture made small.

    Attributes
    ----------
    picture
        Its straight colours, 0..1, float32, shape (height, width, 3).
    alpha
        How much of each pixel belongs to what is cut out, 0..1, float32.
    colours
        What is cut out, as it would look alone.
    """

    picture: NDArray[np.float32]
    alpha: NDArray[np.float32]
    colours: NDArray[np.float32]

    @property
    def nbytes(self) -> int:
        return self.picture.nbytes + self.alpha.nbytes + self.colours.nbytes


def cut_found(picture: Rgba, cut: Cut, aspect: float) -> CutFound:
    """What strokes mean on a picture, of whatever size."""
    height, width = picture.shape[:2]
    factor = min(1.0, SIDE / max(height, width))
    size = max(1, round(width * factor)), max(1, round(height * factor))
    small = np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA))
    solid = np.maximum(small[..., 3:], 1).astype(np.float32)
    straight = np.clip(small[..., :3] / solid, 0, 1)
    grid = Grid(*size, aspect)
    keep, drop = (_painted(cut, grid, drop=which) for which in (False, True))
    bytes_ = np.rint(straight * 255).astype(np.uint8)
    inside = selected(bytes_, keep, drop | (small[..., 3] < _CLEAR), _within(cut, grid))
    alpha = matte_of(straight, inside, keep, drop, cut.edge * grid.height)
    return CutFound(straight, alpha, colours_of(straight, alpha))


_CLEAR: Final = 8
"""Alpha, 0..255, below which nothing is there to be kept."""


def _painted(cut: Cut, grid: Grid, *, drop: bool) -> NDArray[np.bool_]:
    """Pixels that the last stroke over them keeps, or drops."""
    there = np.zeros((grid.height, grid.width), np.bool_)
    for stroke in cut.strokes:
        covered = painted_part(_hard(stroke, grid), grid, (0, 0, grid.width, grid.height)) > 127
        there = there | covered if stroke.drop == drop else there & ~covered
    return there


def _within(cut: Cut, grid: Grid) -> NDArray[np.bool_] | None:
    """Pixels inside of the line around it, or of the box of two corners; None if there is none."""
    if len(cut.around) < 2:
        return None
    spots = np.array(cut.around, float) * grid.height + (grid.width / 2, grid.height / 2)
    if len(spots) == 2:
        (left, top), (right, bottom) = spots.min(axis=0), spots.max(axis=0)
        spots = np.array([[left, top], [right, top], [right, bottom], [left, bottom]])
    there = np.zeros((grid.height, grid.width), np.uint8)
    cv2.fillPoly(there, [np.rint(spots).astype(np.int32)], 1)
    return there > 0


def _hard(stroke: CutStroke, grid: Grid) -> CutStroke:
    """At least two pixels wide, so that the thinnest means something."""
    return stroke.model_copy(update={"softness": 0.0, "width": max(stroke.width, 2 * grid.pixel)})

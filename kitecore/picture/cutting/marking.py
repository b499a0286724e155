"""A picture made small, and what a person said of it: strokes, a line around, taps on persons."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.cutouts import CutStroke, Marks
from kitecore.document.properties import Vector
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid, painted_part
from kitecore.tracking.people import person_at

SIDE: Final = 400
"""Pixels of the longer side of the picture in which edges are found."""

Array = NDArray[Any]
Mask = NDArray[np.bool_]


@dataclass(frozen=True)
class Marked:
    """A picture made small, and what is said of it.

    Attributes
    ----------
    picture
        Its straight colours, 0..1, float32, shape (height, width, 3).
    keep, drop
        What strokes keep, and what they drop or where nothing is to be seen.
    hair
        Where strokes say that it is soft.
    within
        Inside of a line around.
    likely
        How surely each pixel is of a person that was tapped.
    """

    picture: NDArray[np.float32]
    keep: Mask
    drop: Mask
    hair: Mask
    within: Mask | None
    likely: NDArray[np.float32] | None

    @property
    def levels(self) -> NDArray[np.uint8]:
        return levels_of(self.picture)


def levels_of(picture: NDArray[np.float32]) -> NDArray[np.uint8]:
    """Colours of 0..1 as bytes."""
    return np.asarray(np.rint(picture * 255), np.uint8)


def marked_on(picture: Rgba, marks: Marks, aspect: float) -> Marked:
    """A picture as small as it is looked at, and what is marked on it."""
    straight, there = made_small(picture)
    grid = Grid(straight.shape[1], straight.shape[0], aspect)
    keep, drop, hair = (_painted(marks, grid, says) for says in (_KEEPS, _DROPS, _HAIR))
    likely = _persons(levels_of(straight), marks, grid)
    return Marked(straight, keep, drop | ~there, hair, _within(marks, grid), likely)


def made_small(picture: Rgba) -> tuple[NDArray[np.float32], Mask]:
    """Straight colours of a picture as small as it is looked at, and where anything is to be seen."""
    height, width = picture.shape[:2]
    factor = min(1.0, SIDE / max(height, width))
    size = max(1, round(width * factor)), max(1, round(height * factor))
    small = np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA))
    solid = np.maximum(small[..., 3:], 1).astype(np.float32)
    return np.clip(small[..., :3] / solid, 0, 1), small[..., 3] >= _CLEAR


def spot_on(grid: Grid, spot: Vector) -> Vector:
    """A place in heights from the middle, in pixels."""
    return spot[0] * grid.height + grid.width / 2, spot[1] * grid.height + grid.height / 2


def _persons(levels: NDArray[np.uint8], marks: Marks, grid: Grid) -> NDArray[np.float32] | None:
    if not marks.persons:
        return None
    found = [person_at(levels, spot_on(grid, spot)) for spot in marks.persons]
    return np.asarray(np.maximum.reduce(found))


_KEEPS: Final = (False, False)
_DROPS: Final = (True, False)
_HAIR: Final = (False, True)
_CLEAR: Final = 8
"""Alpha, 0..255, below which nothing is there to be kept."""


def _painted(cut: Marks, grid: Grid, says: tuple[bool, bool]) -> NDArray[np.bool_]:
    """Pixels of which the last stroke over them says that: whether it drops, whether it is for hair."""
    there = np.zeros((grid.height, grid.width), np.bool_)
    for stroke in cut.strokes:
        covered = painted_part(_hard(stroke, grid), grid, (0, 0, grid.width, grid.height)) > 127
        there = there | covered if (stroke.drop, stroke.hair) == says else there & ~covered
    return there


def _within(cut: Marks, grid: Grid) -> NDArray[np.bool_] | None:
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

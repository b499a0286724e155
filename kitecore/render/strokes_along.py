"""Strokes, and what lies under them, after a change of the picture."""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np

from kitecore.arrays import Box
from kitecore.document.strokes import Sourcing, Stroke
from kitecore.motion.matrices import Matrix, moved, parts, sized
from kitecore.picture.layer import Rgba
from kitecore.picture.leaning import leans
from kitecore.picture.outline import Grid
from kitecore.tracking.quads import carried

_LENGTHS: Final = ("width", "spots", "keeps", "radius")
"""Of strokes, that grow with what they go along with."""


def moved_stroke(stroke: Stroke, change: Matrix | None) -> Stroke:
    """A stroke after a change of the picture, in heights of it from its middle."""
    if change is None:
        return stroke
    points = np.array(stroke.points)
    there = carried(change, points)
    size = parts(change)[0]
    update: dict[str, Any] = {"points": tuple(map(tuple, there.tolist()))}
    update |= {one: getattr(stroke, one) * size for one in _LENGTHS if hasattr(stroke, one)}
    if isinstance(stroke, Sourcing):
        middle = points.mean(axis=0, keepdims=True)
        ends = carried(change, np.concatenate([middle, middle + stroke.source]))
        update["source"] = tuple((ends[1] - ends[0]).tolist())
    return stroke.model_copy(update=update)


def in_pixels(change: Matrix, grid: Grid) -> Matrix:
    """A change in heights of a picture, from its middle, in its pixels."""
    across, down = grid.width / grid.aspect, float(grid.height)
    onto = moved(grid.width / 2, grid.height / 2) @ sized(across, down)
    back = sized(1 / across, 1 / down) @ moved(-grid.width / 2, -grid.height / 2)
    return np.asarray(onto @ change @ back)


def part_carried(
    patch: Rgba, of: Box, change: Matrix, onto: Box, how: int, edge: int = cv2.BORDER_REFLECT_101
) -> Rgba:
    """A part of a picture as it lies in another part after a change, in pixels.

    Parameters
    ----------
    patch
        The pixels of ``of``.
    how, edge
        How OpenCV looks between pixels, and beyond them.
    """
    matrix = _HALF @ moved(-onto[0], -onto[1]) @ change @ moved(*of[:2]) @ _HALF_BACK
    size = onto[2] - onto[0], onto[3] - onto[1]
    if leans(matrix):
        return np.asarray(cv2.warpPerspective(patch, matrix, size, flags=how, borderMode=edge))
    return np.asarray(cv2.warpAffine(patch, matrix[:2], size, flags=how, borderMode=edge))


_HALF, _HALF_BACK = moved(-0.5, -0.5), moved(0.5, 0.5)
"""From the corner of a pixel, from which pictures count, to its middle, and back."""

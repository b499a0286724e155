"""Where a stroke touches a picture, and how much of it each pixel gets."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Box, Coverage
from kitecore.document.strokes import StrokeBase
from kitecore.picture.outline import Grid, painted_part

_EVENED: Final = 0.12
"""Share of a line over which it is evened out at most."""
_POINTS: Final = 128
"""Of a line that is evened out."""


@dataclass(frozen=True)
class Touching:
    """``cover`` (0..255) is of the pixels of ``box``."""

    box: Box
    cover: Coverage


def box_around(stroke: StrokeBase, grid: Grid, rim: float) -> Box | None:
    """The part of a picture under an even stroke, with ``rim`` pixels around it; None if there is none."""
    across, down = grid.width / grid.aspect, grid.height
    reach = stroke.width * (0.5 + stroke.softness / 4)
    xs, ys = np.array(stroke.points).T
    left = math.floor((xs.min() - reach) * across + grid.width / 2 - rim)
    right = math.ceil((xs.max() + reach) * across + grid.width / 2 + rim)
    top = math.floor((ys.min() - reach) * down + grid.height / 2 - rim)
    bottom = math.ceil((ys.max() + reach) * down + grid.height / 2 + rim)
    box = max(left, 0), max(top, 0), min(right, grid.width), min(bottom, grid.height)
    return box if box[0] < box[2] and box[1] < box[3] else None


def touching(stroke: StrokeBase, grid: Grid, rim: float) -> Touching | None:
    """What a stroke touches of a picture, with ``rim`` pixels around it; None if that is nothing."""
    stroke = steadied(stroke)
    box = box_around(stroke, grid, rim)
    cover = None if box is None else painted_part(stroke, grid, box)
    return None if box is None or cover is None or not cover.any() else Touching(box, cover)


def steadied(stroke: StrokeBase) -> StrokeBase:
    """A stroke along an even line: its points, evenly spaced, after a Gaussian."""
    if stroke.steady <= 0 or len(stroke.points) < 3:
        return stroke
    points = np.array(stroke.points)
    way = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    if way[-1] <= 0:
        return stroke
    places = np.linspace(0, way[-1], _POINTS)
    even = np.stack([_evened(np.interp(places, way, one), stroke.steady) for one in points.T])
    update: dict[str, object] = {"points": tuple(map(tuple, even.T.tolist()))}
    if stroke.pressures:
        update["pressures"] = tuple(np.interp(places, way, stroke.pressures).tolist())
    return stroke.model_copy(update=update)


def _evened(line: NDArray[np.float64], steady: float) -> NDArray[np.float64]:
    """Mirrored about both ends, so that it begins and ends where it did."""
    from scipy.ndimage import gaussian_filter1d  # slow to load

    ahead, back = 2 * line[0] - line[1:][::-1], 2 * line[-1] - line[:-1][::-1]
    whole = np.concatenate([ahead, line, back])
    even = gaussian_filter1d(whole, steady * _EVENED * _POINTS)
    return np.asarray(even[len(ahead) : len(ahead) + len(line)])

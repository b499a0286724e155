from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.kept import Kept
from kitecore.motion.noise import generator

Polygon = NDArray[np.float64]
"""Corners (x, y) of a convex piece in order, in heights of the picture from its middle."""

_EVENING: Final = 6
"""Steps of Lloyd's method that make pieces alike."""
_FLAT: Final = 1e-15
"""Twice the area of a piece that has none."""


@dataclass(frozen=True)
class Breaking:
    """How a picture breaks: into how many pieces, how unlike in size, how much smaller near a point.

    ``aspect`` is its width for a height of 1; the centre counts in heights from its middle.
    """

    aspect: float
    count: int
    seed: int
    unlike: float
    near: float
    centre: tuple[float, float]


_kept: Final[Kept[tuple[Polygon, ...]]] = Kept(64)


def pieces_of(breaking: Breaking) -> tuple[Polygon, ...]:
    """Cells of Voronoi, which fill the picture without gaps."""
    return _kept.get(breaking, lambda: tuple(_broken(breaking)))


def _broken(breaking: Breaking) -> list[Polygon]:
    half = np.array([breaking.aspect / 2, 0.5])
    points = generator(breaking.seed, breaking.count).uniform(-1, 1, (breaking.count, 2)) * half
    for _ in range(round(_EVENING * (1 - breaking.unlike))):
        points = middles_of(_cells(points, half))
    return _cells(_drawn_to(points, breaking, half), half)


def _drawn_to(points: Polygon, breaking: Breaking, half: Polygon) -> Polygon:
    """Points nearer to the centre, along the way to it: they stay within the picture."""
    centre = np.clip(np.array(breaking.centre), -half, half)
    away = points - centre
    farthest = float(np.hypot(*(half + np.abs(centre))))
    share = np.hypot(away[:, 0], away[:, 1]) / farthest
    return np.asarray(centre + away * (share**breaking.near)[:, None])


def _cells(points: Polygon, half: Polygon) -> list[Polygon]:
    """Of each point what is nearer to it than to any other. Points mirrored at the edges make them."""
    from scipy.spatial import Voronoi  # a third of a second of starting, for those who need it

    mirrored = [points]
    for axis in (0, 1):
        for sign in (-1, 1):
            other = points.copy()
            other[:, axis] = sign * 2 * half[axis] - other[:, axis]
            mirrored.append(other)
    found = Voronoi(np.concatenate(mirrored))
    cells = []
    for index, point in enumerate(points):
        region = found.regions[found.point_region[index]]
        corners = np.clip(found.vertices[region], -half, half)
        away = corners - point
        cells.append(corners[np.argsort(np.arctan2(away[:, 1], away[:, 0]))])
    return [cell for cell in cells if len(cell) > 2]


def middles_of(pieces: Sequence[Polygon]) -> Polygon:
    """The centroid of each piece."""
    counts = np.array([len(piece) for piece in pieces])
    starts = np.cumsum([0, *counts])
    corners = np.concatenate(pieces)
    following = np.roll(corners, -1, axis=0)
    following[starts[1:] - 1] = corners[starts[:-1]]
    cross = corners[:, 0] * following[:, 1] - following[:, 0] * corners[:, 1]
    total = np.add.reduceat(cross, starts[:-1])[:, None]
    weighted = np.add.reduceat((corners + following) * cross[:, None], starts[:-1])
    plain = np.add.reduceat(corners, starts[:-1]) / counts[:, None]
    flat = np.abs(total) < _FLAT
    return np.where(flat, plain, weighted / np.where(flat, 1, 3 * total))

"""A smooth sheet through a grid of points: bicubic patches after Catmull and Rom (1974).

The sheet goes through every point; beyond the border the grid is thought to go on straight, so that
a grid at rest, or merely shifted, sized or leaned, gives just that.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.picture.warps.mesh import Mesh, Points, Triangles

FINE: Final = 32
"""About how many fields the sheet is drawn with, each way."""
Weights = NDArray[np.float64]


@lru_cache(maxsize=32)
def grid_mesh(columns: int, rows: int, aspect: float) -> Mesh:
    """The sheet at rest, as fine as it is drawn; in heights of the picture, from its middle."""
    across, down = _steps(columns), _steps(rows)
    x = (np.arange(across * columns + 1) / (across * columns) - 0.5) * aspect
    y = np.arange(down * rows + 1) / (down * rows) - 0.5
    points = np.stack(np.meshgrid(x, y), axis=-1).reshape(-1, 2)
    return Mesh(points, _fields(len(x), len(y)))


def bent_grid(offsets: Points, columns: int, rows: int, aspect: float) -> Points:
    """Points of that mesh when the grid's points are ``offsets`` from where they rest.

    Parameters
    ----------
    offsets
        Shape ((rows + 1) * (columns + 1), 2), row by row, in heights of the picture.
    """
    rest = grid_mesh(columns, rows, aspect).points
    across, down = _weights(columns, _steps(columns)), _weights(rows, _steps(rows))
    return np.asarray(rest + _on_sheet(offsets, across, down))


def redivided(offsets: Points, before: tuple[int, int], after: tuple[int, int]) -> Points:
    """Offsets of a grid of other fields whose points lie on the sheet of this one.

    Parameters
    ----------
    offsets
        As for `bent_grid`.
    before, after
        Columns and rows.
    """
    across, down = (
        _spline(old, np.linspace(0, old, new + 1)) for old, new in zip(before, after, strict=True)
    )
    return _on_sheet(offsets, across, down)


def _on_sheet(offsets: Points, across: Weights, down: Weights) -> Points:
    """Offsets of the sheet at all pairs of places, row by row."""
    shape = (down.shape[1], across.shape[1])
    moved = [down @ offsets[:, axis].reshape(shape) @ across.T for axis in (0, 1)]
    return np.asarray(np.stack(moved, axis=-1).reshape(-1, 2))


def grid_lines(columns: int, rows: int) -> NDArray[np.int32]:
    """Pairs of points of the mesh that make up the lines of the grid."""
    across, down = _steps(columns) * columns + 1, _steps(rows) * rows + 1
    numbers = np.arange(across * down).reshape(down, across)
    level = numbers[:: _steps(rows)]
    upright = numbers[:, :: _steps(columns)]
    return np.concatenate(
        [
            np.stack([level[:, :-1], level[:, 1:]], axis=-1).reshape(-1, 2),
            np.stack([upright[:-1], upright[1:]], axis=-1).reshape(-1, 2),
        ]
    ).astype(np.int32)


def _steps(divisions: int) -> int:
    return max(2, FINE // divisions)


@lru_cache(maxsize=64)
def _weights(divisions: int, steps: int) -> Weights:
    """What each of the grid's points adds to each fine one, shape (divisions * steps + 1, points)."""
    return _spline(divisions, np.arange(divisions * steps + 1) / steps)


def _spline(divisions: int, places: NDArray[np.float64]) -> Weights:
    """What each of the grid's points adds at places along it, 0..divisions; a row for each place."""
    count = divisions + 1
    # The points before the first and after the last follow from those next to them.
    wide = np.vstack([np.zeros(count), np.eye(count), np.zeros(count)])
    wide[0, :2] = 2, -1
    wide[-1, -2:] = -1, 2
    out = np.zeros((len(places), count))
    for index, place in enumerate(places):
        field = min(int(place), divisions - 1)
        t = place - field
        cubic = 0.5 * np.array(
            [
                -t + 2 * t * t - t**3,
                2 - 5 * t * t + 3 * t**3,
                t + 4 * t * t - 3 * t**3,
                -t * t + t**3,
            ]
        )
        out[index] = cubic @ wide[field : field + 4]
    return out


def _fields(across: int, down: int) -> Triangles:
    numbers = np.arange(across * down).reshape(down, across)
    a, b = numbers[:-1, :-1].ravel(), numbers[:-1, 1:].ravel()
    c, d = numbers[1:, :-1].ravel(), numbers[1:, 1:].ravel()
    both = np.stack([np.stack([a, b, c], 1), np.stack([b, d, c], 1)], axis=1)
    return both.reshape(-1, 3).astype(np.int32)

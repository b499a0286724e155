"""A smooth sheet through a grid of points: bicubic patches after Catmull and Rom (1974).

The sheet goes through every point; beyond the border the grid is thought to go on straight, so that
a grid at rest, or merely shifted, sized or leaned, gives just that.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.warps import Area
from kitecore.picture.warps.mesh import Mesh, Points, Triangles

FINE: Final = 32
"""About how many fields the sheet is drawn with, each way."""
_SAME: Final = 1e-6
Weights = NDArray[np.float64]


@dataclass(frozen=True)
class Sheet:
    """Fields of a grid on a picture whose width is ``aspect`` for a height of 1.

    ``area`` is what they share: left, top, right and bottom in heights of the picture from its
    middle; none for all of it. The sheet reaches over all of the picture: beyond its area it goes
    along with the nearest border.
    """

    columns: int
    rows: int
    aspect: float
    area: Area | None = None

    @property
    def across(self) -> Ruler:
        low, high = (self.area[0], self.area[2]) if self.area else _around(self.aspect)
        return _ruler(self.columns, low, high, self.aspect)

    @property
    def down(self) -> Ruler:
        low, high = (self.area[1], self.area[3]) if self.area else _around(1.0)
        return _ruler(self.rows, low, high, 1.0)


@dataclass(frozen=True, eq=False)
class Ruler:
    """One way over a sheet: where its lines are drawn, and how those follow from the grid's points.

    ``weights``, shape (lines, points), are what each point adds to each line; ``lines`` are numbers
    of those that go through points.
    """

    low: float
    high: float
    at: NDArray[np.float64]
    weights: Weights
    lines: NDArray[np.int64]


def _around(size: float) -> tuple[float, float]:
    return -size / 2, size / 2


@lru_cache(maxsize=128)
def _ruler(divisions: int, low: float, high: float, size: float) -> Ruler:
    steps = max(2, FINE // divisions)
    places = np.arange(divisions * steps + 1) / steps
    lines = np.arange(0, len(places), steps)
    beyond = [one for one in _around(size) if not low - _SAME <= one <= high + _SAME]
    if beyond and min(beyond) < low:
        places, lines = np.concatenate([[0.0], places]), lines + 1
    if beyond and max(beyond) > high:
        places = np.concatenate([places, [float(divisions)]])
    at = low + (high - low) * places / divisions
    at[0], at[-1] = min([low, *beyond]), max([high, *beyond])
    return Ruler(low, high, at, _spline(divisions, places), lines)


@lru_cache(maxsize=32)
def grid_mesh(sheet: Sheet) -> Mesh:
    """The sheet at rest, as fine as it is drawn; in heights of the picture, from its middle."""
    x, y = sheet.across.at, sheet.down.at
    points = np.stack(np.meshgrid(x, y), axis=-1).reshape(-1, 2)
    return Mesh(points, _fields(len(x), len(y)))


def bent_grid(offsets: Points, sheet: Sheet) -> Points:
    """Points of that mesh when the grid's points are ``offsets`` from where they rest.

    Parameters
    ----------
    offsets
        Shape ((rows + 1) * (columns + 1), 2), row by row, in heights of the picture.
    """
    rest = grid_mesh(sheet).points
    return np.asarray(rest + _on_sheet(offsets, sheet.across.weights, sheet.down.weights))


def relaid(offsets: Points, before: Sheet, after: Sheet) -> Points:
    """Offsets of another grid whose points lie on the sheet of this one.

    Parameters
    ----------
    offsets
        As for `bent_grid`, of the sheet ``before``.
    """
    across = _places(before.columns, before.across, after.columns, after.across)
    down = _places(before.rows, before.down, after.rows, after.down)
    return _on_sheet(offsets, _spline(before.columns, across), _spline(before.rows, down))


def _places(old: int, before: Ruler, new: int, after: Ruler) -> NDArray[np.float64]:
    """Where the points of one ruler lie on another, counted in the fields of that one."""
    at = np.linspace(after.low, after.high, new + 1)
    return np.clip((at - before.low) / (before.high - before.low), 0, 1) * old


def _on_sheet(offsets: Points, across: Weights, down: Weights) -> Points:
    """Offsets of the sheet at all pairs of places, row by row."""
    shape = (down.shape[1], across.shape[1])
    moved = [down @ offsets[:, axis].reshape(shape) @ across.T for axis in (0, 1)]
    return np.asarray(np.stack(moved, axis=-1).reshape(-1, 2))


def grid_lines(sheet: Sheet) -> NDArray[np.int32]:
    """Pairs of points of the mesh that make up the lines of the grid."""
    across, down = sheet.across, sheet.down
    numbers = np.arange(len(across.at) * len(down.at)).reshape(len(down.at), len(across.at))
    level = numbers[down.lines, _between(across.lines)]
    upright = numbers[_between(down.lines)][:, across.lines]
    return np.concatenate(
        [
            np.stack([level[:, :-1], level[:, 1:]], axis=-1).reshape(-1, 2),
            np.stack([upright[:-1], upright[1:]], axis=-1).reshape(-1, 2),
        ]
    ).astype(np.int32)


def _between(lines: NDArray[np.int64]) -> slice:
    """From the first to the last of some lines."""
    return slice(int(lines[0]), int(lines[-1]) + 1)


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

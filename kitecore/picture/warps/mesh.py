"""Triangles over a picture, within the outline of what is seen of it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]
Triangles = NDArray[np.int32]
Alpha = NDArray[np.uint8]

SIDE: Final = 112
"""Pixels of the longer side at which an outline is looked at."""
WANTED: Final = 260
"""About how many points a mesh has."""
_SEEN: Final = 8
_MARGIN: Final = 2
"""Pixels, at that side, by which a mesh is larger than what is seen: its soft edge is within."""


@dataclass(frozen=True)
class Mesh:
    """``points``, shape (n, 2), in heights of the picture from its middle; ``triangles`` (m, 3).

    The first points are those that were asked for.
    """

    points: Points
    triangles: Triangles

    @cached_property
    def edges(self) -> Triangles:
        """Each once, as pairs of points, shape (k, 2)."""
        pairs = np.concatenate([self.triangles[:, [a, b]] for a, b in ((0, 1), (1, 2), (2, 0))])
        return np.unique(np.sort(pairs, axis=1), axis=0)


def outline_mesh(alpha: Alpha, aspect: float, fixed: Points) -> Mesh:
    """A mesh over what is seen of a picture.

    Parameters
    ----------
    alpha
        0..255, shape (height, width).
    aspect
        Width of the picture for a height of 1.
    fixed
        Points, shape (p, 2), that are to be among those of the mesh.
    """
    seen = outlined(alpha)
    high, wide = seen.shape[0], seen.shape[1]
    to_pixels = np.array([wide / aspect, high])
    pins = fixed * to_pixels + np.array([wide / 2, high / 2])
    step = max(2.0, float(np.sqrt(max(int(np.count_nonzero(seen)), 1) / WANTED * 1.15)))
    for x, y in pins:
        spot = (round(float(x)), round(float(y)))
        cv2.circle(seen, spot, max(2, round(step)), 255, -1)
    spots = _spread(pins, np.vstack([_border(seen, step), _inner(seen, step)]), step)
    triangles = _within(spots, seen, step)
    points = (spots - np.array([wide / 2, high / 2])) / to_pixels
    return Mesh(points, triangles)


def outlined(alpha: Alpha) -> Alpha:
    """What is seen of a picture, small and with a margin: 0 or 255, shape (height, width)."""
    factor = SIDE / max(alpha.shape[0], alpha.shape[1])
    size = tuple(max(8, round(side * factor)) for side in alpha.shape[::-1])
    small = cv2.resize(alpha, size, interpolation=cv2.INTER_AREA)
    _, seen = cv2.threshold(np.asarray(small), _SEEN, 255, cv2.THRESH_BINARY)
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * _MARGIN + 1,) * 2)
    return np.asarray(cv2.dilate(seen, kernel), np.uint8)


def _border(seen: Alpha, step: float) -> Points:
    """Points along the outlines, ``step`` apart, at the outer corner of the pixels."""
    found: list[Points] = []
    contours, _ = cv2.findContours(seen, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    for contour in contours:
        line: Any = contour[:, 0, :].astype(float)
        closed = np.vstack([line, line[:1]])
        along = np.concatenate([[0], np.cumsum(np.hypot(*np.diff(closed, axis=0).T))])
        count = max(3, round(along[-1] / step))
        wanted = np.arange(count) / count * along[-1]
        spots = np.stack([np.interp(wanted, along, closed[:, axis]) for axis in (0, 1)], axis=1)
        # Contours go through the middles of pixels; the sheet ends at their outer sides.
        found.append(_outwards(spots + 0.5, seen))
    return np.vstack(found) if found else np.zeros((0, 2))


def _outwards(spots: Points, seen: Alpha) -> Points:
    """Points at the edge of the picture put onto its border."""
    high, wide = seen.shape
    for axis, most in ((0, wide), (1, high)):
        spots[spots[:, axis] < 1, axis] = 0
        spots[spots[:, axis] > most - 1, axis] = most
    return spots


def _inner(seen: Alpha, step: float) -> Points:
    """A lattice of even triangles over what is seen."""
    high, wide = seen.shape
    rows = np.arange(step / 2, high, step * np.sqrt(3) / 2)
    columns = np.arange(step / 2, wide + step, step)
    x = columns[None, :] - (np.arange(len(rows)) % 2)[:, None] * step / 2
    spots = np.stack([x, np.broadcast_to(rows[:, None], x.shape)], axis=-1).reshape(-1, 2)
    inside = (spots >= 0).all(axis=1) & (spots[:, 0] < wide) & (spots[:, 1] < high)
    spots = spots[inside]
    cells = spots.astype(int)
    return np.asarray(spots[seen[cells[:, 1], cells[:, 0]] > 0])


def _spread(first: Points, rest: Points, step: float) -> Points:
    """Points none of which is too near to one before it."""
    kept = list(first)
    cells: dict[tuple[int, int], list[Points]] = {}
    near = 0.55 * step

    def cell(point: Points) -> tuple[int, int]:
        return int(point[0] // near), int(point[1] // near)

    for point in first:
        cells.setdefault(cell(point), []).append(point)
    for point in rest:
        x, y = cell(point)
        around = (cells.get((x + i, y + j), ()) for i in (-1, 0, 1) for j in (-1, 0, 1))
        if all(np.hypot(*(point - other)) >= near for some in around for other in some):
            kept.append(point)
            cells.setdefault((x, y), []).append(point)
    return np.array(kept)


def _within(spots: Points, seen: Alpha, step: float) -> Triangles:
    """Triangles between points, without those outside of what is seen and long splinters."""
    from scipy.spatial import Delaunay  # a third of a second of starting, for those who need it

    if len(spots) < 3:
        return np.zeros((0, 3), np.int32)
    triangles = Delaunay(spots, qhull_options="QJ Pp").simplices
    corners = spots[triangles]
    middles = corners.mean(axis=1).astype(int)
    high, wide = seen.shape
    inside = seen[np.clip(middles[:, 1], 0, high - 1), np.clip(middles[:, 0], 0, wide - 1)] > 0
    (ax, ay), (bx, by) = (corners[:, 1] - corners[:, 0]).T, (corners[:, 2] - corners[:, 0]).T
    wound = ax * by - ay * bx
    triangles = np.where((wound < 0)[:, None], triangles[:, [0, 2, 1]], triangles)
    sides = np.linalg.norm(corners - np.roll(corners, 1, axis=1), axis=-1).max(axis=1)
    good = inside & (np.abs(wound) > 1e-3) & (sides < 3.5 * step)
    return np.asarray(triangles[good], np.int32)

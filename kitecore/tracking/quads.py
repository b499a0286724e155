"""Four corners of what is followed, and the change from one place of them to another."""

from __future__ import annotations

from typing import Final, Literal

import cv2
import numpy as np
from numpy.typing import NDArray

Quad = NDArray[np.float64]
"""Corners in order around it, shape (4, 2)."""
Matrix = NDArray[np.float64]
Points = NDArray[np.float32]
"""Shape (n, 2)."""

Change = Literal["moves", "turns", "leans"]
"""What may change: the place; that, size and turn; or all four corners freely."""

LEAST: Final[dict[Change, int]] = {"moves": 1, "turns": 2, "leans": 4}
"""Points that a change follows from."""
_NEAR: Final = 1.5
"""Pixels by which a point may miss what the others tell and still tells it."""


def corners_of(box: NDArray[np.floating]) -> Quad:
    """Of an upright box: its left, top, right and bottom come first in ``box``."""
    left, top, right, bottom = (float(edge) for edge in box[:4])
    return np.array([[left, top], [right, top], [right, bottom], [left, bottom]])


def between(change: Change, before: Quad, after: Quad) -> Matrix:
    """The 3 × 3 that leads from one place of a thing to another, as far as it may change."""
    if change == "moves":
        return _moved(*(after.mean(axis=0) - before.mean(axis=0)))
    if change == "turns":
        return similar(before, after)
    found: Matrix = cv2.getPerspectiveTransform(before.astype(np.float32), after.astype(np.float32))
    return found


def similar(before: NDArray[np.floating], after: NDArray[np.floating]) -> Matrix:
    """The shift, turn and size that lead points nearest to others (least squares; Umeyama 1991)."""
    a, b = before - before.mean(axis=0), after - after.mean(axis=0)
    power = float((a * a).sum())
    if power < 1e-12:
        return _moved(*(after.mean(axis=0) - before.mean(axis=0)))
    along = float((a * b).sum()) / power
    across = float((a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]).sum()) / power
    turn = np.array([[along, -across], [across, along]])
    shift = after.mean(axis=0) - turn @ before.mean(axis=0)
    return np.array([[*turn[0], shift[0]], [*turn[1], shift[1]], [0.0, 0.0, 1.0]])


def agreed(
    change: Change, before: Points, after: Points
) -> tuple[Matrix, NDArray[np.bool_]] | None:
    """The change that most points tell, and which do; none if too few agree."""
    if len(before) < LEAST[change]:
        return None
    if change == "moves":
        return _agreed_shift(before, after)
    if change == "turns":
        found, inside = cv2.estimateAffinePartial2D(
            before, after, ransacReprojThreshold=_NEAR, maxIters=500, confidence=0.995
        )
        if found is None:
            return None
        matrix = np.vstack([found, [0.0, 0.0, 1.0]])
    else:
        matrix, inside = cv2.findHomography(before, after, cv2.RANSAC, _NEAR, maxIters=500)
        if matrix is None:
            return None
    return np.asarray(matrix, np.float64), inside.reshape(-1).astype(np.bool_)


def _agreed_shift(before: Points, after: Points) -> tuple[Matrix, NDArray[np.bool_]]:
    shifts = after - before
    inside = np.hypot(*(shifts - np.median(shifts, axis=0)).T) < _NEAR
    told = shifts[inside] if inside.any() else shifts
    return _moved(*told.mean(axis=0)), inside


def carried(matrix: Matrix, points: NDArray[np.floating]) -> NDArray[np.float64]:
    """Points after a change, shape (n, 2)."""
    wide = points @ matrix[:2, :2].T + matrix[:2, 2]
    depth = points @ matrix[2, :2] + matrix[2, 2]
    return np.asarray(wide / depth[:, None], np.float64)


def inverse(matrix: Matrix) -> Matrix:
    """The way back; its last number is 1, so that the first four tell its scale."""
    back = np.linalg.inv(matrix)
    return np.asarray(back / back[2, 2], np.float64)


def area_of(quad: Quad) -> float:
    """Its area, below 0 if it is turned over."""
    x, y = quad.T
    return float(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2


def is_sound(quad: Quad) -> bool:
    """Whether it is convex, not turned over, and something is left of it."""
    sides = np.roll(quad, -1, axis=0) - quad
    after = np.roll(sides, -1, axis=0)
    turns = sides[:, 0] * after[:, 1] - sides[:, 1] * after[:, 0]
    return bool(np.isfinite(quad).all() and (turns > 0).all() and area_of(quad) > 4)


def _moved(x: float, y: float) -> Matrix:
    return np.array([[1.0, 0.0, x], [0.0, 1.0, y], [0.0, 0.0, 1.0]])

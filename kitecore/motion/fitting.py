"""Smooth pen paths through hand-drawn points.

P. J. Schneider, "An Algorithm for Automatically Fitting Digitized Curves", Graphics Gems, 1990:
least squares for the two handle lengths of one cubic Bézier, a few Newton steps to find better
places of the points along it, and a split at the worst point where that does not do.
"""

from __future__ import annotations

from itertools import pairwise
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.paths import Contour, Node
from kitecore.document.properties import Vector

Points = NDArray[np.float64]
_ROUNDS: Final = 6
_CORNER: Final = np.cos(np.radians(70))
"""Where a line turns by more it keeps a corner."""


def fitted(points: tuple[Vector, ...], tolerance: float, *, closed: bool = False) -> Contour:
    """A contour that goes by all points within ``tolerance``, in their own measure."""
    given = _distinct(np.array(points, float), tolerance / 4)
    if closed and len(given) > 2:
        given = np.vstack([given, given[:1]])
    if len(given) < 2:
        return Contour(nodes=(Node(at=tuple(given[0])),), closed=False)
    corners = [0, *_corners(given, tolerance), len(given) - 1]
    curves: list[Points] = []
    for start, end in pairwise(corners):
        part = given[start : end + 1]
        curves += _fit(part, _tangent(part), _tangent(part[::-1]), tolerance)
    return _contour(curves, closed)


def _distinct(points: Points, least: float) -> Points:
    kept = [points[0]]
    for point in points[1:]:
        if np.hypot(*(point - kept[-1])) > least:
            kept.append(point)
    return np.array(kept)


def _corners(points: Points, tolerance: float) -> list[int]:
    """Points at which the line turns sharply, looked at over a stretch of a few tolerances."""
    found: list[int] = []
    reach = 4 * tolerance
    for index in range(1, len(points) - 1):
        before = _direction_over(points[: index + 1][::-1], reach)
        after = _direction_over(points[index:], reach)
        if before is not None and after is not None and float(-before @ after) < _CORNER:
            if found and np.hypot(*(points[index] - points[found[-1]])) < reach:
                continue
            found.append(index)
    return found


def _direction_over(points: Points, reach: float) -> Points | None:
    away = np.hypot(*(points - points[0]).T)
    far = np.flatnonzero(away >= reach)
    if not len(far):
        return None
    return np.asarray((points[far[0]] - points[0]) / away[far[0]])


def _tangent(points: Points) -> Points:
    ahead = points[min(2, len(points) - 1)] - points[0]
    return np.asarray(ahead / max(float(np.hypot(*ahead)), 1e-9))


def _fit(points: Points, begin: Points, end: Points, tolerance: float) -> list[Points]:
    if len(points) == 2:
        third = np.hypot(*(points[1] - points[0])) / 3
        return [
            np.array([points[0], points[0] + begin * third, points[1] + end * third, points[1]])
        ]
    places = _by_length(points)
    for _ in range(_ROUNDS):
        curve = _least_squares(points, places, begin, end)
        off = np.hypot(*(_at(curve, places) - points).T)
        worst = int(off.argmax())
        if off[worst] <= tolerance:
            return [curve]
        places = _newton(curve, points, places)
    worst = min(max(worst, 1), len(points) - 2)
    across = points[worst - 1] - points[worst + 1]
    middle = across / max(float(np.hypot(*across)), 1e-9)
    return [
        *_fit(points[: worst + 1], begin, middle, tolerance),
        *_fit(points[worst:], -middle, end, tolerance),
    ]


def _by_length(points: Points) -> Points:
    steps = np.hypot(*np.diff(points, axis=0).T)
    along = np.concatenate([[0], np.cumsum(steps)])
    return np.asarray(along / along[-1])


def _least_squares(points: Points, t: Points, begin: Points, end: Points) -> Points:
    b0, b1, b2, b3 = _weights(t)
    a1, a2 = b1[:, None] * begin, b2[:, None] * end
    fixed = (b0 + b1)[:, None] * points[0] + (b2 + b3)[:, None] * points[-1]
    rest = points - fixed
    c = np.array([[(a1 * a1).sum(), (a1 * a2).sum()], [(a1 * a2).sum(), (a2 * a2).sum()]])
    x = np.array([(a1 * rest).sum(), (a2 * rest).sum()])
    chord = float(np.hypot(*(points[-1] - points[0])))
    lengths = np.linalg.lstsq(c, x, rcond=None)[0]
    if min(lengths) < 1e-6 * chord or max(lengths) > 3 * max(chord, 1e-9):
        lengths = np.array([chord / 3, chord / 3])
    return np.array(
        [points[0], points[0] + begin * lengths[0], points[-1] + end * lengths[1], points[-1]]
    )


def _newton(curve: Points, points: Points, t: Points) -> Points:
    first = 3 * np.diff(curve, axis=0)
    second = 2 * np.diff(first, axis=0)
    off = _at(curve, t) - points
    speed = np.stack([(1 - t) ** 2, 2 * t * (1 - t), t * t], 1) @ first
    turn = np.stack([1 - t, t], 1) @ second
    below = (speed**2).sum(1) + (off * turn).sum(1)
    step = np.where(np.abs(below) > 1e-12, (off * speed).sum(1) / np.where(below == 0, 1, below), 0)
    return np.asarray(np.clip(np.maximum.accumulate(t - step), 0, 1))


def _weights(t: Points) -> tuple[Any, Any, Any, Any]:
    s = 1 - t
    return s**3, 3 * s * s * t, 3 * s * t * t, t**3


def _at(curve: Points, t: Points) -> Points:
    return np.asarray(np.stack(_weights(t), 1) @ curve)


def _contour(curves: list[Points], closed: bool) -> Contour:
    nodes = []
    starts = [*curves, None] if not closed else [*curves]
    for index, curve in enumerate(starts):
        before = curves[index - 1] if index or closed else None
        here = curve[0] if curve is not None else curves[-1][3]
        into = before[2] - here if before is not None else np.zeros(2)
        out = curve[1] - here if curve is not None else np.zeros(2)
        nodes.append(
            Node(at=_pair(here), before=_pair(into), after=_pair(out), join=_join(into, out))
        )
    return Contour(nodes=tuple(nodes), closed=closed)


def _pair(point: Points) -> Vector:
    return round(float(point[0]), 3), round(float(point[1]), 3)


def _join(into: Points, out: Points) -> Any:
    lengths = float(np.hypot(*into)), float(np.hypot(*out))
    if min(lengths) < 1e-6:
        return "corner"
    return "smooth" if float(into @ out) / (lengths[0] * lengths[1]) < -0.99 else "broken"

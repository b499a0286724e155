"""Curves through points: monotone where the points are, without overshoot.

Piecewise cubic Hermite interpolation with the slopes of Fritsch and Butland ("A method for
constructing local monotone piecewise cubic interpolants", SIAM J. Sci. Stat. Comput. 5, 1984).
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.document.properties import CurvePoints

Array = NDArray[Any]


def curve_at(points: CurvePoints, x: Array) -> Array:
    """Heights of a curve at ``x``, of the same shape; beyond its ends it goes on straight."""
    if len(points) == 1:
        return np.full_like(x, points[0][1])
    xs, ys = np.array(points, x.dtype).T
    slopes = _slopes(xs, ys)
    index = np.clip(np.searchsorted(xs, x, side="right") - 1, 0, len(xs) - 2)
    wide, rise = np.diff(xs), np.diff(ys)
    start, end = slopes[:-1], slopes[1:]
    # Cubic coefficients of each stretch, in the distance from its left point.
    cubic = (start + end - 2 * rise / wide) / wide**2
    square = (3 * rise / wide - 2 * start - end) / wide
    t = np.clip(x, xs[0], xs[-1]) - xs[index]
    inside = ((cubic[index] * t + square[index]) * t + start[index]) * t + ys[index]
    below, above = np.minimum(x - xs[0], 0), np.maximum(x - xs[-1], 0)
    return np.asarray(inside + below * slopes[0] + above * slopes[-1])


def around(points: CurvePoints, x: Array) -> Array:
    """The same for a curve over a circle: ``x`` 0..1 is once around, and the ends meet smoothly."""
    again = tuple((at + turn, y) for turn in (-1, 0, 1) for at, y in points)
    return curve_at(again, x - np.floor(x))


def curve_between(first: CurvePoints, second: CurvePoints, share: float) -> CurvePoints:
    """The curve ``share`` of the way from one to another.

    Point by point where they have the same number; otherwise both are given points where the
    other has them.
    """
    if len(first) != len(second):
        xs = np.array(sorted({x for x, _ in (*first, *second)}))
        first, second = (
            tuple(zip(xs.tolist(), curve_at(points, xs).tolist(), strict=True))
            for points in (first, second)
        )
    pairs = zip(first, second, strict=True)
    return tuple((a + (c - a) * share, b + (d - b) * share) for (a, b), (c, d) in pairs)


def _slopes(xs: Array, ys: Array) -> Array:
    wide, steep = np.diff(xs), np.diff(ys) / np.diff(xs)
    if len(xs) == 2:
        return np.repeat(steep, 2)
    slopes = np.zeros_like(ys)
    left, right = steep[:-1], steep[1:]
    first, second = 2 * wide[1:] + wide[:-1], wide[1:] + 2 * wide[:-1]
    same = left * right > 0
    with np.errstate(divide="ignore", invalid="ignore"):
        mean = (first + second) / (first / left + second / right)
    slopes[1:-1] = np.where(same, mean, 0)
    slopes[0] = _end_slope(wide[0], wide[1], steep[0], steep[1])
    slopes[-1] = _end_slope(wide[-1], wide[-2], steep[-1], steep[-2])
    return slopes


def _end_slope(near: float, far: float, steep: float, next_steep: float) -> float:
    """Three-point formula, kept from overshooting (Moler, "Numerical Computing", 3.4)."""
    slope = ((2 * near + far) * steep - near * next_steep) / (near + far)
    if slope * steep <= 0:
        return 0.0
    if steep * next_steep <= 0 and abs(slope) > abs(3 * steep):
        return 3 * steep
    return slope

"""Points that move along curves drawn in space, at a pace that their easing alone decides.

A stretch between two keys is a cubic Bézier; it is gone along by its length, not its parameter, so
that "steady" is an even pace (arc-length parametrisation by Gauss-Legendre quadrature).
"""

from __future__ import annotations

import math
from bisect import bisect_right
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.properties import PointKeys, SpotKey, Vector
from kitecore.motion.easing import eased

Array = NDArray[np.float64]
_PARTS: Final = 64
_SPOTS, _WEIGHTS = np.polynomial.legendre.leggauss(5)
_SHORT: Final = 1e-9
_NEAR: Final = 1e-8
"""Of the parameter: less than any pixel."""


@dataclass(frozen=True)
class Stretch:
    """A cubic Bézier, shape (4, 2), and the lengths along it up to each of its even parts."""

    points: Array
    along: Array

    @property
    def length(self) -> float:
        return float(self.along[-1])

    def parameter(self, share: float) -> float:
        """Parameter at which a share (0..1) of the length is gone."""
        wanted = share * self.length
        index = min(int(np.searchsorted(self.along, wanted, side="right")) - 1, _PARTS - 1)
        index = max(index, 0)
        low, high = index / _PARTS, (index + 1) / _PARTS
        begin, end = self.along[index], self.along[index + 1]
        t: float = low + (high - low) * (wanted - begin) / max(end - begin, _SHORT)
        for _ in range(4):
            speed = float(np.hypot(*self.velocity(t)))
            if speed < _SHORT:
                break
            step = (wanted - begin - _length(self.points, low, t)) / speed
            t = min(max(t + step, low), high)
            if abs(step) < _NEAR:
                break
        return t

    def at(self, t: float) -> Array:
        s = 1 - t
        weights = np.array([s**3, 3 * s * s * t, 3 * s * t * t, t**3])
        return np.asarray(weights @ self.points)

    def velocity(self, t: float) -> Array:
        s = 1 - t
        return np.asarray(np.array([s * s, 2 * s * t, t * t]) @ (3 * np.diff(self.points, axis=0)))

    def heading(self, t: float) -> Array:
        """A direction, where it stands still at an end too."""
        for spot in (t, min(t + 1e-3, 1.0), max(t - 1e-3, 0.0)):
            found = self.velocity(spot)
            if float(np.hypot(*found)) > 1e-6:
                return found
        return np.asarray(self.points[3] - self.points[0])


def stretch_of(first: SpotKey, second: SpotKey) -> Stretch:
    """The curve from one key to the next."""
    a, b = first.value, second.value
    return _stretch((a, _plus(a, first.after), _plus(b, second.before), b))


def is_straight(first: SpotKey, second: SpotKey) -> bool:
    return not any(first.after) and not any(second.before)


def spot_between(first: SpotKey, second: SpotKey, share: float) -> Vector:
    """The point at a share of the way; beyond 0..1 straight on, as far as the share says."""
    a, b = first.value, second.value
    if is_straight(first, second):
        return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share
    curve = stretch_of(first, second)
    inside = min(max(share, 0.0), 1.0)
    t = curve.parameter(inside)
    x, y = curve.at(t)
    if share != inside:
        way = curve.heading(t)
        far = (share - inside) * curve.length / max(float(np.hypot(*way)), _SHORT)
        x, y = x + way[0] * far, y + way[1] * far
    return float(x), float(y)


def heading_at(prop: Vector | PointKeys, tick: int) -> float:
    """The direction in which a point goes at a tick: degrees, clockwise from the right.

    Before and after it moves, and while it rests, the nearest direction there is.
    """
    if not isinstance(prop, PointKeys):
        return 0.0
    keys = prop.keys
    index = min(max(bisect_right(keys, tick, key=lambda key: key.at) - 1, 0), len(keys) - 2)
    pairs = [(i, keys[i], keys[i + 1]) for i in range(len(keys) - 1)]
    moving = [pair for pair in pairs if stretch_of(pair[1], pair[2]).length > 1e-6]
    if not moving:
        return 0.0
    place, first, second = min(moving, key=lambda pair: (abs(pair[0] - index), pair[0]))
    progress = min(max((tick - first.at) / (second.at - first.at), 0.0), 1.0)
    share = eased(first.ease, progress) if place == index else float(place < index)
    curve = stretch_of(first, second)
    x, y = curve.heading(curve.parameter(min(max(share, 0.0), 1.0)))
    return math.degrees(math.atan2(y, x))


def lengths_of(keys: tuple[SpotKey, ...]) -> list[float]:
    """Length of each stretch."""
    return [stretch_of(a, b).length for a, b in pairwise(keys)]


def _plus(point: Vector, by: Vector) -> Vector:
    return point[0] + by[0], point[1] + by[1]


@lru_cache(maxsize=512)
def _stretch(points: tuple[Vector, Vector, Vector, Vector]) -> Stretch:
    array = np.array(points, float)
    edges = np.linspace(0, 1, _PARTS + 1)
    t = (edges[:-1, None] + (_SPOTS + 1) / 2 / _PARTS).ravel()
    s = 1 - t
    velocity = np.stack([s * s, 2 * s * t, t * t], 1) @ (3 * np.diff(array, axis=0))
    speeds = np.hypot(*velocity.T).reshape(_PARTS, -1)
    parts = speeds @ (_WEIGHTS / 2 / _PARTS)
    return Stretch(array, np.concatenate([[0.0], np.cumsum(parts)]))


def _length(points: Array, low: float, high: float) -> float:
    t = low + (_SPOTS + 1) / 2 * (high - low)
    s = 1 - t
    velocity = np.stack([s * s, 2 * s * t, t * t], 1) @ (3 * np.diff(points, axis=0))
    return float(np.hypot(*velocity.T) @ _WEIGHTS / 2 * (high - low))

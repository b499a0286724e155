"""Points that move along curves drawn in space, at a pace that their easing alone decides.

A stretch between two keys is a cubic Bézier; it is gone along by its length, not its parameter, so
that "steady" is an even pace (arc-length parametrisation by Gauss-Legendre quadrature).
"""

from __future__ import annotations

import math
from bisect import bisect_right
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import accumulate, pairwise
from typing import Final

import numpy as np

from kitecore.document.properties import PointKeys, SpotKey, Vector
from kitecore.motion.easing import eased

_PARTS: Final = 64
_SHORT: Final = 1e-9
_NEAR: Final = 1e-8
"""Of the parameter: less than any pixel."""
_GAUSS: Final = tuple(
    (float(spot + 1) / 2, float(weight) / 2)
    for spot, weight in zip(*np.polynomial.legendre.leggauss(5), strict=True)
)
"""Places in 0..1 and weights of Gauss-Legendre quadrature."""
Four = tuple[float, float, float, float]


@dataclass(frozen=True)
class Stretch:
    """A cubic Bézier by its control points' coordinates, and the lengths up to its even parts."""

    x: Four
    y: Four
    along: tuple[float, ...]

    @property
    def length(self) -> float:
        return self.along[-1]

    def parameter(self, share: float) -> float:
        """Parameter at which a share (0..1) of the length is gone."""
        wanted = share * self.length
        index = min(max(bisect_right(self.along, wanted) - 1, 0), _PARTS - 1)
        low, high = index / _PARTS, (index + 1) / _PARTS
        begin, end = self.along[index], self.along[index + 1]
        t = low + (high - low) * (wanted - begin) / max(end - begin, _SHORT)
        for _ in range(4):
            speed = math.hypot(*self.velocity(t))
            if speed < _SHORT:
                break
            step = (wanted - begin - self.between(low, t)) / speed
            t = min(max(t + step, low), high)
            if abs(step) < _NEAR:
                break
        return t

    def between(self, low: float, high: float) -> float:
        """Length from one parameter to another, not far apart."""
        wide, total = high - low, 0.0
        for spot, weight in _GAUSS:
            total += weight * math.hypot(*self.velocity(low + spot * wide))
        return wide * total

    def at(self, t: float) -> Vector:
        s = 1 - t
        a, b, c, d = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
        (x0, x1, x2, x3), (y0, y1, y2, y3) = self.x, self.y
        return a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3

    def velocity(self, t: float) -> Vector:
        s = 1 - t
        a, b, c = 3 * s * s, 6 * s * t, 3 * t * t
        (x0, x1, x2, x3), (y0, y1, y2, y3) = self.x, self.y
        return (
            a * (x1 - x0) + b * (x2 - x1) + c * (x3 - x2),
            a * (y1 - y0) + b * (y2 - y1) + c * (y3 - y2),
        )

    def heading(self, t: float) -> Vector:
        """A direction, where it stands still at an end too."""
        for spot in (t, min(t + 1e-3, 1.0), max(t - 1e-3, 0.0)):
            found = self.velocity(spot)
            if math.hypot(*found) > 1e-6:
                return found
        return self.x[3] - self.x[0], self.y[3] - self.y[0]


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
        far = (share - inside) * curve.length / max(math.hypot(*way), _SHORT)
        x, y = x + way[0] * far, y + way[1] * far
    return x, y


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


@lru_cache(maxsize=2048)
def _stretch(points: tuple[Vector, Vector, Vector, Vector]) -> Stretch:
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = points
    bare = Stretch((x0, x1, x2, x3), (y0, y1, y2, y3), (0.0,))
    parts = (bare.between(n / _PARTS, (n + 1) / _PARTS) for n in range(_PARTS))
    return replace(bare, along=tuple(accumulate(parts, initial=0.0)))

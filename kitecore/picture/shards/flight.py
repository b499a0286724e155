from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kitecore.motion.noise import generator
from kitecore.picture.shards.pieces import Breaking, Polygon, middles_of

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Flight:
    """How pieces fly; lengths in heights of the picture, angles in degrees.

    ``amount`` leads from 0, at rest, to 1; those far from the centre begin later, by ``delay`` of it
    at most. ``scatter`` is how much of the way each goes in a direction of its own. They fall faster and
    faster, towards ``direction``: clockwise from straight down.
    """

    amount: float
    distance: float
    scatter: float
    fall: float
    depth: float
    spin: float
    delay: float
    direction: float = 0.0


@dataclass(frozen=True)
class Poses:
    """Of each piece its centroid at rest, where that is now (x, y, towards the eye), how it is turned
    (a matrix each), and how far on its way it is, 0..1.
    """

    rest: Array
    now: Array
    turns: Array
    gone: Array


def flown(pieces: tuple[Polygon, ...], breaking: Breaking, flight: Flight) -> Poses:
    """Where pieces are: rigid bodies on ways of their own, each the same for the same seed."""
    rest = middles_of(pieces)
    chance = generator(breaking.seed, len(pieces), 1)
    own, axes = (_directions(chance, len(pieces)) for _ in range(2))
    quick, deep, turned = chance.uniform(0.6, 1.4, (3, len(pieces)))
    away = rest - np.array(breaking.centre)
    far = np.hypot(away[:, 0], away[:, 1])
    begin = flight.delay * far / max(float(far.max()), 1e-9)
    gone = np.clip((flight.amount - begin) / (1 - flight.delay), 0, 1)
    way = away / np.maximum(far, 1e-9)[:, None] + own[:, :2] * flight.scatter
    reach = (flight.distance * gone * quick)[:, None]
    now = np.zeros((len(pieces), 3))
    now[:, :2] = rest + way * reach
    down = np.radians(flight.direction)
    fallen = flight.fall * gone**2
    now[:, 0] -= fallen * np.sin(down)
    now[:, 1] += fallen * np.cos(down)
    now[:, 2] = flight.depth * gone * deep
    return Poses(rest, now, _turned(axes, np.radians(flight.spin) * gone * turned), gone)


def _directions(chance: np.random.Generator, count: int) -> Array:
    found = chance.standard_normal((count, 3))
    return np.asarray(found / np.linalg.norm(found, axis=1, keepdims=True))


def _turned(axes: Array, angles: Array) -> Array:
    """Matrices of turns about axes (O. Rodrigues), shape (n, 3, 3)."""
    zero = np.zeros(len(axes))
    x, y, z = axes.T
    cross = np.array([[zero, -z, y], [z, zero, -x], [-y, x, zero]]).transpose(2, 0, 1)
    sine, cosine = np.sin(angles)[:, None, None], np.cos(angles)[:, None, None]
    return np.asarray(np.eye(3) + sine * cross + (1 - cosine) * (cross @ cross))

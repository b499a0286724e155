"""A mesh that gives way between pins, as rigidly as possible.

O. Sorkine and M. Alexa, "As-Rigid-As-Possible Surface Modeling", 2007, in the plane (after Igarashi,
Moscovich and Hughes 2005): rotations of the neighbourhoods and places of the points are found in
turn. It begins from rigid moving least squares (Schaefer, McPhail and Warren 2006), which is near
already. Stiffness makes neighbourhoods turn alike (after Levi and Gotsman 2015).
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.warps.mesh import Mesh, Points

ROUNDS: Final = 14
SMOOTHINGS: Final = 6
_LEAST_WEIGHT: Final = 0.05
_NEAR: Final = 1e-9
Numbers = NDArray[np.int64]


class RigidMesh:
    """A mesh whose first ``pins`` points are held; made once, bent as often as wanted."""

    def __init__(self, mesh: Mesh, pins: int, stiffness: float) -> None:
        self.mesh = mesh
        self._pins = pins
        self._stiffness = min(max(stiffness, 0.0), 1.0)
        edges = mesh.edges
        count = len(mesh.points)
        both = np.concatenate([edges, edges[:, ::-1]])
        order = np.argsort(both[:, 0], kind="stable")
        self._from, self._to = both[order].T.astype(np.int64)
        self._weights = np.tile(_weights(mesh, edges), 2)[order]
        self._begin = np.searchsorted(self._from, np.arange(count + 1))
        self._to = np.ascontiguousarray(self._to)
        self._rest = mesh.points[self._to] - mesh.points[self._from]
        self._pieces = self._joined(count)
        # Pieces that no pin holds stay where they are.
        self._held = ~np.isin(self._pieces, self._pieces[:pins])
        self._held[:pins] = True
        laplacian = np.zeros((count, count))
        np.add.at(laplacian, (self._from, self._to), -self._weights)
        laplacian[np.arange(count), np.arange(count)] = -laplacian.sum(axis=1)
        free = ~self._held
        self._inverse = np.linalg.inv(laplacian[np.ix_(free, free)])
        self._across = laplacian[np.ix_(free, self._held)]

    def bent(self, targets: Points) -> Points:
        """Places of all points when the pins are at ``targets``, shape (pins, 2).

        The pins are there exactly; with all pins at rest every point is at rest.
        """
        rest = self.mesh.points
        if not self._pins or np.abs(targets - rest[: self._pins]).max() < _NEAR:
            return rest
        free = ~self._held
        points = rest.copy()
        for piece in np.unique(self._pieces[: self._pins]):
            own, within = self._pieces[: self._pins] == piece, self._pieces == piece
            pins = rest[: self._pins][own]
            points[within] = moved_least_squares(pins, targets[own], rest[within])
        points[: self._pins] = targets
        fixed = np.ascontiguousarray(self._across @ points[self._held])
        _settle(
            points,
            np.flatnonzero(free),
            fixed,
            self._inverse,
            (self._begin, self._to, self._rest, self._weights),
            self._stiffness,
        )
        return points

    def _joined(self, count: int) -> Numbers:
        """For each point the first one of the piece that it belongs to."""
        label = np.arange(count)
        while True:
            lowest = label.copy()
            np.minimum.at(lowest, self._from, label[self._to])
            if (lowest == label).all():
                return label
            label = lowest


@njit(cache=True, nogil=True)
def _settle(
    points: Points,
    free: Numbers,
    fixed: Points,
    inverse: Points,
    net: tuple[Numbers, Numbers, Points, Points],
    stiffness: float,
) -> None:
    """Find rotations and places in turn; ``points`` begin near and end where they settle.

    ``net`` has the neighbours of each point: where its own begin, who they are, the way there at
    rest, the weight.
    """
    begin, to, rest, weights = net
    count = points.shape[0]
    cos, sin = np.empty(count), np.empty(count)
    across, down = np.empty(free.shape[0]), np.empty(free.shape[0])
    for _ in range(ROUNDS):
        _turns(points, begin, to, rest, weights, cos, sin)
        if stiffness > 0:
            for _ in range(SMOOTHINGS):
                _smooth(begin, to, cos, sin, stiffness)
        for index in range(free.shape[0]):
            i = free[index]
            x = y = 0.0
            for e in range(begin[i], begin[i + 1]):
                c, s = (cos[i] + cos[to[e]]) / 2, (sin[i] + sin[to[e]]) / 2
                x -= weights[e] * (c * rest[e, 0] - s * rest[e, 1])
                y -= weights[e] * (s * rest[e, 0] + c * rest[e, 1])
            across[index], down[index] = x - fixed[index, 0], y - fixed[index, 1]
        for index in range(free.shape[0]):
            x, y = _times(inverse[index], across, down)
            points[free[index], 0], points[free[index], 1] = x, y


@njit(cache=True, nogil=True, fastmath=True)
def _times(row: Points, across: Points, down: Points) -> tuple[float, float]:
    x = y = 0.0
    for other in range(row.shape[0]):
        x += row[other] * across[other]
        y += row[other] * down[other]
    return x, y


@njit(cache=True, nogil=True)
def _turns(
    points: Points,
    begin: Numbers,
    to: Numbers,
    rest: Points,
    weights: Points,
    cos: Points,
    sin: Points,
) -> None:
    """The rotation of each neighbourhood that fits best, as cosine and sine."""
    for i in range(points.shape[0]):
        along, across = 1e-12, 0.0
        for e in range(begin[i], begin[i + 1]):
            x, y = points[to[e], 0] - points[i, 0], points[to[e], 1] - points[i, 1]
            along += weights[e] * (rest[e, 0] * x + rest[e, 1] * y)
            across += weights[e] * (rest[e, 0] * y - rest[e, 1] * x)
        length = np.sqrt(along * along + across * across)
        cos[i], sin[i] = along / length, across / length


@njit(cache=True, nogil=True)
def _smooth(begin: Numbers, to: Numbers, cos: Points, sin: Points, stiffness: float) -> None:
    """Turn each neighbourhood somewhat as those around it do."""
    old_cos, old_sin = cos.copy(), sin.copy()
    for i in range(cos.shape[0]):
        count = begin[i + 1] - begin[i]
        if not count:
            continue
        c = s = 0.0
        for e in range(begin[i], begin[i + 1]):
            c += old_cos[to[e]]
            s += old_sin[to[e]]
        c = old_cos[i] * (1 - stiffness) + c / count * stiffness
        s = old_sin[i] * (1 - stiffness) + s / count * stiffness
        length = np.sqrt(c * c + s * s) + 1e-12
        cos[i], sin[i] = c / length, s / length


def _weights(mesh: Mesh, edges: NDArray[np.int32]) -> NDArray[np.float64]:
    """Cotangents of the angles across each edge, kept above nothing."""
    count = len(mesh.points)
    sums: dict[int, float] = {}
    corners = mesh.points[mesh.triangles]
    for i in range(3):
        j, k = (i + 1) % 3, (i + 2) % 3
        a, b = corners[:, j] - corners[:, i], corners[:, k] - corners[:, i]
        cross = np.abs(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]).clip(1e-12)
        cotangents = (a * b).sum(axis=1) / cross / 2
        pairs = np.sort(mesh.triangles[:, [j, k]], axis=1)
        for name, value in zip(
            (pairs[:, 0].astype(np.int64) * count + pairs[:, 1]).tolist(),
            cotangents.tolist(),
            strict=True,
        ):
            sums[name] = sums.get(name, 0.0) + value
    names = (edges[:, 0].astype(np.int64) * count + edges[:, 1]).tolist()
    return np.array([max(sums[name], _LEAST_WEIGHT) for name in names])


def moved_least_squares(rest: Points, targets: Points, spots: Points) -> Points:
    """Rigid moving least squares (Schaefer 2006, 2.3): where ``spots`` go with the pins."""
    apart = rest[None, :, :] - spots[:, None, :]
    square = (apart**2).sum(axis=-1)
    weights = 1 / np.maximum(square, 1e-12)
    weights /= weights.sum(axis=1, keepdims=True)
    middle, there = weights @ rest, weights @ targets
    p = rest[None, :, :] - middle[:, None, :]
    q = targets[None, :, :] - there[:, None, :]
    along = (weights * (p * q).sum(axis=-1)).sum(axis=1)
    across = (weights * (p[..., 0] * q[..., 1] - p[..., 1] * q[..., 0])).sum(axis=1)
    length = np.hypot(along, across)
    still = length < 1e-12
    cos = np.where(still, 1.0, along / np.maximum(length, 1e-12))
    sin = np.where(still, 0.0, across / np.maximum(length, 1e-12))
    off = spots - middle
    x = cos * off[:, 0] - sin * off[:, 1]
    y = sin * off[:, 0] + cos * off[:, 1]
    return np.asarray(there + np.stack([x, y], axis=1))

"""The masks of split-screen cells."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.document.cell import Corners, clipped

Quad = NDArray[np.float64]


def cell_mask(corners: Quad, radius: float, width: int, height: int) -> Coverage:
    """Coverage 0..255 of a convex shape with rounded corners, by signed distance.

    Parameters
    ----------
    corners
        Shape (n, 2), clockwise as y points down, in pixels from the mask's corner.
    radius
        Of its corners, in pixels; at most what the shape has room for.

    Returns
    -------
    uint8, shape (height, width); a straight edge is exact to 1/255 where it lies along the grid.
    """
    if len(corners) < 3:
        return np.zeros((height, width), np.uint8)
    radius = min(max(radius, 0.0), _inner_radius(corners))
    y, x = np.mgrid[0:height, 0:width] + 0.5
    distance = _distance(_inset(corners, radius), x, y) - radius
    return np.rint(np.clip(0.5 - distance, 0, 1) * 255).astype(np.uint8)


def _normals(corners: Quad) -> tuple[Quad, Quad]:
    """Outward unit normals of the edges, and the edges."""
    edges = np.roll(corners, -1, axis=0) - corners
    lengths = np.maximum(np.hypot(edges[:, 0], edges[:, 1]), 1e-9)
    return np.stack([edges[:, 1], -edges[:, 0]], axis=1) / lengths[:, None], edges


def _inner_radius(corners: Quad) -> float:
    """Distance from the middle to the nearest edge, a hair less so that something is left."""
    normals, _ = _normals(corners)
    middle = corners.mean(axis=0)
    return max(0.0, 0.99 * float(-((middle - corners) * normals).sum(axis=1).max()) - 0.01)


def _inset(corners: Quad, by: float) -> Quad:
    """What lies at least ``by`` inside of every edge."""
    normals, _ = _normals(corners)
    shape: Corners = tuple((float(x), float(y)) for x, y in corners)
    for (nx, ny), (x, y) in zip(normals, corners, strict=True):
        shape = clipped(shape, float(nx), float(ny), float(nx * x + ny * y) - by)
    return np.array(shape)


def _distance(corners: Quad, x: Quad, y: Quad) -> Quad:
    """Signed distance to a convex polygon, negative inside."""
    normals, edges = _normals(corners)
    inside = np.full(x.shape, -np.inf)
    outside = np.full(x.shape, np.inf)
    for (px, py), (nx, ny), (ex, ey) in zip(corners, normals, edges, strict=True):
        dx, dy = x - px, y - py
        inside = np.maximum(inside, dx * nx + dy * ny)
        along = np.clip((dx * ex + dy * ey) / max(ex * ex + ey * ey, 1e-12), 0, 1)
        outside = np.minimum(outside, np.hypot(dx - along * ex, dy - along * ey))
    return np.where(inside > 0, outside, inside)

"""The masks of split-screen cells."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba

Mask = NDArray[np.uint8]
Quad = NDArray[np.float64]


def cell_mask(corners: Quad, radius: float, width: int, height: int) -> Mask:
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
    room = _inner_radius(corners)
    radius = min(max(radius, 0.0), room)
    y, x = np.mgrid[0:height, 0:width] + 0.5
    inset = _inset(corners, radius)
    distance = _distance(inset, x, y) - radius
    return np.rint(np.clip(0.5 - distance, 0, 1) * 255).astype(np.uint8)


def masked(pixels: Rgba, mask: Mask) -> Rgba:
    """Premultiplied pixels let through where the mask is."""
    return np.asarray(cv2.multiply(pixels, cv2.merge([mask] * 4), scale=1 / 255))


def _normals(corners: Quad) -> tuple[Quad, Quad]:
    """Outward unit normals of the edges, and the edges."""
    edges = np.roll(corners, -1, axis=0) - corners
    lengths = np.maximum(np.hypot(edges[:, 0], edges[:, 1]), 1e-9)
    return np.stack([edges[:, 1], -edges[:, 0]], axis=1) / lengths[:, None], edges


def _inner_radius(corners: Quad) -> float:
    """Distance from the middle to the nearest edge, a hair less so that something is left."""
    normals, _ = _normals(corners)
    middle = corners.mean(axis=0)
    return max(0.0, float(-((middle - corners) * normals).sum(axis=1).max()) - 0.01)


def _inset(corners: Quad, by: float) -> Quad:
    """Every edge moved inwards; corners where neighbouring edges meet."""
    normals, _ = _normals(corners)
    offsets = (corners * normals).sum(axis=1) - by
    out = np.empty_like(corners)
    for index in range(len(corners)):
        pair = [index - 1, index]
        out[index] = np.linalg.solve(normals[pair], offsets[pair])
    return out


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

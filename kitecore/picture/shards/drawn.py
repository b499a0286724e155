from __future__ import annotations

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba
from kitecore.picture.shards.faces import Faces

Array = NDArray[np.float64]

_OVER = 0.5
"""Pixels by which faces reach over their edges: where two touch, each pixel is all of one of them."""


def draw_faces(canvas: Rgba, picture: Rgba, faces: Faces) -> None:
    """Draw faces onto a canvas, in place, in their order."""
    edges = np.empty((int(np.diff(faces.starts).max()), 3))
    _draw(canvas, picture, faces.corners, faces.starts, faces.whence, faces.tints, edges)


@njit(cache=True, nogil=True)
def _draw(
    canvas: Rgba,
    picture: Rgba,
    corners: Array,
    starts: NDArray[np.int64],
    whence: Array,
    tints: Array,
    edges: Array,
) -> None:
    for face in range(len(starts) - 1):
        polygon = corners[starts[face] : starts[face + 1]]
        count = _edges_of(polygon, edges)
        top = max(math.floor(polygon[:, 1].min() - 1), 0)
        bottom = min(math.ceil(polygon[:, 1].max() + 1), canvas.shape[0])
        textured = whence[face, 2, 2] != 0
        for row in range(top, bottom):
            y = row + 0.5
            low, high = 0.0, float(canvas.shape[1])
            for edge in range(count):
                a, rest = edges[edge, 0], edges[edge, 1] * y + edges[edge, 2] + 0.5 + _OVER
                if a > 1e-9:
                    low = max(low, -rest / a)
                elif a < -1e-9:
                    high = min(high, -rest / a)
                elif rest < 0:
                    high = -1.0
            for column in range(int(low), min(math.ceil(high), canvas.shape[1])):
                x = column + 0.5
                share = 1.0
                for edge in range(count):
                    far = edges[edge, 0] * x + edges[edge, 1] * y + edges[edge, 2]
                    share = min(share, far + 0.5 + _OVER)
                if share <= 0:
                    continue
                if textured:
                    _textured(canvas, picture, row, column, whence[face], tints[face, 0], share)
                else:
                    _flat(canvas, row, column, tints[face], share)


@njit(cache=True, nogil=True)
def _edges_of(polygon: Array, edges: Array) -> int:
    """Lines a x + b y + c = 0 of a convex polygon, positive inside, in pixels; how many there are."""
    total = 0.0
    for one in range(len(polygon)):
        other = (one + 1) % len(polygon)
        total += polygon[one, 0] * polygon[other, 1] - polygon[other, 0] * polygon[one, 1]
    sign = 1.0 if total > 0 else -1.0
    count = 0
    for one in range(len(polygon)):
        other = (one + 1) % len(polygon)
        dx, dy = polygon[other, 0] - polygon[one, 0], polygon[other, 1] - polygon[one, 1]
        length = math.hypot(dx, dy)
        if length > 1e-9:
            edges[count, 0], edges[count, 1] = -sign * dy / length, sign * dx / length
            edges[count, 2] = -(
                edges[count, 0] * polygon[one, 0] + edges[count, 1] * polygon[one, 1]
            )
            count += 1
    return count


@njit(inline="always")
def _textured(canvas, picture, row, column, whence, light, share):  # type: ignore[no-untyped-def]
    """A pixel of a face that shows the picture: a bilinear sample, lit, over what is there."""
    x, y = column + 0.5, row + 0.5
    w = whence[2, 0] * x + whence[2, 1] * y + whence[2, 2]
    u = (whence[0, 0] * x + whence[0, 1] * y + whence[0, 2]) / w - 0.5
    v = (whence[1, 0] * x + whence[1, 1] * y + whence[1, 2]) / w - 0.5
    u = min(max(u, 0.0), picture.shape[1] - 1.0)
    v = min(max(v, 0.0), picture.shape[0] - 1.0)
    left, top = int(u), int(v)
    right, bottom = min(left + 1, picture.shape[1] - 1), min(top + 1, picture.shape[0] - 1)
    fu, fv = np.float32(u - left), np.float32(v - top)
    one = np.float32(1)
    w00, w10 = (one - fu) * (one - fv), fu * (one - fv)
    w01, w11 = (one - fu) * fv, fu * fv
    part = np.float32(share)
    alpha = (
        picture[top, left, 3] * w00
        + picture[top, right, 3] * w10
        + picture[bottom, left, 3] * w01
        + picture[bottom, right, 3] * w11
    )
    rest = one - alpha * part / np.float32(255)
    for channel in range(3):
        level = (
            picture[top, left, channel] * w00
            + picture[top, right, channel] * w10
            + picture[bottom, left, channel] * w01
            + picture[bottom, right, channel] * w11
        )
        level = min(level * np.float32(light), alpha)
        canvas[row, column, channel] = np.uint8(
            level * part + canvas[row, column, channel] * rest + np.float32(0.5)
        )
    canvas[row, column, 3] = np.uint8(
        alpha * part + canvas[row, column, 3] * rest + np.float32(0.5)
    )


@njit(inline="always")
def _flat(canvas, row, column, tint, share):  # type: ignore[no-untyped-def]
    """A pixel of a side, solid in one colour."""
    part = np.float32(share)
    rest = np.float32(1) - part
    for channel in range(3):
        level = np.float32(tint[channel]) * part + canvas[row, column, channel] * rest
        canvas[row, column, channel] = np.uint8(level + np.float32(0.5))
    canvas[row, column, 3] = np.uint8(
        np.float32(255) * part + canvas[row, column, 3] * rest + np.float32(0.5)
    )

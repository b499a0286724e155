from __future__ import annotations

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba, packed
from kitecore.picture.sampling import Packed, sample
from kitecore.picture.shards.faces import Faces

Array = NDArray[np.float64]
Line = NDArray[np.uint32]
Shares = NDArray[np.int64]
"""How much of each pixel of a row is covered, 0..256."""

_OVER = 0.5
"""Pixels by which faces reach over their edges: where two touch, each pixel is all of one of them."""


def draw_faces(canvas: Rgba, picture: Rgba, faces: Faces) -> None:
    """Draw faces onto a canvas, in place, in their order."""
    edges = np.empty((int(np.diff(faces.starts).max()), 3))
    row = np.empty(canvas.shape[1], np.int64)
    source = packed(np.ascontiguousarray(picture))
    _draw(
        packed(canvas), source, faces.corners, faces.starts, faces.whence, faces.tints, edges, row
    )


@njit(cache=True, nogil=True, error_model="numpy")
def _draw(
    canvas: Packed,
    picture: Packed,
    corners: Array,
    starts: NDArray[np.int64],
    whence: Array,
    tints: Array,
    edges: Array,
    row_of: Shares,
) -> None:
    for face in range(len(starts) - 1):
        polygon = corners[starts[face] : starts[face + 1]]
        count = _edges_of(polygon, edges)
        top = max(math.floor(polygon[:, 1].min() - 1), 0)
        bottom = min(math.ceil(polygon[:, 1].max() + 1), canvas.shape[0])
        for row in range(top, bottom):
            y = row + 0.5
            low, high = _span(edges, count, y, 0.5 + _OVER, canvas.shape[1])
            # Between these a pixel is all of the face.
            first, last = _span(edges, count, y, _OVER - 0.5, canvas.shape[1])
            begin, end = int(low), min(math.ceil(high), canvas.shape[1])
            if end <= begin:
                continue
            shares = row_of[: end - begin]
            for column in range(begin, end):
                x = column + 0.5
                inside = first <= x <= last
                shares[column - begin] = 256 if inside else _covered(edges, count, x, y)
            line = canvas[row, begin:end]
            if whence[face, 2, 2] != 0:
                _textured(line, picture, begin + 0.5, y, whence[face], tints[face, 0], shares)
            else:
                _flat(line, tints[face], shares)


@njit(cache=True, nogil=True, error_model="numpy")
def _span(edges: Array, count: int, y: float, over: float, width: int) -> tuple[float, float]:
    """From where to where a row lies no more than ``over`` pixels outside of all edges."""
    low, high = 0.0, float(width)
    for edge in range(count):
        a, rest = edges[edge, 0], edges[edge, 1] * y + edges[edge, 2] + over
        if a > 1e-9:
            low = max(low, -rest / a)
        elif a < -1e-9:
            high = min(high, -rest / a)
        elif rest < 0:
            return 0.0, -1.0
    return low, high


@njit(cache=True, nogil=True, error_model="numpy")
def _covered(edges: Array, count: int, x: float, y: float) -> int:
    """How much of a pixel a face covers, 0..256, by the distances of its middle from the edges."""
    share = 1.0
    for edge in range(count):
        far = edges[edge, 0] * x + edges[edge, 1] * y + edges[edge, 2]
        share = min(share, far + 0.5 + _OVER)
    return int(max(share, 0.0) * 256 + 0.5)


@njit(cache=True, nogil=True, error_model="numpy")
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


@njit(cache=True, nogil=True, error_model="numpy")
def _textured(
    line: Line, picture: Packed, x: float, y: float, whence: Array, light: float, shares: Shares
) -> None:
    """Pixels of a face that shows the picture: bilinear samples, lit, over what is there."""
    u0 = whence[0, 1] * y + whence[0, 2]
    v0 = whence[1, 1] * y + whence[1, 2]
    w0 = whence[2, 1] * y + whence[2, 2]
    du, dv, dw = whence[0, 0], whence[1, 0], whence[2, 0]
    wide, high = (picture.shape[1] - 1) * 65536.0, (picture.shape[0] - 1) * 65536.0
    lit = int(light * 256 + 0.5)
    for column in range(len(shares)):
        at = x + column
        w = 65536.0 / (w0 + dw * at)
        u = min(max((u0 + du * at) * w - 32768.0, 0.0), wide)
        v = min(max((v0 + dv * at) * w - 32768.0, 0.0), high)
        pixel = np.int64(sample(picture, np.int64(u), np.int64(v)))
        alpha, part = pixel >> 24, shares[column]
        if lit != 256:
            red = min(((pixel & 255) * lit + 128) >> 8, alpha)
            green = min((((pixel >> 8) & 255) * lit + 128) >> 8, alpha)
            blue = min((((pixel >> 16) & 255) * lit + 128) >> 8, alpha)
            pixel = red | green << 8 | blue << 16 | alpha << 24
        if alpha == 255 and part == 256:
            line[column] = np.uint32(pixel)
        else:
            line[column] = _over(pixel, np.int64(line[column]), part)


@njit(inline="always")
def _over(pixel, under, part):  # type: ignore[no-untyped-def]
    """A premultiplied pixel, as much of it as covers, over another."""
    rest = 65536 - (((pixel >> 24) * part * 257) >> 8)
    out = 0
    for shift in range(0, 32, 8):
        level, below = (pixel >> shift) & 255, (under >> shift) & 255
        out |= min((level * part * 256 + below * rest + 32768) >> 16, 255) << shift
    return np.uint32(out)


@njit(cache=True, nogil=True, error_model="numpy")
def _flat(line: Line, tint: Array, shares: Shares) -> None:
    """Pixels of a side, solid in one colour."""
    pixel = int(tint[0]) | int(tint[1]) << 8 | int(tint[2]) << 16 | 255 << 24
    for column in range(len(shares)):
        line[column] = _over(pixel, np.int64(line[column]), shares[column])

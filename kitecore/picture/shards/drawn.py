from __future__ import annotations

import math

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba, packed
from kitecore.picture.sampling import Corners, Packed, four, sample_places
from kitecore.picture.shards.faces import Faces

Array = NDArray[np.float64]
Line = NDArray[np.uint32]
Shares = NDArray[np.uint32]
"""How much of each pixel of a row is covered, 0..256."""
Picture = tuple[Line, int, int]
"""Its pixels in one row, with a column and a row more than its own, which repeat the last; width; height."""
Room = tuple[Line, Line, Line, Corners]
"""For the samples of a row: where, how far on, what was found, and what between."""

_OVER = 0.5
"""Pixels by which faces reach over their edges: where two touch, each pixel is all of one of them."""


def draw_faces(canvas: Rgba, picture: Rgba, faces: Faces) -> None:
    """Draw faces onto a canvas, in place, in their order."""
    edges = np.empty((int(np.diff(faces.starts).max()), 4))
    height, width = picture.shape[:2]
    grown = cv2.copyMakeBorder(picture, 0, 1, 0, 1, cv2.BORDER_REPLICATE)
    source = packed(np.asarray(grown, np.uint8)).reshape(-1), width, height
    _draw(packed(canvas), source, faces.corners, faces.starts, faces.whence, faces.tints, edges)


@njit(cache=True, nogil=True, error_model="numpy")
def _draw(
    canvas: Packed,
    picture: Picture,
    corners: Array,
    starts: NDArray[np.int64],
    whence: Array,
    tints: Array,
    edges: Array,
) -> None:
    width = canvas.shape[1]
    row_of = np.empty(width, np.uint32)
    room = (
        np.empty(width, np.uint32),
        np.empty(width, np.uint32),
        np.empty(width, np.uint32),
        four(width),
    )
    for face in range(len(starts) - 1):
        polygon = corners[starts[face] : starts[face + 1]]
        count = _edges_of(polygon, edges)
        top = max(math.floor(polygon[:, 1].min() - 1), 0)
        bottom = min(math.ceil(polygon[:, 1].max() + 1), canvas.shape[0])
        for row in range(top, bottom):
            y = row + 0.5
            (low, high), (first, last) = _spans(edges, count, y, canvas.shape[1])
            begin, end = int(low), min(math.ceil(high), canvas.shape[1])
            if end <= begin:
                continue
            shares = row_of[: end - begin]
            whole = min(max(math.ceil(first - 0.5), begin), end)
            broken = max(min(math.floor(last + 0.5), end), whole)
            shares[whole - begin : broken - begin] = 256
            for column in range(begin, whole):
                shares[column - begin] = _covered(edges, count, column + 0.5, y)
            for column in range(broken, end):
                shares[column - begin] = _covered(edges, count, column + 0.5, y)
            line = canvas[row, begin:end]
            if whence[face, 2, 2] != 0:
                _textured(line, picture, begin + 0.5, y, whence[face], tints[face, 0], shares, room)
            else:
                _flat(line, tints[face], shares)


@njit(cache=True, nogil=True, error_model="numpy")
def _spans(
    edges: Array, count: int, y: float, width: int
) -> tuple[tuple[float, float], tuple[float, float]]:
    """From where to where a row is touched by a face, and between them is all of it."""
    low, high, first, last = 0.0, float(width), 0.0, float(width)
    out, within = 0.5 + _OVER, _OVER - 0.5
    for edge in range(count):
        a, rest, over = edges[edge, 0], edges[edge, 1] * y + edges[edge, 2], edges[edge, 3]
        if a > 1e-9:
            at = -rest * over
            low, first = max(low, at - out * over), max(first, at - within * over)
        elif a < -1e-9:
            at = -rest * over
            high, last = min(high, at - out * over), min(last, at - within * over)
        else:
            if rest + out < 0:
                return (0.0, -1.0), (0.0, -1.0)
            if rest + within < 0:
                last = -1.0
    return (low, high), (first, last)


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
    """Lines a x + b y + c = 0 of a convex polygon, positive inside, in pixels; how many there are.

    The fourth number of each is 1 / a.
    """
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
            a, b = edges[count, 0], edges[count, 1]
            edges[count, 2], edges[count, 3] = -(a * polygon[one, 0] + b * polygon[one, 1]), 1 / a
            count += 1
    return count


@njit(cache=True, nogil=True, error_model="numpy", fastmath={"nnan", "ninf", "arcp"})
def _textured(
    line: Line,
    picture: Picture,
    x: float,
    y: float,
    whence: Array,
    light: float,
    shares: Shares,
    room: Room,
) -> None:
    """Pixels of a face that shows the picture: bilinear samples, lit, over what is there."""
    flat, width, height = picture
    places, parts, drawn, corners = room
    count = line.shape[0]
    u0 = whence[0, 1] * y + whence[0, 2]
    v0 = whence[1, 1] * y + whence[1, 2]
    w0 = whence[2, 1] * y + whence[2, 2]
    du, dv, dw = whence[0, 0], whence[1, 0], whence[2, 0]
    wide, high = (width - 1) * 256.0, (height - 1) * 256.0
    stride = np.int32(width + 1)
    eight, rest, sixteen = np.int32(8), np.int32(255), np.int32(16)
    for k in range(count):
        at = x + k
        # In 256ths from the middle of the first pixel, to the nearest.
        w = 256.0 / (w0 + dw * at)
        u = np.int32(min(max((u0 + du * at) * w - 127.5, 0.0), wide))
        v = np.int32(min(max((v0 + dv * at) * w - 127.5, 0.0), high))
        places[k] = np.uint32((v >> eight) * stride + (u >> eight))
        parts[k] = np.uint32((v & rest) << sixteen | (u & rest))
    sample_places(flat, width + 1, places[:count], parts[:count], drawn[:count], corners)
    lit = np.uint32(light * 256 + 0.5)
    for k in range(count):
        line[k] = _over(_lit(drawn[k], lit), line[k], shares[k])


@njit(inline="always")
def _lit(pixel, lit):  # type: ignore[no-untyped-def]
    """A premultiplied pixel as many 256ths as bright."""
    byte, half, eight, last = np.uint32(255), np.uint32(128), np.uint32(8), np.uint32(24)
    sixteen, alpha = np.uint32(16), pixel >> last
    red = min(((pixel & byte) * lit + half) >> eight, alpha)
    green = min(((pixel >> eight & byte) * lit + half) >> eight, alpha)
    blue = min(((pixel >> sixteen & byte) * lit + half) >> eight, alpha)
    return np.uint32(red | green << eight | blue << sixteen | alpha << last)


@njit(inline="always")
def _over(pixel, under, part):  # type: ignore[no-untyped-def]
    """A premultiplied pixel, as much of it as covers, over another."""
    byte, half, eight = np.uint32(255), np.uint32(32768), np.uint32(8)
    sixteen, last = np.uint32(16), np.uint32(24)
    rest = np.uint32(65536) - ((pixel >> last) * part * np.uint32(257) >> eight)
    share = part << eight
    # Channel by channel and not in a loop: so the compiler takes several pixels at a time.
    red = ((pixel & byte) * share + (under & byte) * rest + half) >> sixteen
    green = ((pixel >> eight & byte) * share + (under >> eight & byte) * rest + half) >> sixteen
    blue = ((pixel >> sixteen & byte) * share + (under >> sixteen & byte) * rest + half) >> sixteen
    alpha = ((pixel >> last) * share + (under >> last) * rest + half) >> sixteen
    even = min(red, byte) | min(blue, byte) << sixteen
    return np.uint32(even | min(green, byte) << eight | min(alpha, byte) << last)


@njit(cache=True, nogil=True, error_model="numpy")
def _flat(line: Line, tint: Array, shares: Shares) -> None:
    """Pixels of a side, solid in one colour."""
    pixel = np.uint32(int(tint[0]) | int(tint[1]) << 8 | int(tint[2]) << 16 | 255 << 24)
    for k in range(len(shares)):
        line[k] = _over(pixel, line[k], shares[k])

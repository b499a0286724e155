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
Rows = NDArray[np.int64]
"""Of each row of the canvas the first column that a face touches, the first that it covers, the first after
that which it does not cover, and the first behind it.
"""
Outline = tuple[Array, int]
"""Edges of a face (see `_edges_of`), and how many there are."""
Picture = tuple[Line, int, int]
"""Its pixels in one row, with a column and a row more than its own, which repeat the last; width; height."""
Room = tuple[Line, Line, Line, Corners]
"""For the samples of a row: where, how far on, what was found, and what between."""

_OVER = 0.5
"""Pixels by which faces reach over their edges: where two touch, each pixel is all of one of them."""

_LANES = 32
"""Pixels that the compiler takes at a time: rows are short, so what is worked out of them is made up to so
many, rather than the rest one by one.
"""


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
    height, width = canvas.shape
    most = width + _LANES
    room = (
        np.empty(most, np.uint32),
        np.empty(most, np.uint32),
        np.empty(most, np.uint32),
        four(most),
    )
    rows = np.empty((height, 4), np.int64)
    for face in range(len(starts) - 1):
        polygon = corners[starts[face] : starts[face + 1]]
        outline = edges, _edges_of(polygon, edges)
        top = max(math.floor(polygon[:, 1].min() - 1), 0)
        span = top, min(math.ceil(polygon[:, 1].max() + 1), height)
        _fill_rows(outline, span, width, rows)
        if whence[face, 2, 2] != 0:
            light = tints[face, 0]
            _textured(canvas, picture, span, rows, outline, whence[face], light, room)
        else:
            _flat(canvas, span, rows, outline, tints[face])


@njit(cache=True, nogil=True, error_model="numpy")
def _fill_rows(outline: Outline, span: tuple[int, int], width: int, rows: Rows) -> None:
    for row in range(span[0], span[1]):
        (low, high), (first, last) = _spans(outline, row + 0.5, width)
        begin, end = int(low), min(math.ceil(high), width)
        whole = min(max(math.ceil(first - 0.5), begin), end)
        rows[row, 0], rows[row, 1] = begin, whole
        rows[row, 2], rows[row, 3] = max(min(math.floor(last + 0.5), end), whole), end


@njit(cache=True, nogil=True, error_model="numpy")
def _spans(
    outline: Outline, y: float, width: int
) -> tuple[tuple[float, float], tuple[float, float]]:
    """From where to where a row is touched by a face, and between them is all of it."""
    edges, count = outline
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
def _covered(outline: Outline, x: float, y: float) -> int:
    """How much of a pixel a face covers, 0..256, by the distances of its middle from the edges."""
    edges, count = outline
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
    canvas: Packed,
    picture: Picture,
    span: tuple[int, int],
    rows: Rows,
    outline: Outline,
    whence: Array,
    light: float,
    room: Room,
) -> None:
    """Pixels of a face that shows the picture: bilinear samples, lit, over what is there.

    All rows of a face in one call and without slices: rows are short, and each of these takes longer
    than what is done.
    """
    flat, width, height = picture
    places, parts, drawn, corners = room
    under, across = canvas.reshape(-1), canvas.shape[1]
    lit, opaque = np.uint32(light * 256 + 0.5), np.uint32(0xFF000000)
    for row in range(span[0], span[1]):
        begin, whole, broken, end = rows[row, 0], rows[row, 1], rows[row, 2], rows[row, 3]
        if end <= begin:
            continue
        many = (end - begin + _LANES - 1) // _LANES * _LANES
        _seek((width, height), (begin + 0.5, row + 0.5), whence, end - begin, many, places, parts)
        sample_places(flat, width + 1, places, parts, many, drawn, corners)
        solid = opaque
        for k in range(many):
            drawn[k] = _lit(drawn[k], lit)
        for k in range(many):
            solid &= drawn[k]
        start = np.uint64(row * across + begin)
        if solid == opaque:
            for k in range(whole - begin, broken - begin):
                under[start + np.uint64(k)] = drawn[k]
        else:
            for k in range(whole - begin, broken - begin):
                spot = start + np.uint64(k)
                under[spot] = _over(drawn[k], under[spot], np.uint32(256))
        for first, behind in ((begin, whole), (broken, end)):
            for column in range(first, behind):
                share = np.uint32(_covered(outline, column + 0.5, row + 0.5))
                spot = np.uint64(row * across + column)
                under[spot] = _over(drawn[column - begin], under[spot], share)


@njit(inline="always")
def _seek(size, place, whence, count, many, places, parts):  # type: ignore[no-untyped-def]
    """Where in the picture a row of pixels is from; ``place`` is the middle of the first of them.

    What lies behind the last of ``count`` is as that one.
    """
    x, y = place
    one, middle, none = np.float32(256), np.float32(127.5), np.float32(0)
    u0 = np.float32(whence[0, 0] * x + whence[0, 1] * y + whence[0, 2])
    v0 = np.float32(whence[1, 0] * x + whence[1, 1] * y + whence[1, 2])
    w0 = np.float32(whence[2, 0] * x + whence[2, 1] * y + whence[2, 2])
    du, dv, dw = np.float32(whence[0, 0]), np.float32(whence[1, 0]), np.float32(whence[2, 0])
    wide, high = np.float32((size[0] - 1) * 256), np.float32((size[1] - 1) * 256)
    stride, last = np.int32(size[0] + 1), np.int32(count - 1)
    eight, rest, sixteen = np.int32(8), np.int32(255), np.int32(16)
    for k in range(many):
        at = np.float32(min(np.int32(k), last))
        # In 256ths from the middle of the first pixel, to the nearest.
        w = one / (w0 + dw * at)
        u = np.int32(min(max((u0 + du * at) * w - middle, none), wide))
        v = np.int32(min(max((v0 + dv * at) * w - middle, none), high))
        places[k] = np.uint32(np.int32((v >> eight) * stride) + (u >> eight))
        parts[k] = np.uint32(np.int32((v & rest) << sixteen) | (u & rest))


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
def _flat(canvas: Packed, span: tuple[int, int], rows: Rows, outline: Outline, tint: Array) -> None:
    """Pixels of a side, solid in one colour."""
    pixel = np.uint32(int(tint[0]) | int(tint[1]) << 8 | int(tint[2]) << 16 | 255 << 24)
    under, across = canvas.reshape(-1), canvas.shape[1]
    for row in range(span[0], span[1]):
        begin, whole, broken, end = rows[row, 0], rows[row, 1], rows[row, 2], rows[row, 3]
        for column in range(begin, end):
            spot = np.uint64(row * across + column)
            if whole <= column < broken:
                under[spot] = pixel
            else:
                share = np.uint32(_covered(outline, column + 0.5, row + 0.5))
                under[spot] = _over(pixel, under[spot], share)

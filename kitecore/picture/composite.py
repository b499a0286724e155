"""Laying layers onto a canvas (W3C Compositing and Blending Level 1, premultiplied form)."""

from __future__ import annotations

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.blend import Draw, blends
from kitecore.picture.layer import Layer, Matrix, Rgba, packed
from kitecore.picture.leaning import leans, upright
from kitecore.picture.sampling import four, sample_held, sample_line, sample_shifted

Packed = NDArray[np.uint32]
Six = tuple[float, float, float, float, float, float]
"""Of a map of the plane: x' = a x + c y + e, y' = b x + d y + f."""
Ends = NDArray[np.float64]

BAND = 64
"""Rows gathered at a time: a band stays in the processor's cache until it is blended."""

_NEAR = 1e-6


def lay(
    canvas: Rgba, layer: Layer, opacity: float = 1.0, blend: str = "normal", snug: float = 0.0
) -> None:
    """Draw ``layer`` onto ``canvas`` in place.

    Sampling is bilinear; the edge is soft over one pixel of the canvas, however much the layer is
    enlarged. A layer that lands on whole pixels is copied exactly. Layers much larger than they are
    drawn should come made smaller.

    Parameters
    ----------
    opacity
        0..1.
    blend
        A name in `kitecore.picture.blend.blends`.
    snug
        An upright layer whose edge is nearer than this to that of the canvas, in pixels, goes on
        to it: the canvas is a part cut out along a line between pixels.
    """
    level = round(min(max(opacity, 0.0), 1.0) * 255)
    if not level:
        return
    draw = blends[blend]
    if leans(layer.matrix):
        layer = upright(layer, canvas)
    # Six numbers are worked with faster than their matrix, and layers are many.
    (a, c, e), (b, d, f), _ = layer.matrix.tolist()
    shift = _whole_shift(a, b, c, d, e, f)
    if shift is not None:
        _lay_shifted(canvas, layer.pixels, shift, level, draw)
        return
    ends = _ends((a, b, c, d, e, f), layer, canvas, snug)
    left, top, right, bottom = _bounds((a, b, c, d, e, f), layer, canvas, snug)
    area = a * d - b * c
    if right <= left or bottom <= top or abs(area) < 1e-12:
        return
    inverse = np.array(
        [
            [d / area, -c / area, (c * f - d * e) / area],
            [-b / area, a / area, (b * e - a * f) / area],
            [0.0, 0.0, 1.0],
        ]
    )
    pixels = packed(np.ascontiguousarray(layer.pixels))
    room = np.empty((BAND, right - left, 4), np.uint8)
    for start in range(top, bottom, BAND):
        band = room[: bottom - start]
        _gather(pixels, inverse, ends, left, start, packed(band))
        draw(canvas, band, level, (left, start))


def _whole_shift(
    a: float, b: float, c: float, d: float, e: float, f: float
) -> tuple[int, int] | None:
    """The map as a shift by whole pixels, if it is one."""
    x, y = round(e), round(f)
    off = max(abs(a - 1), abs(b), abs(c), abs(d - 1), abs(e - x), abs(f - y))
    return (x, y) if off < _NEAR else None


def _lay_shifted(
    canvas: Rgba, pixels: Rgba, shift: tuple[int, int], level: int, draw: Draw
) -> None:
    x, y = shift
    left, top = max(x, 0), max(y, 0)
    right = min(x + pixels.shape[1], canvas.shape[1])
    bottom = min(y + pixels.shape[0], canvas.shape[0])
    if right > left and bottom > top:
        part = pixels[top - y : bottom - y, left - x : right - x]
        draw(canvas, part, level, (left, top))


def _bounds(six: Six, layer: Layer, canvas: Rgba, snug: float) -> tuple[int, int, int, int]:
    """Canvas pixels that the layer can touch, its soft edge included."""
    a, b, c, d, e, f = six
    height, width = layer.pixels.shape[:2]
    xs = (e, e + a * width, e + c * height, e + a * width + c * height)
    ys = (f, f + b * width, f + d * height, f + b * width + d * height)
    more = 1 + snug
    return (
        max(math.floor(min(xs) - more), 0),
        max(math.floor(min(ys) - more), 0),
        min(math.ceil(max(xs) + more), canvas.shape[1]),
        min(math.ceil(max(ys) + more), canvas.shape[0]),
    )


def _ends(six: Six, layer: Layer, canvas: Rgba, snug: float) -> Ends:
    """How far the layer's own left, top, right and bottom edges are moved out, in its pixels."""
    a, b, c, d, e, f = six
    ends = np.zeros(4)
    if not snug or max(abs(b), abs(c)) > _NEAR or not (a and d):
        return ends
    height, width = layer.pixels.shape[:2]
    rows, columns = canvas.shape[:2]
    places = ((e, a, columns), (f, d, rows), (e + a * width, a, columns), (f + d * height, d, rows))
    for side, (place, size, most) in enumerate(places):
        if min(abs(place), abs(place - most)) < snug:
            ends[side] = (snug + 1) / abs(size)
    return ends


@njit(cache=True, nogil=True)
def _gather(pixels: Packed, inverse: Matrix, ends: Ends, left: int, top: int, out: Packed) -> None:
    """Sample ``pixels`` for every pixel of ``out``; bilinear, positions in 16.16 fixed point."""
    height, width = pixels.shape
    one = 65536.0
    # Pixels of the layer to one of the canvas: over so many its edge is soft.
    soft_u = min(np.hypot(inverse[0, 0], inverse[0, 1]), 1.0) * one
    soft_v = min(np.hypot(inverse[1, 0], inverse[1, 1]), 1.0) * one
    first_u, first_v = (-0.5 - ends[0]) * one, (-0.5 - ends[1]) * one
    last_u, last_v = (width - 0.5 + ends[2]) * one, (height - 0.5 + ends[3]) * one
    du, dv = int(np.rint(inverse[0, 0] * one)), int(np.rint(inverse[1, 0] * one))
    most_u, most_v = (width - 1) << 16, (height - 1) << 16
    # Beyond these nothing of the layer is to be seen, its soft edge included.
    low_u, low_v = int(first_u - soft_u), int(first_v - soft_v)
    wide_u, wide_v = int(last_u + soft_u) - low_u, int(last_v + soft_v) - low_v
    rows, columns = out.shape
    flat, places, corners = pixels.reshape(-1), np.empty(columns, np.uint32), four(columns)
    for row in range(rows):
        x, y = left + 0.5, top + row + 0.5
        u0 = int(np.floor((inverse[0, 0] * x + inverse[0, 1] * y + inverse[0, 2] - 0.5) * one))
        v0 = int(np.floor((inverse[1, 0] * x + inverse[1, 1] * y + inverse[1, 2] - 0.5) * one))
        first, last = _inside(u0 - low_u, du, wide_u, 0, columns)
        first, last = _inside(v0 - low_v, dv, wide_v, first, last)
        begin, end = _inside(u0, du, most_u, first, last)
        begin, end = _inside(v0, dv, most_v, begin, end)
        out[row, :first] = np.uint32(0)
        out[row, last:] = np.uint32(0)
        for column in range(first, begin):
            u, v = u0 + column * du, v0 + column * dv
            cover = _covered(u, first_u, last_u, soft_u) * _covered(v, first_v, last_v, soft_v)
            out[row, column] = sample_held(pixels, u, v, cover)
        u, v = u0 + begin * du, v0 + begin * dv
        within = out[row, begin:end]
        if du == 65536 and dv == 0:
            sample_shifted(pixels, u, v, within)
        else:
            sample_line(flat, width, (u, v), (du, dv), within, places, corners)
        for column in range(end, last):
            u, v = u0 + column * du, v0 + column * dv
            cover = _covered(u, first_u, last_u, soft_u) * _covered(v, first_v, last_v, soft_v)
            out[row, column] = sample_held(pixels, u, v, cover)


@njit(cache=True, nogil=True)
def _covered(at: int, first: float, last: float, soft: float) -> float:
    """Share, 0..1, of a pixel of the canvas that lies between two edges of the layer."""
    inner = min(at - first, last - at) / soft + 0.5
    return min(max(inner, 0.0), 1.0)


@njit(cache=True, nogil=True)
def _inside(start: int, step: int, most: int, begin: int, end: int) -> tuple[int, int]:
    """The columns of ``begin`` to ``end`` at which ``start + column * step`` is in 0..most - 1."""
    if step == 0:
        return (begin, end) if 0 <= start < most else (begin, begin)
    if step > 0:
        first, last = -(start // step), -((start - most) // step)
    else:
        first, last = (start - most) // -step + 1, start // -step + 1
    first = min(max(first, begin), end)
    return first, min(max(last, first), end)

"""A picture on a bent mesh: each triangle takes its part of the picture along."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np
from numba import njit

from kitecore.picture.layer import Layer, moved, packed
from kitecore.picture.sampling import Packed, sample
from kitecore.picture.warps.mesh import Mesh, Points, Triangles

MOST_SIDE: Final = 4096
_ROOM: Final = 1
_FAR: Final = 4.0 * MOST_SIDE
"""Points that are dragged further off stay there."""


def on_mesh(layer: Layer, mesh: Mesh, bent: Points, aspect: float) -> Layer:
    """The layer with its picture where the points of ``mesh`` have gone to, ``bent``.

    What lies outside of the mesh is not drawn. The layer grows as far as the mesh reaches. Triangles
    are drawn in their order: where the sheet folds over, later ones lie above. Sampling is bilinear;
    a triangle at rest is copied exactly.
    """
    height, width = layer.pixels.shape[:2]
    scale, middle = np.array([width / aspect, height]), np.array([width / 2, height / 2])
    source = mesh.points * scale + middle
    target = np.clip(bent * scale + middle, -_FAR, _FAR)
    low = np.maximum(np.floor(target.min(axis=0)).astype(int) - _ROOM, -MOST_SIDE)
    high = np.ceil(target.max(axis=0)).astype(int) + _ROOM
    wide, tall = (max(int(side), 1) for side in np.minimum(high - low, MOST_SIDE))
    pixels = np.zeros((tall, wide, 4), np.uint8)
    _draw(packed(layer.pixels), source, target - low, mesh.triangles, packed(pixels))
    matrix = layer.matrix @ moved(float(low[0]), float(low[1]))
    return replace(layer, pixels=pixels, matrix=matrix)


@njit(cache=True, nogil=True)
def _draw(
    pixels: Packed, source: Points, target: Points, triangles: Triangles, out: Packed
) -> None:
    rows, columns = out.shape
    for number in range(triangles.shape[0]):
        a, b, c = triangles[number, 0], triangles[number, 1], triangles[number, 2]
        ax, ay = target[a, 0], target[a, 1]
        bx, by = target[b, 0] - ax, target[b, 1] - ay
        cx, cy = target[c, 0] - ax, target[c, 1] - ay
        area = bx * cy - by * cx
        if abs(area) < 1e-9:
            continue
        sbx, sby = source[b, 0] - source[a, 0], source[b, 1] - source[a, 1]
        scx, scy = source[c, 0] - source[a, 0], source[c, 1] - source[a, 1]
        # The affine map from where the triangle is drawn to where it comes from.
        ux, uy = (sbx * cy - scx * by) / area, (scx * bx - sbx * cx) / area
        vx, vy = (sby * cy - scy * by) / area, (scy * bx - sby * cx) / area
        top = min(ay, min(target[b, 1], target[c, 1]))
        bottom = max(ay, max(target[b, 1], target[c, 1]))
        first = max(int(np.ceil(top - 0.5)), 0)
        last = min(int(np.ceil(bottom - 0.5)), rows)
        du, dv = int(np.rint(ux * 65536)), int(np.rint(vx * 65536))
        for row in range(first, last):
            y = row + 0.5
            left, right = 1e18, -1e18
            for one, other in ((a, b), (b, c), (c, a)):
                # Two triangles find the same crossing of the side that they share.
                low, high = (one, other) if one < other else (other, one)
                y0, y1 = target[low, 1], target[high, 1]
                if (y0 <= y) != (y1 <= y):
                    x0 = target[low, 0]
                    x = x0 + (target[high, 0] - x0) * ((y - y0) / (y1 - y0))
                    left, right = min(left, x), max(right, x)
            begin = max(int(np.ceil(left - 0.5)), 0) if left < 1e17 else 0
            end = min(int(np.ceil(right - 0.5)), columns) if right > -1e17 else 0
            if begin >= end:
                continue
            x, dy = begin + 0.5 - ax, y - ay
            u = int(np.floor((source[a, 0] + ux * x + uy * dy - 0.5) * 65536 + 0.5))
            v = int(np.floor((source[a, 1] + vx * x + vy * dy - 0.5) * 65536 + 0.5))
            for column in range(begin, end):
                out[row, np.uint64(column)] = sample(pixels, u, v)
                u += du
                v += dv

from __future__ import annotations

import math

import numpy as np
from numba import njit

from kitecore.document.transitions.wipe import Wipe
from kitecore.picture.layer import Rgba
from kitecore.picture.transitions._base import transition_drawings


@transition_drawings.register("wipe")
def wipe(a: Rgba, b: Rgba, share: float, transition: Wipe, density: float) -> Rgba:
    """A straight line at right angles to its way; the edge is a smoothstep."""
    height, width = a.shape[:2]
    x, y = math.cos(math.radians(transition.angle)), math.sin(math.radians(transition.angle))
    length = abs(width * x) + abs(height * y)
    soft = max(min(transition.softness, 1.0) * length, 1.0)
    # From where nothing is covered yet to where the whole edge has left the picture.
    front = -length / 2 + share * (length + soft)
    out = np.empty_like(a)
    _wipe(a, b, x, y, front, soft, out)
    return out


@njit(cache=True, nogil=True)
def _wipe(a: Rgba, b: Rgba, x: float, y: float, front: float, soft: float, out: Rgba) -> None:
    height, width = a.shape[:2]
    for row in range(height):
        for column in range(width):
            along = (column + 0.5 - width / 2) * x + (row + 0.5 - height / 2) * y
            t = min(max((front - along) / soft, 0.0), 1.0)
            weight = int(t * t * (3 - 2 * t) * 256 + 0.5)
            for channel in range(4):
                first, second = int(a[row, column, channel]), int(b[row, column, channel])
                out[row, column, channel] = (first * (256 - weight) + second * weight + 128) >> 8

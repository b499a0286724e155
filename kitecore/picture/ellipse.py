"""How far points are from an ellipse."""

from __future__ import annotations

from math import sqrt
from typing import Any, Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

Array = NDArray[Any]

_STEPS: Final = 4
_LEAST: Final = 1e-4
"""Half axis below which an ellipse is no thinner."""


def from_ellipse(size: tuple[float, float], x: Array, y: Array) -> NDArray[np.float32]:
    """Distance to the nearest point of the edge, negative inside; in the measure of ``x`` and ``y``.

    Parameters
    ----------
    size
        Half axes.
    x, y
        Places from its middle, along its axes, of shapes that go together.
    """
    a, b = (max(side, _LEAST) for side in size)
    across, down = np.broadcast_arrays(np.float32(x), np.float32(y))
    out = np.empty(across.shape, np.float32)
    places = (np.ascontiguousarray(one).reshape(-1) for one in (across, down))
    _away(*places, np.float32(a), np.float32(b), out.reshape(-1))
    return out


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _away(x: Array, y: Array, a: np.float32, b: np.float32, out: Array) -> None:
    """Found along the evolute in a few steps.

    C. Chatfield, "A simple method for distance to ellipse", 2017: each step takes the curve as a
    circle around the centre of curvature at the last guess.
    """
    zero, one, least = np.float32(0), np.float32(1), np.float32(1e-18)
    over_a, over_b = one / a, one / b
    across, down = (a * a - b * b) * over_a, (b * b - a * a) * over_b
    for index in range(len(out)):
        # Off the very middle, from which no point of the edge is nearer than the others.
        px, py = max(abs(x[index]), np.float32(1e-6)), abs(y[index])
        tx = ty = np.float32(sqrt(0.5))
        for _ in range(_STEPS):
            ex, ey = across * tx * tx * tx, down * ty * ty * ty
            rx, ry, qx, qy = a * tx - ex, b * ty - ey, px - ex, py - ey
            scale = np.sqrt((rx * rx + ry * ry) / max(qx * qx + qy * qy, least))
            tx = min(max((qx * scale + ex) * over_a, zero), one)
            ty = min(max((qy * scale + ey) * over_b, zero), one)
            short = one / np.sqrt(max(tx * tx + ty * ty, least))
            tx, ty = tx * short, ty * short
        dx, dy, ix, iy = px - a * tx, py - b * ty, px * over_a, py * over_b
        away = np.sqrt(dx * dx + dy * dy)
        out[index] = -away if ix * ix + iy * iy < one else away

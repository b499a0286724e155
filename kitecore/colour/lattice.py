"""Colours read from a lattice, interpolated in tetrahedra.

Each cell is cut into six tetrahedra along its grey diagonal, so greys stay on a line (Kasson et al.,
"Performing color space conversions with three-dimensional linear interpolation", 1995).
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit
from numpy.typing import NDArray


def lattice(
    size: int, dtype: Any = np.float32, places: NDArray[np.float64] | None = None
) -> NDArray[Any]:
    """All colours of a lattice, shape (size³, 3), blue fastest; in even steps, or at ``places``."""
    grid = (np.linspace(0, 1, size) if places is None else places).astype(dtype)
    return np.stack(np.meshgrid(grid, grid, grid, indexing="ij"), axis=-1).reshape(-1, 3)


def sampled(values: NDArray[np.float32], rgb: NDArray[Any]) -> NDArray[Any]:
    """Colours of a table, shape (n, n, n, 3), at ``rgb`` (..., 3) in 0..1; beyond, the ends hold."""
    flat = np.ascontiguousarray(rgb.reshape(-1, 3))
    out = np.empty_like(flat)
    _sampled(np.ascontiguousarray(values), flat, out)
    return out.reshape(rgb.shape)


@njit(cache=True, nogil=True)
def _sampled(values: NDArray[np.float32], rgb: NDArray[Any], out: NDArray[Any]) -> None:
    most = values.shape[0] - 1
    index = np.empty(3, np.int64)
    part = np.empty(3, np.float64)
    for row in range(len(rgb)):
        for k in range(3):
            at = min(max(rgb[row, k], 0.0), 1.0) * most
            index[k] = min(int(at), most - 1)
            part[k] = at - index[k]
        r, g, b = index[0], index[1], index[2]
        # From the near corner to the far one along the axes, the largest part first.
        first = 0 if part[0] >= part[1] and part[0] >= part[2] else (1 if part[1] >= part[2] else 2)
        last = 2 if part[2] <= part[1] and part[2] <= part[0] else (1 if part[1] <= part[0] else 0)
        if first == last:
            last = (first + 2) % 3
        middle = 3 - first - last
        r1, g1, b1 = r + (first == 0), g + (first == 1), b + (first == 2)
        r2, g2, b2 = r1 + (middle == 0), g1 + (middle == 1), b1 + (middle == 2)
        for k in range(3):
            out[row, k] = (
                values[r, g, b, k] * (1 - part[first])
                + values[r1, g1, b1, k] * (part[first] - part[middle])
                + values[r2, g2, b2, k] * (part[middle] - part[last])
                + values[r + 1, g + 1, b + 1, k] * part[last]
            )

"""Means along lines: sums over few places of a large square."""

from __future__ import annotations

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba

Line = NDArray[np.uint8]

_ONE = 1 << 16


def tapped(pixels: Rgba, weights: NDArray[np.floating]) -> Rgba:
    """Each pixel the sum of those around it by weights; the edges go on as they are.

    Parameters
    ----------
    weights
        Of an odd number of rows and columns, together 1; most of them nothing.
    """
    down, across = (side // 2 for side in weights.shape)
    grown = cv2.copyMakeBorder(pixels, down, down, across, across, cv2.BORDER_REPLICATE)
    shares = np.rint(weights * _ONE).astype(np.int64)
    # Together one again: what rounding took is given to the middle.
    shares[down, across] += _ONE - shares.sum()
    rows, columns = np.nonzero(shares)
    out = np.empty(pixels.shape, np.uint8)
    around: Rgba = np.asarray(grown, np.uint8)
    found = shares[rows, columns].astype(np.uint32)
    _sum(around.reshape(len(around), -1), rows, 4 * columns, found, out.reshape(len(out), -1))
    return out


@njit(cache=True, nogil=True)
def _sum(
    around: Line,
    rows: NDArray[np.int64],
    columns: NDArray[np.int64],
    weights: NDArray[np.uint32],
    out: Line,
) -> None:
    width = out.shape[1]
    total = np.empty(width, np.uint32)
    half, sixteen = np.uint32(_ONE // 2), np.uint32(16)
    for row in range(out.shape[0]):
        total[:] = half
        for tap in range(len(rows)):
            line = around[row + rows[tap], columns[tap] : columns[tap] + width]
            weight = weights[tap]
            for k in range(width):
                total[k] += np.uint32(line[k]) * weight
        drawn = out[row, :]
        for k in range(width):
            drawn[k] = np.uint8(total[k] >> sixteen)

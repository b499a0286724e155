"""What is laid into a picture, in the light of what lies around it: no seam is left.

P. Pérez, M. Gangnet, A. Blake, "Poisson Image Editing", 2003: the difference between the picture and
what is laid is carried on into the hole as a membrane. That is smooth, so it is found on a coarse
grid; its edge is an average of several pixels, so noise there leaves no streaks.
"""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba

_CELLS: Final = 32
"""Of the grid's longer side at most."""
_AVERAGED: Final = 3
"""Pixels of a cell's side from which on its average is even enough."""
_ROUNDS: Final = 40
_OVER: Final = np.float32(1.8)
"""Over-relaxation, near the best for a grid of that size."""

Array = NDArray[Any]


def in_light(pixels: Array, laid: Rgba, cover: NDArray[np.uint8]) -> Rgba:
    """What is laid, changed smoothly so that it goes on from the pixels that are not covered.

    Only the covered pixels of the result mean anything.

    Parameters
    ----------
    pixels, laid
        Premultiplied RGBA, 0..255, of one shape. Where nothing is free what is laid stays as it is.
    cover
        Shape (height, width); 0 where the pixels are to be seen.
    """
    factor = max(1, -(-max(cover.shape) // _CELLS))
    sums, free = _cells(pixels, laid, cover, factor)
    sure = free > 0
    if not sure.any():
        return laid
    if factor < _AVERAGED:
        sums, free = cv2.blur(sums, (3, 3)), cv2.blur(free, (3, 3))
    grid = sums / np.maximum(free, np.float32(1e-6))[..., None]
    grid[~sure] = grid[sure].mean(axis=0)
    _relax(grid, sure, _ROUNDS, _OVER)
    return np.asarray(_lit(laid, grid, cover, factor))


@njit(cache=True, nogil=True)
def _cells(pixels: Array, laid: Array, cover: Array, factor: int) -> tuple[Array, Array]:
    """Sums of the differences in each cell, and how many pixels of it are free."""
    height, width = cover.shape
    rows, columns = (height + factor - 1) // factor, (width + factor - 1) // factor
    sums = np.zeros((rows, columns, 4), np.float32)
    free = np.zeros((rows, columns), np.float32)
    for y in range(height):
        row = y // factor
        for column in range(columns):
            for x in range(column * factor, min((column + 1) * factor, width)):
                if cover[y, x] == 0:
                    free[row, column] += np.float32(1)
                    for c in range(4):
                        gap = np.float32(pixels[y, x, c]) - np.float32(laid[y, x, c])
                        sums[row, column, c] += gap
    return sums, free


@njit(cache=True, nogil=True)
def _relax(grid: Array, sure: Array, rounds: int, over: Any) -> None:
    """Laplace's equation where nothing is sure, by red and black turns; edges are mirrored."""
    rows, columns, _ = grid.shape
    quarter = np.float32(0.25)
    for turn in range(2 * rounds):
        for y in range(rows):
            up, down = max(y - 1, 0), min(y + 1, rows - 1)
            for x in range((y + turn) % 2, columns, 2):
                if sure[y, x]:
                    continue
                left, right = max(x - 1, 0), min(x + 1, columns - 1)
                for c in range(4):
                    near = grid[up, x, c] + grid[down, x, c] + grid[y, left, c] + grid[y, right, c]
                    grid[y, x, c] += over * (quarter * near - grid[y, x, c])


@njit(cache=True, nogil=True)
def _lit(laid: Array, grid: Array, cover: Array, factor: int) -> Array:
    """What is laid and the membrane, by straight lines between the middles of cells."""
    height, width, _ = laid.shape
    rows, columns, _ = grid.shape
    out = np.empty((height, width, 4), np.uint8)
    line = np.empty((columns, 4), np.float32)
    half = np.float32(0.5)
    for y in range(height):
        above, under, share = _between(y, factor, rows)
        for x in range(columns):
            for c in range(4):
                line[x, c] = grid[above, x, c] + share * (grid[under, x, c] - grid[above, x, c])
        for x in range(width):
            if cover[y, x] == 0:
                continue
            left, right, share = _between(x, factor, columns)
            most = np.float32(255)
            for c in (3, 0, 1, 2):
                more = line[left, c] + share * (line[right, c] - line[left, c])
                value = min(max(np.float32(laid[y, x, c]) + more, np.float32(0)), most)
                out[y, x, c] = np.uint8(value + half)
                if c == 3:
                    most = np.float32(out[y, x, 3])
    return out


@njit(inline="always")
def _between(pixel: int, factor: int, cells: int) -> Any:
    """The cells whose middles lie on both sides of a pixel, and the share of the second."""
    half = np.float32(0.5)
    place = (np.float32(pixel) + half) / np.float32(factor) - half
    place = min(max(place, np.float32(0)), np.float32(cells - 1))
    first = np.int64(place)
    return first, min(first + 1, cells - 1), place - np.float32(first)

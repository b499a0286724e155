"""Values known in places carried to everywhere else."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba, packed

Array = NDArray[Any]
Packed = NDArray[np.uint32]

BLOCK: Final = 2
"""Side in pixels of the blocks in which colours are gathered."""
_FULL: Final = 4.0
"""A quarter of a block known is as good as all of it."""


def gathered(pixels: Rgba, where: NDArray[np.uint8]) -> Array:
    """Colours 0..1 of the opaque pixels that are marked, spread from there over blocks of ``BLOCK`` pixels.

    Float32, shape (ceil(height / BLOCK), ceil(width / BLOCK), 4): red, green, blue, and 1; all 0
    where nothing is marked.
    """
    height, width = where.shape
    sums = np.zeros((-(-height // BLOCK), -(-width // BLOCK), 4), np.float32)
    _summed(packed(pixels), where, sums)
    return spread(sums)


def spread(known: Array) -> Array:
    """Weighted values (all channels but the last, which is the weight 0..1) carried everywhere.

    In place: at the end all weights are 1, or 0 if nothing is known.

    By a pyramid: pulled together into ever smaller pictures, and pushed back to where nothing
    nearer was known (S. Gortler et al., "The Lumigraph", SIGGRAPH 1996, section 3.4.2).
    """
    levels = [np.ascontiguousarray(known)]
    while max(levels[-1].shape[:2]) > 1:
        height, width, channels = levels[-1].shape
        small = np.zeros((-(-height // 2), -(-width // 2), channels), np.float32)
        _pull(levels[-1], small)
        levels.append(small)
    filled = levels.pop()
    filled /= np.maximum(filled[..., -1:], 1e-6)
    while levels:
        finer = levels.pop()
        _push(finer, filled)
        filled = finer
    return filled


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _pull(finer: Array, coarse: Array) -> None:
    """Means of two by two, which count as known from a quarter on, into a picture of zeros."""
    height, width, channels = finer.shape
    quarter, one, full = np.float32(0.25), np.float32(1), np.float32(_FULL)
    for y in range(height):
        line, sums = finer[y], coarse[y // 2]
        for x in range(width):
            for c in range(channels):
                sums[x // 2, c] += line[x, c] * quarter
    for y in range(coarse.shape[0]):
        sums = coarse[y]
        for x in range(coarse.shape[1]):
            more = min(full, one / max(sums[x, channels - 1], np.float32(1e-6)))
            for c in range(channels):
                sums[x, c] *= more


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _push(finer: Array, coarse: Array) -> None:
    """What is not known in ``finer`` from ``coarse``, bilinear, in place."""
    height, width, channels = finer.shape
    bottom, right = coarse.shape[0] - 1, coarse.shape[1] - 1
    one, near, far = np.float32(1), np.float32(0.75), np.float32(0.25)
    between = np.empty((right + 1, channels), np.float32)
    for y in range(height):
        nearest = coarse[y // 2]
        other = coarse[min(max(y // 2 + 2 * (y % 2) - 1, 0), bottom)]
        for x in range(right + 1):
            for c in range(channels):
                between[x, c] = nearest[x, c] * near + other[x, c] * far
        line = finer[y]
        for x in range(width):
            rest = one - line[x, channels - 1]
            i, k = x // 2, min(max(x // 2 + 2 * (x % 2) - 1, 0), right)
            for c in range(channels):
                line[x, c] += (between[i, c] * near + between[k, c] * far) * rest


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _summed(pixels: Packed, where: NDArray[np.uint8], sums: Array) -> None:
    height, width = where.shape
    byte, share = np.uint32(255), np.float32(1 / BLOCK**2)
    part = np.float32(share / np.float32(255))
    # Rows column by column, which the compiler does many at a time; then columns.
    counts = np.zeros((4, sums.shape[1] * BLOCK), np.float32)
    red, green, blue, known = counts[0], counts[1], counts[2], counts[3]
    for y in range(height):
        line, marks = pixels[y, :], where[y, :]
        for x in range(width):
            word = line[x]
            opaque = np.int32(word >> np.uint32(24)) == np.int32(255)
            counted = np.float32(np.int32(opaque & (marks[x] != 0)))
            red[x] += counted * np.float32(np.int32(word & byte))
            green[x] += counted * np.float32(np.int32((word >> np.uint32(8)) & byte))
            blue[x] += counted * np.float32(np.int32((word >> np.uint32(16)) & byte))
            known[x] += counted
        if (y + 1) % BLOCK and y + 1 < height:
            continue
        row = sums[y // BLOCK]
        for block in range(sums.shape[1]):
            x = block * BLOCK
            row[block, 0] = (red[x] + red[x + 1]) * part
            row[block, 1] = (green[x] + green[x + 1]) * part
            row[block, 2] = (blue[x] + blue[x + 1]) * part
            row[block, 3] = (known[x] + known[x + 1]) * share
        counts[:] = 0


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def at_pixel(
    blocks: Array, side: np.float32, x: int, y: int
) -> tuple[np.float32, np.float32, np.float32]:
    """Red, green and blue of gathered colours at a pixel, bilinear; ``side`` of a block."""
    most_y, most_x = blocks.shape[0] - 1, blocks.shape[1] - 1
    zero, half = np.float32(0), np.float32(0.5)
    v = min(max((np.float32(y) + half) / side - half, zero), np.float32(most_y))
    u = min(max((np.float32(x) + half) / side - half, zero), np.float32(most_x))
    # Without a sign nobody asks whether they count from the end.
    i, j = np.uint64(u), np.uint64(v)
    k, n = min(i + np.uint64(1), np.uint64(most_x)), min(j + np.uint64(1), np.uint64(most_y))
    fu, fv = u - np.float32(i), v - np.float32(j)
    w11 = fu * fv
    w10, w01 = fu - w11, fv - w11
    w00 = np.float32(1) - fu - w01
    return (
        blocks[j, i, 0] * w00
        + blocks[j, k, 0] * w10
        + blocks[n, i, 0] * w01
        + blocks[n, k, 0] * w11,
        blocks[j, i, 1] * w00
        + blocks[j, k, 1] * w10
        + blocks[n, i, 1] * w01
        + blocks[n, k, 1] * w11,
        blocks[j, i, 2] * w00
        + blocks[j, k, 2] * w10
        + blocks[n, i, 2] * w01
        + blocks[n, k, 2] * w11,
    )

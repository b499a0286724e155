"""Bilinear samples of packed pixels, at positions in 16.16 fixed point."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

Packed = NDArray[np.uint32]


@njit(cache=True, nogil=True)
def sample(pixels: Packed, u: int, v: int) -> np.uint32:
    """One sample, channel by channel; beyond the border it is transparent.

    ``u``, ``v`` count from the middle of the first pixel.
    """
    height, width = pixels.shape
    if u < 0 or v < 0 or u >= (width - 1) << 16 or v >= (height - 1) << 16:
        return np.uint32(sample_edge(pixels, u, v))
    low, eight = np.uint32(0x00FF00FF), np.uint32(8)
    i, j = np.uint64(u >> 16), np.uint64(v >> 16)
    fu, fv = np.uint32((u >> 8) & 255), np.uint32((v >> 8) & 255)
    w11 = np.uint32((fu * fv + np.uint32(128)) >> eight)
    w10, w01 = np.uint32(fu - w11), np.uint32(fv - w11)
    w00 = np.uint32(np.uint32(256) - fu - w01)
    p, q = pixels[j, i], pixels[j, i + np.uint64(1)]
    r, s = pixels[j + np.uint64(1), i], pixels[j + np.uint64(1), i + np.uint64(1)]
    even = np.uint32((p & low) * w00 + (q & low) * w10)
    even += np.uint32((r & low) * w01 + (s & low) * w11)
    p, q, r, s = p >> eight, q >> eight, r >> eight, s >> eight
    odd = np.uint32((p & low) * w00 + (q & low) * w10)
    odd += np.uint32((r & low) * w01 + (s & low) * w11)
    return np.uint32(((even >> eight) & low) | (odd & ~low))


@njit(cache=True, nogil=True)
def sample_edge(pixels: Packed, u: int, v: int) -> np.uint32:
    """One sample of which some of the four pixels lie outside and count as transparent."""
    height, width = pixels.shape
    i, j = u >> 16, v >> 16
    if i < -1 or j < -1 or i >= width or j >= height:
        return np.uint32(0)
    fu, fv = (u >> 8) & 255, (v >> 8) & 255
    mixed = 0
    for channel in range(0, 32, 8):
        total = 32768
        for corner in range(4):
            x, y = i + corner % 2, j + corner // 2
            if 0 <= x < width and 0 <= y < height:
                weight = (fu if corner % 2 else 256 - fu) * (fv if corner // 2 else 256 - fv)
                total += weight * ((int(pixels[y, x]) >> channel) & 255)
        mixed |= (total >> 16) << channel
    return np.uint32(mixed)


@njit(cache=True, nogil=True)
def sample_held(pixels: Packed, u: int, v: int, cover: float) -> np.uint32:
    """One sample, beyond the border that of the border, let through by ``cover`` (0..1)."""
    if cover <= 0:
        return np.uint32(0)
    height, width = pixels.shape
    i, j = u >> 16, v >> 16
    fu, fv = (u >> 8) & 255, (v >> 8) & 255
    left, right = min(max(i, 0), width - 1), min(max(i + 1, 0), width - 1)
    upper, lower = min(max(j, 0), height - 1), min(max(j + 1, 0), height - 1)
    level = int(np.rint(cover * 256))
    mixed = 0
    for channel in range(0, 32, 8):
        p, q = (
            (int(pixels[upper, left]) >> channel) & 255,
            (int(pixels[upper, right]) >> channel) & 255,
        )
        r, s = (
            (int(pixels[lower, left]) >> channel) & 255,
            (int(pixels[lower, right]) >> channel) & 255,
        )
        held = (p * (256 - fu) + q * fu) * (256 - fv) + (r * (256 - fu) + s * fu) * fv
        mixed |= ((held * level + 8388608) >> 24) << channel
    return np.uint32(mixed)

"""Bilinear samples of packed pixels, at positions in 16.16 fixed point."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

Packed = NDArray[np.uint32]
Corners = tuple[Packed, Packed, Packed, Packed]


@njit(inline="always")
def _weights(u, v):  # type: ignore[no-untyped-def]
    """Of the four pixels around a position, the upper ones first; together 256."""
    return _shares(np.uint32((u >> 8) & 255), np.uint32((v >> 8) & 255))


@njit(inline="always")
def _shares(fu, fv):  # type: ignore[no-untyped-def]
    w11 = np.uint32(np.uint32(fu * fv + np.uint32(128)) >> np.uint32(8))
    w10, w01 = np.uint32(fu - w11), np.uint32(fv - w11)
    return np.uint32(np.uint32(256) - fu - w01), w10, w01, w11


@njit(inline="always")
def _mixed(p, q, r, s, weights):  # type: ignore[no-untyped-def]
    """Four pixels by weights of together 256, two channels at a time, rounded."""
    low, eight, half = np.uint32(0x00FF00FF), np.uint32(8), np.uint32(0x00800080)
    w00, w10, w01, w11 = weights
    even = np.uint32(np.uint32((p & low) * w00 + half) + np.uint32((q & low) * w10))
    even = np.uint32(even + np.uint32((r & low) * w01) + np.uint32((s & low) * w11))
    odd = np.uint32(
        np.uint32(((p >> eight) & low) * w00 + half) + np.uint32(((q >> eight) & low) * w10)
    )
    odd = np.uint32(
        odd + np.uint32(((r >> eight) & low) * w01) + np.uint32(((s >> eight) & low) * w11)
    )
    return np.uint32(((even >> eight) & low) | (odd & np.uint32(0xFF00FF00)))


@njit(inline="always")
def _load(flat, below, places, count, corners):  # type: ignore[no-untyped-def]
    """The four pixels around each place, of a picture in one row of ``below`` to one of its own."""
    upper, after, lower, last = corners
    one = np.uint32(1)
    for k in range(count):
        at = places[k]
        upper[k], after[k] = flat[at], flat[np.uint32(at + one)]
        lower[k] = flat[np.uint32(at + below)]
        last[k] = flat[np.uint32(at + below + one)]


@njit(cache=True, nogil=True)
def four(count: int) -> Corners:
    """Room for the pixels that so many samples lie between."""
    return (
        np.empty(count, np.uint32),
        np.empty(count, np.uint32),
        np.empty(count, np.uint32),
        np.empty(count, np.uint32),
    )


@njit(inline="always")
def sample_line(flat, width, start, step, out, places, corners):  # type: ignore[no-untyped-def]
    """Samples along a straight line of positions that all lie within the picture.

    Places first, then loads, then the mixing: the first and the last loop go many at a time. Part of
    whoever calls it, as `sample_places` is.

    Parameters
    ----------
    flat, width
        The pixels of the picture in one row, and how many make one of its own.
    places, corners
        Room for as many as there are in ``out``, at least.
    """
    upper, after, lower, last = corners
    wide, below = np.int32(width), np.uint32(width)
    u0, v0 = np.int32(start[0]), np.int32(start[1])
    du, dv = np.int32(step[0]), np.int32(step[1])
    sixteen = np.int32(16)
    count = out.shape[0]
    for k in range(count):
        u, v = np.int32(u0 + np.int32(k) * du), np.int32(v0 + np.int32(k) * dv)
        places[k] = np.uint32(np.int32(v >> sixteen) * wide + np.int32(u >> sixteen))
    _load(flat, below, places, count, corners)
    for k in range(count):
        u, v = np.int32(u0 + np.int32(k) * du), np.int32(v0 + np.int32(k) * dv)
        out[k] = _mixed(upper[k], after[k], lower[k], last[k], _weights(u, v))


@njit(inline="always")
def sample_places(flat, width, places, parts, count, out, corners):  # type: ignore[no-untyped-def]
    """Samples at any positions that all lie within the picture, but for its last row and column.

    Part of whoever calls it: of short rows the call would take longer than what is done.

    Parameters
    ----------
    flat, width
        The pixels of the picture in one row, and how many make one of its own.
    places, parts
        The pixel on whose lower right each lies, and how far on, in 256ths: across, and down in the
        upper 16 bits.
    count
        How many there are.
    corners
        Room for as many.
    """
    upper, after, lower, last = corners
    sixteen, low = np.uint32(16), np.uint32(0xFFFF)
    _load(flat, np.uint32(width), places, count, corners)
    for k in range(count):
        weights = _shares(parts[k] & low, parts[k] >> sixteen)
        out[k] = _mixed(upper[k], after[k], lower[k], last[k], weights)


@njit(cache=True, nogil=True)
def sample_shifted(pixels: Packed, u: int, v: int, out: Packed) -> None:
    """Samples a pixel apart, from a position on; all lie within the picture."""
    weights, count = _weights(u, v), out.shape[0]
    i, j = u >> 16, v >> 16
    upper, lower = pixels[j, i : i + count + 1], pixels[j + 1, i : i + count + 1]
    for k in range(count):
        out[k] = _mixed(upper[k], upper[k + 1], lower[k], lower[k + 1], weights)


@njit(cache=True, nogil=True)
def sample(pixels: Packed, u: int, v: int) -> np.uint32:
    """One sample, channel by channel; beyond the border it is transparent.

    ``u``, ``v`` count from the middle of the first pixel.
    """
    height, width = pixels.shape
    if u < 0 or v < 0 or u >= (width - 1) << 16 or v >= (height - 1) << 16:
        return np.uint32(sample_edge(pixels, u, v))
    i, j = np.uint64(u >> 16), np.uint64(v >> 16)
    k, n = i + np.uint64(1), j + np.uint64(1)
    return _mixed(pixels[j, i], pixels[j, k], pixels[n, i], pixels[n, k], _weights(u, v))  # type: ignore[no-any-return]


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

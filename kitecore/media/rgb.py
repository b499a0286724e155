"""From the planes of a frame to RGBA, exactly (H.273, 8.3).

FFmpeg's own conversion comes out one to two levels too dark, and not the same at every size.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

Plane = NDArray[np.uint8]
DeepPlane = NDArray[np.uint16]
Factors = NDArray[np.int32]

_BITS: Final = 14
_SPREAD: Final = 65535 / (255 * 256)
_WEIGHTS: Final = {
    1: (0.2126, 0.0722),
    4: (0.30, 0.11),
    5: (0.299, 0.114),
    6: (0.299, 0.114),
    7: (0.212, 0.087),
    9: (0.2627, 0.0593),
    10: (0.2627, 0.0593),
}
"""Of red and blue in luma, by H.273 number of the matrix."""


def factors_of(matrix: int, *, full_range: bool, deep: bool = False) -> Factors:
    """What `fill_rgba` multiplies with: by a matrix (BT.709 if it is none that is known) and range.

    Parameters
    ----------
    deep
        For `fill_rgb16`.

    Returns
    -------
    Level of black; then luma, Cr in red, Cb in green, Cr in green, Cb in blue, scaled by 2**14.
    """
    red, blue = _WEIGHTS.get(matrix, _WEIGHTS[1])
    green = 1 - red - blue
    luma, chroma, black = (1.0, 1.0, 0) if full_range else (255 / 219, 255 / 224, 16)
    if deep:
        # From levels of 8 bits moved up by 8 to all that 16 hold.
        luma, chroma, black = luma * _SPREAD, chroma * _SPREAD, black << 8
    parts = (
        luma,
        2 * (1 - red) * chroma,
        -2 * (1 - blue) * blue / green * chroma,
        -2 * (1 - red) * red / green * chroma,
        2 * (1 - blue) * chroma,
    )
    return np.array([black, *(round(part * 2**_BITS) for part in parts)], np.int32)


def fill_rgb16(
    luma: DeepPlane, cb: DeepPlane, cr: DeepPlane, out: NDArray[np.uint16], factors: Factors
) -> None:
    """Write RGB of 16 bits, shape (height, width, 3), from planes of 16 bits of the same size."""
    _fill_deep(luma, cb, cr, out, factors.astype(np.int64))


@njit(cache=True, nogil=True)
def fill_cut(deep: NDArray[np.uint16], out: NDArray[np.uint8], rounding: float) -> None:
    """Write opaque RGBA from RGB of 16 bits of the same size.

    Parameters
    ----------
    rounding
        Share of a level, 0..1, that is added before what is finer is cut off; a half for the nearest.
    """
    rows, columns, _ = deep.shape
    more = np.uint32(rounding * 65535)
    for y in range(rows):
        for x in range(columns):
            for k in range(3):
                level = np.uint32(deep[y, x, k]) * np.uint32(255) + more
                out[y, x, k] = level // np.uint32(65535)
            out[y, x, 3] = 255


def fill_rgba(luma: Plane, cb: Plane, cr: Plane, out: NDArray[np.uint32], factors: Factors) -> None:
    """Write opaque RGBA, each pixel one number with red in its lowest byte.

    Parameters
    ----------
    luma, cb, cr
        8 bits, with rows that may be padded; chroma of the size of luma, or of half its width and
        height, rounded up.
    """
    if cb.shape[0] >= out.shape[0]:
        _fill_whole(luma, cb, cr, out, factors)
    else:
        _fill_halved(luma, cb, cr, out, factors)


@njit(inline="always")
def _packed(light, red, green, blue):  # type: ignore[no-untyped-def]
    """Red, green and blue of a luma and the terms of its chroma, as one number."""
    r = (light + red) >> np.int32(14)
    g = (light + green) >> np.int32(14)
    b = (light + blue) >> np.int32(14)
    r = min(max(r, np.int32(0)), np.int32(255))
    g = min(max(g, np.int32(0)), np.int32(255))
    b = min(max(b, np.int32(0)), np.int32(255))
    return (
        np.uint32(r)
        | (np.uint32(g) << np.uint32(8))
        | (np.uint32(b) << np.uint32(16))
        | np.uint32(0xFF000000)
    )


@njit(cache=True, nogil=True)
def _fill_whole(
    luma: Plane, cb: Plane, cr: Plane, out: NDArray[np.uint32], factors: Factors
) -> None:
    height, width = out.shape
    black, fy, rv = np.int32(factors[0]), np.int32(factors[1]), np.int32(factors[2])
    gu, gv, bu = np.int32(factors[3]), np.int32(factors[4]), np.int32(factors[5])
    half, middle = np.int32(8192), np.int32(128)
    for y in range(height):
        for x in range(width):
            u, v = np.int32(cb[y, x]) - middle, np.int32(cr[y, x]) - middle
            light = (np.int32(luma[y, x]) - black) * fy + half
            out[y, x] = _packed(light, v * rv, u * gu + v * gv, u * bu)


@njit(cache=True, nogil=True)
def _fill_halved(
    luma: Plane, cb: Plane, cr: Plane, out: NDArray[np.uint32], factors: Factors
) -> None:
    height, width = out.shape
    pairs, columns = width // 2, (width + 1) // 2
    red, green, blue = (
        np.empty(columns, np.int32),
        np.empty(columns, np.int32),
        np.empty(columns, np.int32),
    )
    black, fy, rv = np.int32(factors[0]), np.int32(factors[1]), np.int32(factors[2])
    gu, gv, bu = np.int32(factors[3]), np.int32(factors[4]), np.int32(factors[5])
    half, middle = np.int32(8192), np.int32(128)
    for row in range((height + 1) // 2):
        # Terms of chroma are made once for all four that share them.
        for pair in range(columns):
            u, v = np.int32(cb[row, pair]) - middle, np.int32(cr[row, pair]) - middle
            red[pair], green[pair], blue[pair] = v * rv, u * gu + v * gv, u * bu
        for y in range(2 * row, min(2 * row + 2, height)):
            line, lights = out[y], luma[y]
            for pair in range(pairs):
                for x in range(2):
                    light = (np.int32(lights[2 * pair + x]) - black) * fy + half
                    line[2 * pair + x] = _packed(light, red[pair], green[pair], blue[pair])
            if width % 2:
                light = (np.int32(lights[width - 1]) - black) * fy + half
                line[width - 1] = _packed(light, red[pairs], green[pairs], blue[pairs])


@njit(cache=True, nogil=True)
def _fill_deep(
    luma: DeepPlane,
    cb: DeepPlane,
    cr: DeepPlane,
    out: NDArray[np.uint16],
    factors: NDArray[np.int64],
) -> None:
    height, width, _ = out.shape
    black, fy, rv, gu, gv, bu = factors
    for y in range(height):
        for x in range(width):
            u, v = np.int64(cb[y, x]) - 32768, np.int64(cr[y, x]) - 32768
            light = (np.int64(luma[y, x]) - black) * fy + 8192
            out[y, x, 0] = min(max((light + v * rv) >> 14, 0), 65535)
            out[y, x, 1] = min(max((light + u * gu + v * gv) >> 14, 0), 65535)
            out[y, x, 2] = min(max((light + u * bu) >> 14, 0), 65535)

"""RGB to the planes that encoders want."""

from __future__ import annotations

import av
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR
from kitecore.media.planes import rows_of

Rgba = NDArray[np.uint8]
Plane = NDArray[np.uint8]

# BT.709 (Rec. ITU-R BT.709-6, 3.2 to 3.4), limited range, scaled by 2**16.


def _scaled(weights: tuple[float, ...], span: int) -> tuple[np.int32, ...]:
    return tuple(np.int32(round(weight * span / 255 * 65536)) for weight in weights)


_YR, _YG, _YB = _scaled((KR, KG, KB), 219)
_UR, _UG, _UB = _scaled(tuple(k / (2 * (1 - KB)) for k in (-KR, -KG, 1 - KB)), 224)
_VR, _VG, _VB = _scaled(tuple(k / (2 * (1 - KR)) for k in (1 - KR, -KG, -KB)), 224)


def coded(pixels: Rgba) -> av.VideoFrame:
    """Opaque RGBA as a frame of planes, yuv420p; an odd side has its last pixels twice."""
    height, width = pixels.shape[:2]
    frame = av.VideoFrame(width, height, "yuv420p")
    luma, cb, cr = (rows_of(plane) for plane in frame.planes)
    if width % 2 or height % 2:
        pixels = np.pad(pixels, ((0, height % 2), (0, width % 2), (0, 0)), mode="edge")
        whole = np.empty(pixels.shape[:2], np.uint8)
        to_planes(np.ascontiguousarray(pixels), whole, cb, cr)
        luma[:, :width] = whole[:height, :width]
    else:
        to_planes(pixels, luma, cb, cr)
    return frame


def coded_deep(pixels: NDArray[np.uint16]) -> av.VideoFrame:
    """RGB of 16 bits, shape (height, width, 3), both even, as planes: yuv420p10le."""
    height, width = pixels.shape[:2]
    frame = av.VideoFrame(width, height, "yuv420p10le")
    luma, cb, cr = (rows_of(plane).view(np.uint16) for plane in frame.planes)
    _to_deep_planes(pixels, luma, cb, cr)
    return frame


def to_planes(pixels: Rgba, luma: Plane, cb: Plane, cr: Plane) -> None:
    """Opaque RGBA to BT.709 4:2:0 in limited range, chroma averaged over 2 × 2 pixels.

    Parameters
    ----------
    pixels
        Shape (height, width, 4), both even.
    luma, cb, cr
        Written: shapes (height, width) and twice (height / 2, width / 2); rows may be padded.
    """
    words = np.ascontiguousarray(pixels).view(np.uint32).reshape(pixels.shape[:2])
    _to_planes(words, luma, cb, cr)


@njit(cache=True, nogil=True)
def _to_deep_planes(
    pixels: NDArray[np.uint16],
    luma: NDArray[np.uint16],
    cb: NDArray[np.uint16],
    cr: NDArray[np.uint16],
) -> None:
    """10 bits: 64 to 940 for luma, 64 to 960 for chroma about 512; means over 2 × 2 pixels."""
    height, width, _ = pixels.shape
    bright, wide = 876.0 / 65535, 896.0 / 65535
    for y in range(height):
        for x in range(width):
            light = KR * pixels[y, x, 0] + KG * pixels[y, x, 1] + KB * pixels[y, x, 2]
            luma[y, x] = int(64.5 + bright * light)
    for y in range(height // 2):
        for x in range(width // 2):
            r = g = b = 0.0
            for corner in range(4):
                row, column = 2 * y + corner // 2, 2 * x + corner % 2
                r += pixels[row, column, 0] / 4
                g += pixels[row, column, 1] / 4
                b += pixels[row, column, 2] / 4
            light = KR * r + KG * g + KB * b
            cb[y, x] = int(512.5 + wide * (b - light) / CB_SPAN)
            cr[y, x] = int(512.5 + wide * (r - light) / CR_SPAN)


@njit(cache=True, nogil=True)
def _to_planes(pixels: NDArray[np.uint32], luma: Plane, cb: Plane, cr: Plane) -> None:
    """Two rows at a time: their lumas, then sums of columns, then chroma of pairs of those."""
    height, width = pixels.shape
    byte, pair = np.uint32(255), np.uint32(0x00FF00FF)
    one, two = np.uint32(8), np.uint32(16)
    # 16 and 128 with a rounding half, in the scale of one pixel and of a sum of four.
    dark, middle = np.int32((16 << 16) + 32768), np.int32((128 << 18) + (1 << 17))
    outer, inner = np.empty(width, np.uint32), np.empty(width, np.uint32)
    for row in range(height // 2):
        for y in range(2 * row, 2 * row + 2):
            line, lights = pixels[y], luma[y]
            for x in range(width):
                p = line[x]
                r, g, b = (
                    np.int32(p & byte),
                    np.int32((p >> one) & byte),
                    np.int32((p >> two) & byte),
                )
                lights[x] = np.uint8(np.int32(r * _YR + g * _YG + b * _YB + dark) >> np.int32(16))
        upper, lower = pixels[2 * row], pixels[2 * row + 1]
        for x in range(width):
            p, q = upper[x], lower[x]
            outer[x] = np.uint32((p & pair) + (q & pair))
            inner[x] = np.uint32(((p >> one) & byte) + ((q >> one) & byte))
        blue, red = cb[row], cr[row]
        for x in range(width // 2):
            both = np.uint32(outer[2 * x] + outer[2 * x + 1])
            g = np.int32(inner[2 * x] + inner[2 * x + 1])
            r, b = np.int32(both & np.uint32(0xFFFF)), np.int32(both >> two)
            blue[x] = np.uint8(np.int32(r * _UR + g * _UG + b * _UB + middle) >> np.int32(18))
            red[x] = np.uint8(np.int32(r * _VR + g * _VG + b * _VB + middle) >> np.int32(18))

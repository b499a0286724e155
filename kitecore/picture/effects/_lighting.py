"""Light that is added to a picture, or takes away from it; what is clear stays so."""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba

Map = NDArray[np.float32]
Line = NDArray[np.uint8]
Lamp = NDArray[np.float32]
"""Red, green and blue."""


def lit(
    pixels: Rgba, light: Map, tint: Sequence[float] = (1.0, 1.0, 1.0), around: float = 0.0
) -> Rgba:
    """Premultiplied pixels times a light for each, in a tint, and what light there is ``around``.

    Parameters
    ----------
    light
        1 for as much as there is; shape (height, width), or what goes with that.
    """
    return _done(pixels, light, tint, around, 0.0)


def with_light(pixels: Rgba, light: Map, tint: Sequence[float], rest: float = 1.0) -> Rgba:
    """So much of premultiplied pixels as is left of them, and a light for each, 255 for a whole one."""
    return _done(pixels, light, tint, rest, 1.0)


def brightest(pixels: Rgba) -> NDArray[np.uint8]:
    """The greatest of red, green and blue of each pixel."""
    red, green, blue, _ = cv2.split(pixels)
    return np.asarray(cv2.max(cv2.max(red, green), blue), np.uint8)


def _done(pixels: Rgba, light: Map, tint: Sequence[float], plain: float, added: float) -> Rgba:
    pixels = np.ascontiguousarray(pixels)
    out = np.empty_like(pixels)
    spread = np.ascontiguousarray(np.broadcast_to(light, pixels.shape[:2]), np.float32)
    lamp = np.array(tint, np.float32)
    _lay(pixels.reshape(-1), spread.reshape(-1), lamp, (plain, added), out.reshape(-1))
    return out


@njit(cache=True, nogil=True, fastmath={"nnan", "nsz", "contract"})
def _lay(pixels: Line, light: Map, lamp: Lamp, shares: tuple[float, float], out: Line) -> None:
    """Each level p as p (plain + (1 - added) l) + added l, within its alpha; l is the light in a tint."""
    half, zero = np.float32(0.5), np.float32(0)
    plain, added = np.float32(shares[0]), np.float32(shares[1])
    scaled = np.float32(1) - added
    red, green, blue = lamp[0], lamp[1], lamp[2]
    for k in range(len(light)):
        at = np.uint64(4 * k)
        four, drawn = pixels[at : at + np.uint64(4)], out[at : at + np.uint64(4)]
        alpha = np.float32(four[3])
        r, g, b = light[k] * red, light[k] * green, light[k] * blue
        p, q, s = np.float32(four[0]), np.float32(four[1]), np.float32(four[2])
        p = min(max(p * (plain + scaled * r) + added * r + half, zero), alpha)
        q = min(max(q * (plain + scaled * g) + added * g + half, zero), alpha)
        s = min(max(s * (plain + scaled * b) + added * b + half, zero), alpha)
        drawn[0], drawn[1] = np.uint8(np.int32(p)), np.uint8(np.int32(q))
        drawn[2], drawn[3] = np.uint8(np.int32(s)), four[3]

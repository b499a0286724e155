"""How far colours are in chroma from a screen, under the light that falls on it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR
from kitecore.document.keying import ChromaKey
from kitecore.motion.plain import colour, number
from kitecore.oklab import rgb_of
from kitecore.picture.keying.spreading import BLOCK, gathered, spread
from kitecore.picture.layer import Rgba, packed

Array = NDArray[Any]
Packed = NDArray[np.uint32]
Bytes = NDArray[np.uint8]
Colour = tuple[np.float32, np.float32, np.float32]
Lit = tuple[Array, np.float32, int, int]

STEPS: Final = 100
"""Levels to a distance of 1, where bytes hold distances."""
DEVIATION: Final = 0.5
"""How much a deviation from the screen's direction counts, of what a lack of its colour does."""
OWN_HUE: Final = 0.3
"""Deviation, to the share of the screen's colour, from which on a hue is one of its own."""
_SPARSE: Final = 4
"""Of so many pixels across and down one is looked at for the screen's colour, which is smooth."""
SCREEN_BLOCK: Final = BLOCK * _SPARSE
"""Side of the blocks of the screen's colours, in pixels of half the size."""
_SMALL_SIDE: Final = 128
"""Pixels of the longer side of the picture in which the light is measured."""
_SAMPLES: Final = 4
"""Pixels across and down that are looked at for one of those."""


def direction_of(key: ChromaKey) -> Array:
    """Unit direction (2) and length (1) of the screen's chroma, its colour (3) and luma (1)."""
    return _direction(colour(key.colour))


@lru_cache(64)
def _direction(screen: str) -> Array:
    red, green, blue = (channel / 255 for channel in rgb_of(screen))
    luma = KR * red + KG * green + KB * blue
    cb, cr = (blue - luma) / CB_SPAN, (red - luma) / CR_SPAN
    length = max(float(np.hypot(cb, cr)), 0.01)
    return np.array([cb / length, cr / length, length, red, green, blue, luma], np.float32)


def distance_from(rgb: Array, key: ChromaKey) -> Array:
    """Distance in chroma of straight colours 0..1 from the screen, its light taken as even.

    0 at the screen's colour, 1 at grey, more on the other side of it.
    """
    along, aside = _parts(rgb, key)
    return np.asarray(1 - (along - DEVIATION * aside))


@dataclass(frozen=True)
class Light:
    """How bright the screen is, 1 where it is as its colour says.

    ``rows``: float32, as wide as the picture; ``step``: how many of them make a row of the picture,
    whose first row and column are ``top`` and ``left``.
    """

    rows: Array
    step: np.float32
    top: int = 0
    left: int = 0

    @property
    def known(self) -> Lit:
        """What `lit_at` takes."""
        return self.rows, self.step, self.top, self.left

    def within(self, top: int, left: int) -> Light:
        """Of the part of the picture that begins there."""
        return Light(self.rows, self.step, top, left)

    def mean(self) -> float:
        return float(self.rows.mean())


@njit(inline="always")
def rows_of_light(light, y):  # type: ignore[no-untyped-def]
    """The two rows of light that a row of the picture lies between, and how far from the first."""
    rows, step, top, _ = light
    half, most = np.float32(0.5), rows.shape[0] - 1
    v = (np.float32(top + y) + half) * step - half
    v = min(max(v, np.float32(0)), np.float32(most))
    j = int(v)
    return j, min(j + 1, most), np.float32(v - np.float32(j))


@njit(inline="always")
def lit_at(light, y, x):  # type: ignore[no-untyped-def]
    """The light at a pixel."""
    j, n, part = rows_of_light(light, y)
    upper, lower = light[0][j, light[3] + x], light[0][n, light[3] + x]
    return upper + (lower - upper) * part


def light_on_screen(pixels: Rgba, key: ChromaKey) -> Light:
    """Measured in small where the screen is seen, and spread from there."""
    height, width = pixels.shape[:2]
    factor = max(1.0, max(width, height) / _SMALL_SIDE)
    size = max(1, round(width / factor)), max(1, round(height / factor))
    small = np.empty((size[1], size[0], 3), np.float32)
    _sample_means(packed(pixels), small)
    along, aside = _parts(small, key)
    # Less light makes the screen darker and less coloured alike; what veils it does not.
    luma = small @ np.array([KR, KG, KB], np.float32) / max(direction_of(key)[6], 0.02)
    bare = (along > 0.35) & (aside < 0.35 * along) & (np.abs(luma - along) < 0.1)
    # Where there is less than around, something else is mixed in.
    bare &= along > 0.85 * cv2.dilate(np.where(bare, along, 0), np.ones((5, 5), np.uint8))
    light = np.ones(along.shape, np.float32)
    if bare.any():
        light = spread(np.dstack([along * bare, bare]).astype(np.float32))[..., 0]
    share = np.float32(min(max(number(key.even_out), 0.0), 1.0))
    light = 1 + share * (np.clip(cv2.GaussianBlur(light, (0, 0), 2.0), 0.3, 2.0) - 1)
    rows = cv2.resize(light, (width, size[1]), interpolation=cv2.INTER_LINEAR)
    return Light(np.asarray(rows, np.float32), np.float32(size[1] / height))


@njit(cache=True, nogil=True)
def _sample_means(pixels: Packed, out: Array) -> None:
    """Colours 0..1 of the parts of a picture, each by some pixels that lie evenly in it."""
    height, width = pixels.shape
    rows, columns, _ = out.shape
    byte, unit = np.uint32(255), np.float32(1 / (255 * _SAMPLES**2))
    down, across = height / (rows * _SAMPLES), width / (columns * _SAMPLES)
    for y in range(rows):
        for x in range(columns):
            r = g = b = np.uint32(0)
            for j in range(_SAMPLES):
                line = pixels[int((y * _SAMPLES + j + 0.5) * down)]
                for i in range(_SAMPLES):
                    word = line[int((x * _SAMPLES + i + 0.5) * across)]
                    r += word & byte
                    g += (word >> np.uint32(8)) & byte
                    b += (word >> np.uint32(16)) & byte
            out[y, x, 0] = np.float32(r) * unit
            out[y, x, 1] = np.float32(g) * unit
            out[y, x, 2] = np.float32(b) * unit


def screen_seen(pixels: Rgba, bare: Bytes, key: ChromaKey, light: Light) -> Array:
    """Colours in blocks of ``SCREEN_BLOCK``: as seen near by, or as the key says if none is seen.

    ``bare``: 255 where there is nothing but screen.
    """
    some = np.ascontiguousarray(packed(pixels)[::_SPARSE, ::_SPARSE])
    seen = gathered(
        some.view(np.uint8).reshape(*some.shape, 4),
        np.ascontiguousarray(bare[::_SPARSE, ::_SPARSE]),
    )
    if not seen[..., 3].any():
        seen[..., :3] = direction_of(key)[3:6] * light.mean()
    return seen


def distances(pixels: Rgba, key: ChromaKey, light: Light) -> tuple[Bytes, Bytes]:
    """Of each pixel from the screen as it is lit there, ``STEPS`` to 1; and 255 for an own hue."""
    shape = pixels.shape[:2]
    far, own = np.empty(shape, np.uint8), np.empty(shape, np.uint8)
    _distances(packed(pixels), weights_of(key) / np.float32(255), light.known, far, own)
    return far, own


def weights_of(key: ChromaKey) -> Array:
    """Two rows of three for red, green and blue: Cb and Cr turned so that one axis is the screen's.

    The first gives the share of the screen's colour along its direction, the second aside from it.
    """
    return _weights(colour(key.colour))


@lru_cache(64)
def _weights(screen: str) -> Array:
    x, y, length = _direction(screen)[:3]
    cb = np.array([-KR, -KG, 1 - KB]) / CB_SPAN
    cr = np.array([1 - KR, -KG, -KB]) / CR_SPAN
    rows = np.array([cb * x + cr * y, cb * y - cr * x]) / length
    return np.asarray(rows, np.float32)


def _parts(rgb: Array, key: ChromaKey) -> tuple[Array, Array]:
    along, aside = weights_of(key)
    return np.asarray(rgb @ along), np.abs(rgb @ aside)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def chroma_parts(rgb: Colour, weights: Array) -> tuple[np.float32, np.float32]:
    """As ``weights_of`` tells: along the screen's direction, and how far aside from it."""
    along = rgb[0] * weights[0, 0] + rgb[1] * weights[0, 1] + rgb[2] * weights[0, 2]
    aside = rgb[0] * weights[1, 0] + rgb[1] * weights[1, 1] + rgb[2] * weights[1, 2]
    return along, abs(aside)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def distance(rgb: Colour, weights: Array, light: np.float32) -> np.float32:
    """As ``distance_from``, of one colour under the screen's ``light``."""
    along, aside = chroma_parts(rgb, weights)
    return np.float32(np.float32(1) - (along - np.float32(DEVIATION) * aside) / light)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _distances(pixels: Packed, weights: Array, light: Lit, out: Bytes, own: Bytes) -> None:
    height, width = out.shape
    byte = np.uint32(255)
    steps, zero, half = np.float32(STEPS), np.float32(0), np.float32(0.5)
    a0, a1, a2 = weights[0, 0], weights[0, 1], weights[0, 2]
    b0, b1, b2 = weights[1, 0], weights[1, 1], weights[1, 2]
    for y in range(height):
        line, far, hues = pixels[y, :], out[y, :], own[y, :]
        j, n, part = rows_of_light(light, y)
        upper, lower = light[0][j, :], light[0][n, :]
        for x in range(width):
            word = line[x]
            r = np.float32(np.int32(word & byte))
            g = np.float32(np.int32((word >> np.uint32(8)) & byte))
            b = np.float32(np.int32((word >> np.uint32(16)) & byte))
            along = r * a0 + g * a1 + b * a2
            aside = abs(r * b0 + g * b1 + b * b2)
            lit = upper[x] + (lower[x] - upper[x]) * part
            away = steps - steps * (along - np.float32(DEVIATION) * aside) / lit
            far[x] = np.uint8(np.int32(min(max(away + half, zero), np.float32(255))))
            hues[x] = np.uint8(np.int32(255) * np.int32(aside > np.float32(OWN_HUE) * along))

"""What measuring instruments show of a picture, as arrays of counts.

Levels are whole numbers: of 8 bits (uint8 pixels, 256 levels) or of 10 (uint16 pixels, 1024).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR

Pixels = NDArray[Any]
Counts = NDArray[np.uint32]
Covered = NDArray[np.bool_]

SKIN_ANGLE: Final = 123.0
"""Degrees on the vectorscope near which skin lies, whatever its brightness."""


@dataclass(frozen=True)
class Box:
    """A part of the picture, in shares of its width and height."""

    left: float = 0.0
    top: float = 0.0
    right: float = 1.0
    bottom: float = 1.0

    def of(self, pixels: Pixels) -> Pixels:
        """That part of ``pixels``, at least one pixel of it."""
        height, width = pixels.shape[:2]
        x = min(max(int(self.left * width), 0), width - 1)
        y = min(max(int(self.top * height), 0), height - 1)
        right = min(max(round(self.right * width), x + 1), width)
        bottom = min(max(round(self.bottom * height), y + 1), height)
        return pixels[y:bottom, x:right]


def levels_of(pixels: Pixels) -> int:
    """Number of levels that these pixels can have."""
    return 256 if pixels.dtype == np.uint8 else 1024


def histogram(pixels: Pixels) -> Counts:
    """How many pixels have each level: shape (4, levels), of luma, red, green and blue.

    Parameters
    ----------
    pixels
        RGB or RGBA, shape (height, width, 3 or 4).
    """
    counts = np.zeros((4, levels_of(pixels)), np.uint32)
    _histogram(pixels, counts)
    return counts


def waveform(pixels: Pixels, columns: int) -> Counts:
    """How many pixels have each level, in stripes from left to right: shape (4, columns, levels).

    Of luma, red, green and blue; ``columns`` is at most the width of the picture.
    """
    counts = np.zeros((4, min(columns, pixels.shape[1]), levels_of(pixels)), np.uint32)
    _waveform(pixels, counts)
    return counts


def vectorscope(pixels: Pixels, size: int = 256) -> Counts:
    """How many pixels have each colour difference: shape (size, size), by Cr (up: last row) and Cb.

    The middle, ``size // 2``, is neutral; a step is 1 / 256 of the range of -0.5 to 0.5 at size 256.
    """
    counts = np.zeros((size, size), np.uint32)
    _vectorscope(pixels, counts, levels_of(pixels) - 1)
    return counts


def targets() -> dict[str, tuple[float, float]]:
    """Cb and Cr of the 75 % colour bars (Rec. ITU-R BT.471-1), by the name of the colour."""
    bars = {
        "red": (1, 0, 0),
        "magenta": (1, 0, 1),
        "blue": (0, 0, 1),
        "cyan": (0, 1, 1),
        "green": (0, 1, 0),
        "yellow": (1, 1, 0),
    }
    found = {}
    for name, (r, g, b) in bars.items():
        y = KR * r + KG * g + KB * b
        found[name] = (0.75 * (b - y) / (2 * (1 - KB)), 0.75 * (r - y) / (2 * (1 - KR)))
    return found


@dataclass(frozen=True)
class Shares:
    """Parts of the picture, 0..1.

    ``crushed``: no channel is above the lowest level; ``clipped``: some channel is at the highest.
    """

    crushed: float
    clipped: float


def shares(pixels: Pixels, covered: Covered | None = None) -> Shares:
    """Of the pixels of a picture, or only of those that are ``covered`` (height, width)."""
    if covered is None:
        covered = np.ones(pixels.shape[:2], np.bool_)
    many, crushed, clipped = _lost(pixels, covered, levels_of(pixels) - 1)
    return Shares(crushed / many, clipped / many) if many else Shares(0.0, 0.0)


def lost(pixels: Pixels) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Where the picture is crushed and where it is clipped, each of shape (height, width)."""
    red, green, blue = pixels[..., 0], pixels[..., 1], pixels[..., 2]
    most = levels_of(pixels) - 1
    crushed = (red == 0) & (green == 0) & (blue == 0)
    return crushed, (red == most) | (green == most) | (blue == most)


def distance_from_neutral(rgb: NDArray[Any]) -> float:
    """Share of the way from the middle of the vectorscope to its rim, 0..1, of one colour 0..1."""
    r, g, b = (float(one) for one in rgb)
    y = KR * r + KG * g + KB * b
    return float(np.hypot((b - y) / (1 - KB), (r - y) / (1 - KR)))


@njit(inline="always")
def _luma(r, g, b):  # type: ignore[no-untyped-def]
    """Y′ of whole levels, rounded."""
    return (np.int64(r) * 13933 + np.int64(g) * 46871 + np.int64(b) * 4732 + 32768) >> 16


@njit(cache=True, nogil=True)
def _histogram(pixels: Pixels, counts: Counts) -> None:
    height, width, _ = pixels.shape
    for y in range(height):
        for x in range(width):
            r, g, b = pixels[y, x, 0], pixels[y, x, 1], pixels[y, x, 2]
            counts[0, _luma(r, g, b)] += 1
            counts[1, r] += 1
            counts[2, g] += 1
            counts[3, b] += 1


@njit(cache=True, nogil=True)
def _waveform(pixels: Pixels, counts: Counts) -> None:
    height, width, _ = pixels.shape
    columns = counts.shape[1]
    for y in range(height):
        for x in range(width):
            r, g, b = pixels[y, x, 0], pixels[y, x, 1], pixels[y, x, 2]
            column = x * columns // width
            counts[0, column, _luma(r, g, b)] += 1
            counts[1, column, r] += 1
            counts[2, column, g] += 1
            counts[3, column, b] += 1


@njit(cache=True, nogil=True)
def _vectorscope(pixels: Pixels, counts: Counts, most: int) -> None:
    height, width, _ = pixels.shape
    size = counts.shape[0]
    across, up = size / CB_SPAN / most, size / CR_SPAN / most
    middle = size // 2 + 0.5
    for y in range(height):
        for x in range(width):
            r, g, b = float(pixels[y, x, 0]), float(pixels[y, x, 1]), float(pixels[y, x, 2])
            luma = KR * r + KG * g + KB * b
            cb = int((b - luma) * across + middle)
            cr = int((r - luma) * up + middle)
            counts[min(max(cr, 0), size - 1), min(max(cb, 0), size - 1)] += 1


@njit(cache=True, nogil=True)
def _lost(pixels: Pixels, covered: Covered, most: int) -> tuple[int, int, int]:
    """How many covered pixels there are, how many of them are crushed, and how many clipped."""
    height, width, _ = pixels.shape
    many, crushed, clipped = 0, 0, 0
    for y in range(height):
        for x in range(width):
            if covered[y, x]:
                r, g, b = pixels[y, x, 0], pixels[y, x, 1], pixels[y, x, 2]
                many += 1
                crushed += r == 0 and g == 0 and b == 0
                clipped += r == most or g == most or b == most
    return many, crushed, clipped

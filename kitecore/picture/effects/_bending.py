"""Pictures whose pixels come from elsewhere in them."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from typing import Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.document.effects import Bending
from kitecore.picture.layer import Layer, Rgba

Channel = NDArray[np.uint8]
Map = NDArray[np.float32]
Maps = tuple[Map, Map]
"""For each pixel the column and the row that it comes from, counted from the first one's middle."""

MOST_ROOM: Final = 600
"""Pixels by which a picture grows at most."""
_WAYS: Final = (1, 0, -1)
_FARTHEST: Final = 4
"""Sides of the picture beyond itself from which pixels come at most."""
TABLE_STEP: Final = 0.5
"""Pixels from one value of a table over distances to the next."""


def room_for(layer: Layer, effect: Bending, far: float) -> Layer:
    """The layer, larger by as far as its pixels go if nothing lies beyond its edges."""
    mirrored = effect.edges == "mirrored"
    return layer if mirrored else layer.padded(min(math.ceil(far) + 1, MOST_ROOM))


def border_of(layer: Layer, effect: Bending) -> int:
    """How OpenCV goes on beyond the edges of the picture."""
    clear = effect.edges == "clear" and not layer.endless
    return cv2.BORDER_CONSTANT if clear else cv2.BORDER_REFLECT_101


def bent(layer: Layer, effect: Bending, far: float, whence: Callable[[Layer], Maps]) -> Layer:
    """A layer each of whose pixels comes from elsewhere, ``far`` pixels away at most."""
    grown = room_for(layer, effect, far)
    across, down = whence(grown)
    border = border_of(layer, effect)
    pixels = cv2.remap(grown.pixels, across, down, cv2.INTER_LINEAR, borderMode=border)
    return replace(grown, pixels=np.asarray(pixels))


def parted(pixels: Rgba, border: int, gone: Callable[[Channel, int], Channel]) -> Rgba:
    """Red, green and blue each on a way of its own, 1, 0 and -1, with its own alpha; of the alphas the
    greatest.
    """
    *colours, alpha = cv2.split(pixels)
    drawn = [gone(colour, way) for colour, way in zip(colours, _WAYS, strict=True)]
    solid = border != cv2.BORDER_CONSTANT and int(alpha.min()) == 255
    most = alpha if solid else np.maximum.reduce([gone(alpha, way) for way in _WAYS])
    return np.asarray(cv2.merge([*drawn, most]))


def middle_of(layer: Layer, spot: tuple[float, float]) -> tuple[float, float]:
    """A spot in canvas pixels from the picture's middle, in pixels from its corner."""
    height, width = layer.pixels.shape[:2]
    return width / 2 + spot[0] * layer.density, height / 2 + spot[1] * layer.density


def distances(layer: Layer, centre: tuple[float, float]) -> NDArray[np.float32]:
    """All distances from a point for which a table of this picture needs a value, in pixels."""
    height, width = layer.pixels.shape[:2]
    farthest = math.hypot(
        max(centre[0], width - centre[0], 0), max(centre[1], height - centre[1], 0)
    )
    return np.arange(0, farthest + 2, TABLE_STEP, dtype=np.float32)


def radial(layer: Layer, centre: tuple[float, float], factors: NDArray[np.float32]) -> Maps:
    """Maps that take each pixel from farther out or in, by a table of factors over `distances`."""
    height, width = layer.pixels.shape[:2]
    across, down = (np.empty((height, width), np.float32) for _ in range(2))
    _fill_radial(across, down, centre[0] - 0.5, centre[1] - 0.5, factors)
    return across, down


@njit(cache=True, nogil=True)
def _fill_radial(across: Map, down: Map, cx: float, cy: float, factors: Map) -> None:
    last = factors.shape[0] - 2
    wide, high = np.float32(across.shape[1]), np.float32(across.shape[0])
    low, most = np.float32(-_FARTHEST), np.float32(_FARTHEST + 1)
    for row in range(across.shape[0]):
        dy = np.float32(row - cy)
        for column in range(across.shape[1]):
            dx = np.float32(column - cx)
            at = np.float32(np.sqrt(dx * dx + dy * dy) / np.float32(TABLE_STEP))
            first = min(int(at), last)
            part = at - np.float32(first)
            factor = factors[first] + (factors[first + 1] - factors[first]) * part
            x, y = np.float32(cx) + dx * factor, np.float32(cy) + dy * factor
            across[row, column] = min(max(x, low * wide), most * wide)
            down[row, column] = min(max(y, low * high), most * high)

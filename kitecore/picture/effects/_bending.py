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


@njit(cache=True, nogil=True, error_model="numpy", fastmath={"nnan", "nsz", "contract"})
def _fill_radial(across: Map, down: Map, cx: float, cy: float, factors: Map) -> None:
    """Row by row: places in the table first, then loads, then the maps; the first and the last loop go
    many at a time.
    """
    height, width = across.shape
    last, each = np.float32(len(factors) - 2), np.float32(1 / TABLE_STEP)
    x0, y0 = np.float32(cx), np.float32(cy)
    wide, high = np.float32(width), np.float32(height)
    low, most = np.float32(-_FARTHEST), np.float32(_FARTHEST + 1)
    at, first, then = (
        np.empty(width, np.float32),
        np.empty(width, np.float32),
        np.empty(width, np.float32),
    )
    places = np.empty(width, np.uint32)
    for row in range(height):
        dy = np.float32(row) - y0
        xs, ys = across[row, :], down[row, :]
        for k in range(width):
            dx = np.float32(np.int32(k)) - x0
            far = np.sqrt(dx * dx + dy * dy) * each
            place = np.int32(min(far, last))
            places[k], at[k] = np.uint32(place), far - np.float32(place)
        for k in range(width):
            place = places[k]
            first[k], then[k] = factors[place], factors[np.uint32(place + np.uint32(1))]
        for k in range(width):
            factor = first[k] + (then[k] - first[k]) * at[k]
            dx = np.float32(np.int32(k)) - x0
            xs[k] = min(max(x0 + dx * factor, low * wide), most * wide)
            ys[k] = min(max(y0 + dy * factor, low * high), most * high)

from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.effects.tiles import Tiles
from kitecore.motion.plain import pair
from kitecore.picture.effects._base import bounded, effect_drawings
from kitecore.picture.layer import Layer, Rgba


@effect_drawings.register("tiles")
def tiles(layer: Layer, effect: Tiles, tick: int) -> Layer:
    """The picture made smaller, and beside itself in both directions."""
    repeats = bounded(effect.repeats, 1.0, 100.0)
    shift = [length * layer.density for length in pair(effect.offset)]
    if repeats == 1 and shift == [0, 0]:
        return layer
    height, width = layer.pixels.shape[:2]
    size = max(1, round(width / repeats)), max(1, round(height / repeats))
    small = np.asarray(cv2.resize(layer.pixels, size, interpolation=cv2.INTER_AREA))
    across, down = (
        _whence(side, length, repeats, by)
        for side, length, by in zip((width, height), size, shift, strict=True)
    )
    columns, rows = (
        _beside(places, length, mirrored=effect.mirrored)
        for places, length in zip((across, down), size, strict=True)
    )
    return replace(layer, pixels=_between(small, columns, rows))


def _whence(side: int, small: int, repeats: float, shift: float) -> NDArray[np.float64]:
    """Places in the small picture of a row of pixels; the middle of one tile lies at the shift."""
    from_middle = (np.arange(side) + 0.5 - side / 2 - shift) * (small * repeats / side)
    return np.asarray(from_middle + small / 2 - 0.5)


Beside = tuple[NDArray[np.int32], NDArray[np.int32], NDArray[np.float32]]
"""Of each place the pixels before and after it, and how far it is from the one to the other."""


def _beside(places: NDArray[np.float64], count: int, *, mirrored: bool) -> Beside:
    first = np.floor(places)
    part = (places - first).astype(np.float32)
    pair = []
    for at in (first.astype(np.int64), first.astype(np.int64) + 1):
        turn, within = at // count, at % count
        pair.append(np.where(mirrored & (turn % 2 == 1), count - 1 - within, within))
    return pair[0].astype(np.int32), pair[1].astype(np.int32), part


def _between(small: Rgba, columns: Beside, rows: Beside) -> Rgba:
    """Rows and columns of the small picture, mixed of two each where they lie between pixels."""
    wide = _mixed(small, columns, 1)
    return _mixed(wide, rows, 0)


def _mixed(pixels: Rgba, beside: Beside, axis: int) -> Rgba:
    before, after, part = beside
    if not part.any():
        return np.asarray(pixels.take(before, axis))
    weights = np.rint(part * 256).astype(np.uint16)
    weights = weights[None, :, None] if axis == 1 else weights[:, None, None]
    one, other = (pixels.take(at, axis).astype(np.uint16) for at in (before, after))
    return np.asarray((one * (256 - weights) + other * weights + 128) >> 8, np.uint8)

from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.tiles import Tiles
from kitecore.motion.plain import number, pair
from kitecore.picture.effects._base import effect_drawings
from kitecore.picture.layer import Layer


@effect_drawings.register("tiles")
def tiles(layer: Layer, effect: Tiles, tick: int) -> Layer:
    """The picture made smaller, and beside itself in both directions."""
    repeats = min(max(number(effect.repeats), 1.0), 100.0)
    shift = [length * layer.density for length in pair(effect.offset)]
    if repeats == 1 and shift == [0, 0]:
        return layer
    height, width = layer.pixels.shape[:2]
    size = max(1, round(width / repeats)), max(1, round(height / repeats))
    small = cv2.resize(layer.pixels, size, interpolation=cv2.INTER_AREA)
    across, down = (
        _whence(side, length, repeats, by)
        for side, length, by in zip((width, height), size, shift, strict=True)
    )
    border = cv2.BORDER_REFLECT if effect.mirrored else cv2.BORDER_WRAP
    columns = np.ascontiguousarray(np.broadcast_to(across, (height, width)))
    rows = np.ascontiguousarray(np.broadcast_to(down[:, None], (height, width)))
    pixels = cv2.remap(np.asarray(small), columns, rows, cv2.INTER_LINEAR, borderMode=border)
    return replace(layer, pixels=np.asarray(pixels))


def _whence(side: int, small: int, repeats: float, shift: float) -> np.ndarray:
    """Places in the small picture of a row of pixels; the middle of one tile lies at the shift."""
    from_middle = (np.arange(side) + 0.5 - side / 2 - shift) * (small * repeats / side)
    return np.asarray((from_middle + small / 2 - 0.5), np.float32)

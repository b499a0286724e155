from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.mosaic import Mosaic
from kitecore.picture.effects._base import effect_drawings, length_of
from kitecore.picture.layer import Layer


@effect_drawings.register("mosaic")
def mosaic(layer: Layer, effect: Mosaic, tick: int) -> Layer:
    """Squares of the mean colour of what they cover, counted from the picture's corner."""
    side = length_of(effect.side, layer)
    if side <= 1:
        return layer
    height, width = layer.pixels.shape[:2]
    columns, rows = max(1, round(width / side)), max(1, round(height / side))
    small = cv2.resize(layer.pixels, (columns, rows), interpolation=cv2.INTER_AREA)
    squares = cv2.resize(small, (width, height), interpolation=cv2.INTER_NEAREST)
    return replace(layer, pixels=np.asarray(squares))

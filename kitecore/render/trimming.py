"""Layers without what is clear around them."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.arrays import Box
from kitecore.document import Pictured
from kitecore.picture.extent import box_seen
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.render.stage import Stage

_WORTH: Final = 0.9
"""Share of a picture that must be left of it at most."""
_BORDER: Final = 1
"""Clear pixels that are left around, so that what is sampled between is as before."""


def trimmed(layer: Layer, clip: Pictured, stage: Stage) -> Layer:
    """The layer with as much of its picture as is seen of it, if it is worth it.

    Of one that stays the same that is kept; of one that changes it is looked for only where a key
    makes much of it clear.
    """
    if layer.endless:
        return layer
    if layer.constant is None:
        return _part(layer, _seen(layer.pixels)) if clip.key and clip.key.on else layer
    cache, shape = stage.sources.cache, layer.pixels.shape

    def measure() -> Rgba:
        return np.array(_seen(layer.pixels), np.int64).view(np.uint8)

    box = cache.get(("seen", layer.constant, shape), measure).view(np.int64)
    left, top, right, bottom = (int(side) for side in box)
    part = _part(layer, (left, top, right, bottom))
    if part is layer:
        return layer
    pixels = cache.get(("trimmed", layer.constant, shape), lambda: part.pixels.copy())
    return replace(part, pixels=pixels)


def _part(layer: Layer, box: Box) -> Layer:
    """A part of a layer, or all of it if the part is most of it."""
    (left, top, right, bottom), shape = box, layer.pixels.shape
    if (right - left) * (bottom - top) > _WORTH * shape[0] * shape[1]:
        return layer
    pixels = layer.pixels[top:bottom, left:right]
    return replace(layer, pixels=pixels, matrix=layer.matrix @ moved(left, top), constant=None)


def _seen(pixels: Rgba) -> Box:
    """The box of what is not clear, and a little more; a pixel at least."""
    height, width = pixels.shape[:2]
    left, top, right, bottom = box_seen(np.ascontiguousarray(pixels))
    if right <= left:
        return 0, 0, 1, 1
    return (
        max(left - _BORDER, 0),
        max(top - _BORDER, 0),
        min(right + _BORDER, width),
        min(bottom + _BORDER, height),
    )

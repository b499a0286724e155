"""Layers that stay the same, without what is clear around them."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.arrays import Box, box_of
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.render.stage import Stage

_WORTH: Final = 0.9
"""Share of a picture that must be left of it at most."""
_BORDER: Final = 1
"""Clear pixels that are left around, so that what is sampled between is as before."""


def trimmed(layer: Layer, stage: Stage) -> Layer:
    """The layer with as much of its picture as is seen of it, if that is kept and worth it."""
    if layer.constant is None or layer.endless:
        return layer
    cache, shape = stage.sources.cache, layer.pixels.shape

    def measure() -> Rgba:
        return np.array(_seen(layer.pixels), np.int64).view(np.uint8)

    box = cache.get(("seen", layer.constant, shape), measure).view(np.int64)
    left, top, right, bottom = (int(side) for side in box)
    if (right - left) * (bottom - top) > _WORTH * shape[0] * shape[1]:
        return layer

    def cut() -> Rgba:
        return layer.pixels[top:bottom, left:right].copy()

    pixels = cache.get(("trimmed", layer.constant, shape), cut)
    return replace(layer, pixels=pixels, matrix=layer.matrix @ moved(left, top), constant=None)


def _seen(pixels: Rgba) -> Box:
    """The box of what is not clear, and a little more; a pixel at least."""
    box = box_of(pixels[..., 3])
    if box is None:
        return 0, 0, 1, 1
    height, width = pixels.shape[:2]
    left, top, right, bottom = box
    return (
        max(left - _BORDER, 0),
        max(top - _BORDER, 0),
        min(right + _BORDER, width),
        min(bottom + _BORDER, height),
    )

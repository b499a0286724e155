from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.document.effects.dissolve import Dissolve
from kitecore.kept import Kept
from kitecore.motion.plain import colour, number
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings
from kitecore.picture.fields import Field, octaves
from kitecore.picture.layer import Layer

_fields: Final[Kept[Field]] = Kept(64 << 20, lambda field: field.nbytes)


@effect_drawings.register("dissolve")
def dissolve(layer: Layer, effect: Dissolve, tick: int) -> Layer:
    """Where noise is lower than the amount nothing is left; just above it the edge glows."""
    amount = bounded(effect.amount, 0.0, 1.0)
    if amount == 0:
        return layer
    soft = bounded(effect.softness, 0.0, 1.0) + 1e-3
    rim = bounded(effect.rim, 0.0, 1.0) * 0.3
    height, width = layer.pixels.shape[:2]
    cell = max(number(effect.size) * layer.density, 0.5)
    key = (width, height, cell, effect.seed)
    field = _fields.get(key, lambda: octaves((width, height), (cell, cell), effect.seed))
    # From nothing gone to all of it, edges and glow too.
    over = field - np.float32(amount * (1 + soft + rim) - soft - rim)
    left = np.clip(over / soft, 0, 1)
    rgb = layer.pixels[..., :3].astype(np.float32)
    if rim > 0:
        glow = np.clip(1 - (over - soft) / rim, 0, 1)[..., None]
        tint = np.array(rgb_of(colour(effect.colour)), np.float32) / 255
        rgb = rgb * (1 - glow) + layer.pixels[..., 3:] * tint * glow
    pixels = np.empty_like(layer.pixels)
    pixels[..., 3] = np.rint(layer.pixels[..., 3] * left)
    pixels[..., :3] = np.minimum(np.rint(rgb * left[..., None]), pixels[..., 3:])
    return replace(layer, pixels=pixels)

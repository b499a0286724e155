from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.document.effects.paper import Paper
from kitecore.kept import Kept
from kitecore.motion.plain import number
from kitecore.picture.effects._base import bounded, effect_drawings
from kitecore.picture.effects._lighting import lit
from kitecore.picture.fields import Field, noise_field
from kitecore.picture.layer import Layer

_LONG: Final = 7.0
"""How much longer than wide a fibre is."""
_FOLDS: Final = 40.0
"""How much coarser than the fibres the unevenness of the sheet is."""

_sheets: Final[Kept[tuple[Field, Field]]] = Kept(64 << 20, lambda pair: 2 * pair[0].nbytes)


@effect_drawings.register("paper")
def paper(layer: Layer, effect: Paper, tick: int) -> Layer:
    """A sheet of fibres lit from the side: what rises towards the light is brighter."""
    strength = bounded(effect.strength, 0.0, 10.0)
    if strength == 0:
        return layer
    height, width = layer.pixels.shape[:2]
    cell = max(number(effect.size), 0.5)
    key = (width, height, cell, layer.density, effect.seed)
    across, down = _sheets.get(key, lambda: _slopes(layer, cell, effect.seed))
    angle = math.radians(number(effect.angle))
    rising = np.float32(math.cos(angle)) * across + np.float32(math.sin(angle)) * down
    light = np.clip(1 + np.float32(0.25 * strength) * rising, 0.1, 2)
    return replace(layer, pixels=lit(layer.pixels, light))


def _slopes(layer: Layer, cell: float, seed: int) -> tuple[Field, Field]:
    """How steeply the sheet rises to the right and downwards, about 1 at most."""
    height, width = layer.pixels.shape[:2]
    size = (width, height)
    fine = cell * layer.density
    sheet = np.zeros((height, width), np.float32)
    for step, (x, y) in enumerate(((_LONG, 1.0), (1.0, _LONG), (2.0, 2.0))):
        sheet += noise_field(size, (x * fine, y * fine), (0.0, 0.0), seed, step)
    sheet += 12 * noise_field(size, (_FOLDS * fine,) * 2, (0.0, 0.0), seed, 3)
    down, across = np.gradient(sheet, 1 / max(fine, 0.5))
    return across.astype(np.float32), down.astype(np.float32)

"""How effects draw. To add one: a module here for each in `kitecore.document.effects`."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from kitecore.document.effects import EffectBase
from kitecore.motion import still_at, value_at
from kitecore.picture.effects._base import effect_drawings, effect_reaches
from kitecore.picture.layer import Layer
from kitecore.registry import import_all

import_all(__name__)

__all__ = ["apply_effects", "effect_drawings", "reach_of"]


def apply_effects(layer: Layer, effects: tuple[EffectBase, ...], tick: int) -> Layer:
    """The layer after its effects, in order; ``tick`` counts from the start of the clip."""
    for effect in effects:
        mix = value_at(effect.mix, tick)
        if effect.on and mix > 0:
            done = effect_drawings[effect.kind](layer, still_at(effect, tick), tick)
            layer = done if mix >= 1 else _mixed(layer, done, mix)
    return layer


def reach_of(layer: Layer, effects: tuple[EffectBase, ...], tick: int) -> int | None:
    """Pixels around a part of a layer that its effects need to draw it; None if they need all."""
    reach = 0
    for effect in effects:
        if not effect.on:
            continue
        if effect.kind not in effect_reaches:
            return None
        reach += math.ceil(effect_reaches[effect.kind](layer, still_at(effect, tick)))
    return reach


def _mixed(before: Layer, after: Layer, mix: float) -> Layer:
    grown = (after.pixels.shape[0] - before.pixels.shape[0]) // 2
    plain = before.padded(grown).pixels if grown else before.pixels
    mixed = plain.astype(np.float32) * (1 - mix) + after.pixels.astype(np.float32) * mix
    return replace(after, pixels=np.rint(mixed).astype(np.uint8))

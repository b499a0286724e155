"""How effects draw. To add one: a module here for each in `kitecore.document.effects`."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import Final, NamedTuple

import numpy as np

from kitecore.document.effects import Beside, EffectBase, Tabled
from kitecore.motion import still_at, value_at
from kitecore.picture.effects._base import (
    Other,
    Through,
    effect_drawings,
    effect_reaches,
    paired_drawings,
    tabled_drawings,
    timed_drawings,
)
from kitecore.picture.layer import Layer
from kitecore.registry import import_all

import_all(__name__)

__all__ = [
    "Other",
    "Others",
    "Reads",
    "Tables",
    "Through",
    "apply_effects",
    "effect_drawings",
    "paired_drawings",
    "reach_of",
    "tabled_drawings",
    "timed_drawings",
]


Before = Callable[[int, int, int], Layer]
"""``before(count, tick, lane)``: the layer after its first effects, at another tick of its clip."""


Others = Callable[[str, int], Other | None]
"""``others(clip, tick)``: how to look at another clip by its id; none if there is none."""


Tables = Callable[[str], Through]
"""``tables(look)``: how to bring pixels through the table of a look."""


class Reads(NamedTuple):
    """What effects may look at besides their layer; what needs one that is not there does nothing."""

    before: Before | None = None
    others: Others | None = None
    tables: Tables | None = None


NOTHING: Final = Reads()


def apply_effects(
    layer: Layer, effects: tuple[EffectBase, ...], tick: int, reads: Reads = NOTHING
) -> Layer:
    """The layer after its effects, in order; ``tick`` counts from the start of the clip."""
    for count, effect in enumerate(effects):
        mix = value_at(effect.mix, tick)
        if effect.on and mix > 0:
            done = _drawn(layer, still_at(effect, tick, effect.keyed), tick, reads, count)
            layer = done if mix >= 1 or done is layer else _mixed(layer, done, mix)
    return layer


def _drawn(layer: Layer, effect: EffectBase, tick: int, reads: Reads, count: int) -> Layer:
    """After one effect, which has ``count`` others before it."""
    if isinstance(effect, Beside):
        return _paired(layer, effect, tick, reads.others)
    if isinstance(effect, Tabled):
        return _tabled(layer, effect, tick, reads.tables)
    if effect.kind not in timed_drawings:
        return effect_drawings[effect.kind](layer, effect, tick)
    if reads.before is None:
        return layer
    return timed_drawings[effect.kind](layer, effect, tick, partial(reads.before, count))


def _paired(layer: Layer, effect: Beside, tick: int, others: Others | None) -> Layer:
    other = others(effect.layer, tick) if others else None
    return layer if other is None else paired_drawings[effect.kind](layer, effect, tick, other)


def _tabled(layer: Layer, effect: Tabled, tick: int, tables: Tables | None) -> Layer:
    if not (effect.look and tables):
        return layer
    return tabled_drawings[effect.kind](layer, effect, tick, tables(effect.look))


def reach_of(layer: Layer, effects: tuple[EffectBase, ...], tick: int) -> int | None:
    """Pixels around a part of a layer that its effects need to draw it; None if they need all."""
    reach = 0
    for effect in effects:
        if not effect.on:
            continue
        if effect.kind not in effect_reaches:
            return None
        reach += math.ceil(effect_reaches[effect.kind](layer, still_at(effect, tick, effect.keyed)))
    return reach


def _mixed(before: Layer, after: Layer, mix: float) -> Layer:
    grown = (after.pixels.shape[0] - before.pixels.shape[0]) // 2
    plain = before.padded(grown).pixels if grown else before.pixels
    mixed = plain.astype(np.float32) * (1 - mix) + after.pixels.astype(np.float32) * mix
    return replace(after, pixels=np.rint(mixed).astype(np.uint8))

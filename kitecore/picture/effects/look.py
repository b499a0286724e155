from __future__ import annotations

from dataclasses import replace

from kitecore.document.effects.look import Look
from kitecore.picture.effects._base import Through, effect_reaches, tabled_drawings
from kitecore.picture.layer import Layer

effect_reaches.register("look")(lambda _layer, _effect: 0)


@tabled_drawings.register("look")
def look(layer: Layer, effect: Look, tick: int, through: Through) -> Layer:
    return replace(layer, pixels=through(layer.pixels))

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number, Point
from kitecore.model import param


@effect_kinds.register("shadow")
class Shadow(EffectBase):
    """Shadow: falls behind the layer's outline."""

    family: ClassVar[Family] = "light"
    kind: Literal["shadow"] = "shadow"
    shift: Point = param(
        (10.0, 14.0), help="Across and down", unit="px", low=-300, high=300, step=1
    )
    softness: Number = param(12.0, help="Softness", unit="px", low=0, high=100, step=0.5)
    opacity: Number = param(0.6, help="How dark", low=0, high=1, step=0.01)
    colour: Colour = param("#120c16", help="Colour", control="colour")

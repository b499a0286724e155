from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number
from kitecore.model import param


@effect_kinds.register("edge_glow")
class EdgeGlow(EffectBase):
    """Edge glow: the lines of the picture shine."""

    family: ClassVar[Family] = "light"
    kind: Literal["edge_glow"] = "edge_glow"
    strength: Number = param(1.5, help="How bright they shine", low=0, high=8, step=0.05)
    width: Number = param(6.0, help="How far they shine", unit="px", low=0, high=200, step=0.5)
    threshold: Number = param(
        12.0, help="Weaker lines do not shine", unit="%", low=0, high=100, step=0.5
    )
    colour: Colour = param("#9fe8ff", help="Colour of the light", control="colour")
    rest: Number = param(
        1.0, help="How much of the picture is seen behind", low=0, high=1, step=0.01
    )

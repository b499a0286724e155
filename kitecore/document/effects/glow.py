from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number
from kitecore.model import param


@effect_kinds.register("glow")
class Glow(EffectBase):
    """Glow: light around what is bright, or around the outline of the layer."""

    family: ClassVar[Family] = "light"
    kind: Literal["glow"] = "glow"
    of: Literal["bright", "outline"] = param(
        "bright", help="Light comes from bright parts, or from the outline", control="choice"
    )
    width: Number = param(28.0, help="Width of the light", unit="px", low=1, high=200, step=1)
    strength: Number = param(0.8, help="Strength", low=0, high=3, step=0.01)
    threshold: Number = param(60.0, help="Bright from", unit="%", low=0, high=100, step=1)
    colour: Colour = param("#ffffff", help="Colour of the light", control="colour")

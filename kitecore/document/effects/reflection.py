from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("reflection")
class Reflection(EffectBase):
    """Reflection: the layer once more below itself, upside down and fading."""

    family: ClassVar[Family] = "light"
    kind: Literal["reflection"] = "reflection"
    gap: Number = param(0.0, help="Gap to the ground", unit="px", low=-200, high=300, step=1)
    height: Number = param(60.0, help="How much of it is seen", unit="%", low=1, high=100, step=1)
    opacity: Number = param(0.45, help="Opacity at the ground", low=0, high=1, step=0.01)
    softness: Number = param(2.0, help="Softness", unit="px", low=0, high=40, step=0.5)

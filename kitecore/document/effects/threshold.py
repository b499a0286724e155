from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number
from kitecore.model import param


@effect_kinds.register("threshold")
class Threshold(EffectBase):
    """Threshold: two colours, what is darker and what is lighter than a level."""

    family: ClassVar[Family] = "colour"
    kind: Literal["threshold"] = "threshold"
    level: Number = param(50.0, help="Level between them", unit="%", low=0, high=100, step=0.5)
    soft: Number = param(4.0, help="How wide the step is", unit="%", low=0, high=100, step=0.5)
    dark: Colour = param("#000000", help="Colour of what is darker", control="colour")
    light: Colour = param("#ffffff", help="Colour of what is lighter", control="colour")

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number
from kitecore.model import param


@effect_kinds.register("outline")
class Outline(EffectBase):
    """Outline: a line around what is seen."""

    family: ClassVar[Family] = "print"
    kind: Literal["outline"] = "outline"
    width: Number = param(10.0, help="How wide", unit="px", low=0.5, high=200, step=0.5)
    place: Literal["outside", "middle", "inside"] = param(
        "outside", help="Where it runs", control="choice"
    )
    softness: Number = param(0.0, help="How soft", unit="px", low=0, high=100, step=0.5)
    opacity: Number = param(1.0, help="How strong", low=0, high=1, step=0.01)
    colour: Colour = param("#fff4e0", help="Colour of the line", control="colour")
    gradient: bool = param(False, help="It goes over into another colour", control="switch")
    second: Colour = param("#d0746a", help="The other colour", control="colour")
    angle: Number = param(
        90.0,
        help="Way to the other colour, clockwise from right",
        unit="°",
        low=-180,
        high=180,
        step=1,
    )
    alone: bool = param(False, help="Only the line is seen", control="switch")

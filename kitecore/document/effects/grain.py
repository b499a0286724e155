from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Running, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("grain")
class Grain(Running):
    """Grain: fine noise, new in every frame."""

    family: ClassVar[Family] = "print"
    kind: Literal["grain"] = "grain"
    amount: Number = param(12.0, help="How strong", unit="%", low=0, high=60, step=0.5)
    size: Number = param(2.0, help="Size of a grain", unit="px", low=1, high=12, step=0.25)
    coloured: bool = param(False, help="In colour", control="switch")

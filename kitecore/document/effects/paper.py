from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Seeded, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("paper")
class Paper(Seeded):
    """Paper: fibres and folds, lit from the side."""

    family: ClassVar[Family] = "print"
    kind: Literal["paper"] = "paper"
    strength: Number = param(0.5, help="How deep they are", low=0, high=2, step=0.01)
    size: Number = param(6.0, help="How coarse the fibres are", unit="px", low=1, high=60, step=0.5)
    angle: Number = param(
        -60.0, help="Where the light comes from", unit="°", low=-180, high=180, step=1
    )

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("direction_blur")
class DirectionBlur(EffectBase):
    """Direction blur: smeared along a line."""

    family: ClassVar[Family] = "soft"
    kind: Literal["direction_blur"] = "direction_blur"
    length: Number = param(60.0, help="Length of the smear", unit="px", low=0, high=400, step=1)
    angle: Number = param(0.0, help="Direction", unit="°", low=-180, high=180, step=1)

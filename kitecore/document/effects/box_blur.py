from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("box_blur")
class BoxBlur(EffectBase):
    """Box blur: the mean of a square around each pixel."""

    family: ClassVar[Family] = "soft"
    kind: Literal["box_blur"] = "box_blur"
    radius: Number = param(
        12.0, help="Half the side of the square", unit="px", low=0, high=150, step=0.5
    )

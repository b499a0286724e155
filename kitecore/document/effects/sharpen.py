from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("sharpen")
class Sharpen(EffectBase):
    """Sharpen: edges stand out from what lies around them."""

    family: ClassVar[Family] = "soft"
    kind: Literal["sharpen"] = "sharpen"
    amount: Number = param(80.0, help="How much they stand out", unit="%", low=0, high=400, step=1)
    radius: Number = param(
        2.0, help="How wide an edge counts", unit="px", low=0.3, high=30, step=0.1
    )
    threshold: Number = param(
        2.0, help="Steps smaller than this stay as they are", unit="%", low=0, high=50, step=0.5
    )

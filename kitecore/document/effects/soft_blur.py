from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("soft_blur")
class SoftBlur(EffectBase):
    """Soft blur: everything blurred alike, by a Gaussian."""

    family: ClassVar[Family] = "soft"
    kind: Literal["soft_blur"] = "soft_blur"
    sigma: Number = param(8.0, help="Width of the blur", unit="px", low=0, high=100, step=0.5)

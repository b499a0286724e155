from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("vignette")
class Vignette(EffectBase):
    """Vignette: darker towards the corners."""

    family: ClassVar[Family] = "light"
    kind: Literal["vignette"] = "vignette"
    strength: Number = param(0.6, help="How dark", low=0, high=1, step=0.01)
    reach: Number = param(0.55, help="Where it begins", low=0, high=1.2, step=0.01)
    softness: Number = param(0.5, help="Softness", low=0.02, high=1, step=0.01)

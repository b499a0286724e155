from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("exposure")
class Exposure(EffectBase):
    """Exposure: brighter or darker, in stops of light."""

    family: ClassVar[Family] = "light"
    kind: Literal["exposure"] = "exposure"
    stops: Number = param(0.5, help="Stops", low=-4, high=4, step=0.05)

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("posterise")
class Posterise(EffectBase):
    """Posterise: each channel has only a few levels."""

    family: ClassVar[Family] = "colour"
    kind: Literal["posterise"] = "posterise"
    levels: Number = param(5.0, help="How many levels", low=2, high=32, step=1)

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("mosaic")
class Mosaic(EffectBase):
    """Mosaic: squares of one colour each."""

    family: ClassVar[Family] = "soft"
    kind: Literal["mosaic"] = "mosaic"
    side: Number = param(32.0, help="Side of a square", unit="px", low=1, high=200, step=1)

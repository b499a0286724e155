from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number, Point
from kitecore.model import param


@effect_kinds.register("tiles")
class Tiles(EffectBase):
    """Tiles: the picture beside itself, again and again."""

    family: ClassVar[Family] = "form"
    kind: Literal["tiles"] = "tiles"
    repeats: Number = param(3.0, help="How often on each side", low=1, high=20, step=0.1)
    mirrored: bool = param(True, help="Every second one turned over: no seams", control="switch")
    offset: Point = param(
        (0.0, 0.0),
        help="Where its middle lies",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
    )

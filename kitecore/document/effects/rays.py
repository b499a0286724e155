from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number, Point
from kitecore.model import param


@effect_kinds.register("rays")
class Rays(EffectBase):
    """Rays: light of bright parts falls away from a point."""

    family: ClassVar[Family] = "light"
    kind: Literal["rays"] = "rays"
    strength: Number = param(1.0, help="How bright they are", low=0, high=8, step=0.05)
    length: Number = param(50.0, help="How long they are", unit="%", low=0, high=100, step=0.5)
    threshold: Number = param(
        70.0, help="From which brightness on parts shine", unit="%", low=0, high=100, step=0.5
    )
    colour: Colour = param("#fff1cf", help="Colour of the light", control="colour")
    centre: Point = param(
        (0.0, -300.0),
        help="Point they come from",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
    )

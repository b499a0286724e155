from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number, Point
from kitecore.model import param


@effect_kinds.register("point_light")
class PointLight(EffectBase):
    """Point light: a lamp over the picture; what it does not reach is darker."""

    family: ClassVar[Family] = "light"
    kind: Literal["point_light"] = "point_light"
    centre: Point = param(
        (0.0, -200.0),
        help="Where it hangs",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
    )
    reach: Number = param(600.0, help="How far it reaches", unit="px", low=10, high=2500, step=5)
    strength: Number = param(1.2, help="Light in its middle", low=0, high=4, step=0.01)
    around: Number = param(0.5, help="Light everywhere else", low=0, high=1, step=0.01)
    colour: Colour = param("#ffd9a0", help="Colour of the light", control="colour")

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Bending, Family, Running, effect_kinds
from kitecore.document.properties import Number, Point
from kitecore.model import param


@effect_kinds.register("ripple")
class Ripple(Bending, Running):
    """Ripple: rings that run outwards from a point."""

    family: ClassVar[Family] = "form"
    keyed: ClassVar[frozenset[str]] = frozenset({"speed"})
    kind: Literal["ripple"] = "ripple"
    height: Number = param(
        18.0, help="How far a ring moves the picture", unit="px", low=0, high=200, step=0.5
    )
    width: Number = param(
        120.0, help="From one ring to the next", unit="px", low=8, high=1000, step=1
    )
    speed: Number = param(
        600.0, help="How fast the rings run", unit="px/s", low=0, high=4000, step=10
    )
    rings: Number = param(
        0.0, help="How many there are; 0 goes on for ever", low=0, high=30, step=1
    )
    fading: Number = param(
        0.0,
        help="Seconds in which they lose half; 0 loses nothing",
        unit="s",
        low=0,
        high=10,
        step=0.05,
    )
    reach: Number = param(1500.0, help="How far they run", unit="px", low=10, high=4000, step=10)
    centre: Point = param(
        (0.0, 0.0),
        help="Where they begin",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
    )

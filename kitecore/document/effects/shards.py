from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Seeded, effect_kinds
from kitecore.document.properties import Number, Point
from kitecore.model import param


@effect_kinds.register("shards")
class Shards(Seeded):
    """Shards: the picture breaks into pieces that fly apart and turn."""

    family: ClassVar[Family] = "form"
    kind: Literal["shards"] = "shards"
    amount: Number = param(
        0.35, help="How far it has burst: 0 whole, 1 gone its whole way", low=0, high=1, step=0.005
    )
    count: Number = param(60.0, help="How many pieces", low=2, high=600, step=1)
    variety: Number = param(0.5, help="How unlike in size they are", low=0, high=1, step=0.01)
    near: Number = param(0.4, help="Smaller near the point", low=0, high=1, step=0.01)
    distance: Number = param(
        700.0, help="How far they fly from the point", unit="px", low=-3000, high=3000, step=5
    )
    scatter: Number = param(0.3, help="How much each goes its own way", low=0, high=1, step=0.01)
    fall: Number = param(300.0, help="How far they fall", unit="px", low=-3000, high=3000, step=5)
    direction: Number = param(
        0.0,
        help="Which way they fall, turned from straight down",
        unit="°",
        low=-180,
        high=180,
        step=1,
    )
    depth: Number = param(
        300.0,
        help="How far they come towards you, or go below 0",
        unit="px",
        low=-2000,
        high=2000,
        step=5,
    )
    spin: Number = param(240.0, help="How far they turn", unit="°", low=0, high=1440, step=1)
    delay: Number = param(
        0.5, help="How much later those far away begin", low=0, high=0.95, step=0.01
    )
    thickness: Number = param(6.0, help="How thick they are", unit="px", low=0, high=100, step=0.5)
    light: Number = param(
        0.6, help="How much their sides differ in light", low=0, high=1, step=0.01
    )
    perspective: Number = param(0.6, help="How near the eye is", low=0, high=1, step=0.01)
    centre: Point = param(
        (0.0, 0.0),
        help="Where it bursts",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
    )

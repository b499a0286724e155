from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Bending, Family, effect_kinds
from kitecore.document.properties import Number, Point
from kitecore.model import param


@effect_kinds.register("colour_split")
class ColourSplit(Bending):
    """Colour split: red goes one way, blue the other."""

    family: ClassVar[Family] = "colour"
    kind: Literal["colour_split"] = "colour_split"
    distance: Number = param(12.0, help="How far apart", unit="px", low=0, high=200, step=0.5)
    angle: Number = param(0.0, help="Which way", unit="°", low=-180, high=180, step=1)
    way: Literal["aside", "outwards"] = param(
        "aside", help="Along a direction, or away from a point", control="choice"
    )
    centre: Point = param(
        (0.0, 0.0),
        help="Point they go away from",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
    )

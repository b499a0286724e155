from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Bending, Family, effect_kinds
from kitecore.document.properties import Number, Point
from kitecore.model import param


@effect_kinds.register("lens")
class Lens(Bending):
    """Lens: bent outwards or inwards, with colours at its rim."""

    family: ClassVar[Family] = "form"
    kind: Literal["lens"] = "lens"
    bend: Number = param(
        20.0, help="Outwards, or inwards below 0", unit="%", low=-100, high=100, step=0.5
    )
    rim: Number = param(
        0.0, help="How far colours part at the rim", unit="%", low=0, high=100, step=0.5
    )
    size: Number = param(
        100.0, help="Size of the picture afterwards", unit="%", low=20, high=300, step=0.5
    )
    centre: Point = param(
        (0.0, 0.0),
        help="Middle of the lens",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
    )

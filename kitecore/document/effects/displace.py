from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Bending, Beside, Family, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("displace")
class Displace(Beside, Bending):
    """Displace: pixels go as far as another layer is bright."""

    family: ClassVar[Family] = "form"
    kind: Literal["displace"] = "displace"
    across: Number = param(
        60.0, help="How far to the right where it is bright", unit="px", low=-300, high=300, step=1
    )
    down: Number = param(
        0.0, help="How far down where it is bright", unit="px", low=-300, high=300, step=1
    )
    read: Literal["light", "colours"] = param(
        "light",
        help="Its brightness counts, or its red across and its green down",
        control="choice",
    )

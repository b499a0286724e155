from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Bending, Family, Running, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("haze")
class Haze(Bending, Running):
    """Haze: hot air rises before the picture."""

    family: ClassVar[Family] = "form"
    keyed: ClassVar[frozenset[str]] = frozenset({"speed"})
    kind: Literal["haze"] = "haze"
    strength: Number = param(
        8.0, help="How far it moves the picture", unit="px", low=0, high=100, step=0.5
    )
    size: Number = param(60.0, help="How large its swirls are", unit="px", low=8, high=600, step=1)
    speed: Number = param(
        160.0, help="How fast it rises", unit="px/s", low=-1000, high=1000, step=5
    )

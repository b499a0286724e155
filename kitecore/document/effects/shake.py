from __future__ import annotations

from typing import ClassVar, Final, Literal

from kitecore.document.effects._base import Bending, Family, Running, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param

LONGEST: Final = 0.1
"""Seconds that a picture is exposed at most."""


@effect_kinds.register("shake")
class Shake(Bending, Running):
    """Shake: as held by an unsteady hand, or hit."""

    family: ClassVar[Family] = "form"
    keyed: ClassVar[frozenset[str]] = frozenset({"rate"})
    kind: Literal["shake"] = "shake"
    strength: Number = param(24.0, help="How far it goes", unit="px", low=0, high=200, step=1)
    turn: Number = param(1.0, help="How far it turns", unit="°", low=0, high=20, step=0.1)
    rate: Number = param(4.0, help="How often", unit="Hz", low=0.2, high=30, step=0.1)
    shutter: Number = param(
        0.0,
        help="How long each picture is exposed: what moves fast is blurred",
        unit="s",
        low=0,
        high=LONGEST,
        step=0.005,
    )

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Running, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@effect_kinds.register("flicker")
class Flicker(Running):
    """Flicker: an unsteady light, now darker, now clear."""

    family: ClassVar[Family] = "light"
    keyed: ClassVar[frozenset[str]] = frozenset({"rate"})
    kind: Literal["flicker"] = "flicker"
    strength: Number = param(0.4, help="How much light is lost at most", low=0, high=1, step=0.01)
    rate: Number = param(6.0, help="How often", unit="Hz", low=0.2, high=30, step=0.1)
    what: Literal["light", "opacity"] = param(
        "light", help="What goes up and down", control="choice"
    )

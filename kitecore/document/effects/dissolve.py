from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Seeded, effect_kinds
from kitecore.document.properties import Colour, Number
from kitecore.model import param


@effect_kinds.register("dissolve")
class Dissolve(Seeded):
    """Dissolve: eaten away in flakes."""

    family: ClassVar[Family] = "form"
    kind: Literal["dissolve"] = "dissolve"
    amount: Number = param(0.4, help="How much is gone", low=0, high=1, step=0.01)
    size: Number = param(80.0, help="How large the flakes are", unit="px", low=4, high=800, step=1)
    softness: Number = param(0.08, help="How soft their edges are", low=0, high=1, step=0.01)
    rim: Number = param(0.0, help="How wide an edge glows", low=0, high=1, step=0.01)
    colour: Colour = param("#ffb347", help="Colour of that edge", control="colour")

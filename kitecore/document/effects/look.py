from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Tabled, effect_kinds


@effect_kinds.register("look")
class Look(Tabled):
    """Look: a table of colours, after the effects before it and before those that follow."""

    family: ClassVar[Family] = "colour"
    kind: Literal["look"] = "look"

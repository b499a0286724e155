from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Colour, Number
from kitecore.model import param


@effect_kinds.register("halftone")
class Halftone(EffectBase):
    """Halftone: printed in dots."""

    family: ClassVar[Family] = "print"
    kind: Literal["halftone"] = "halftone"
    size: Number = param(
        14.0, help="From one dot to the next", unit="px", low=3, high=200, step=0.5
    )
    angle: Number = param(30.0, help="How the rows lie", unit="°", low=-90, high=90, step=1)
    inks: Literal["one", "own"] = param(
        "one", help="One ink, or the colours of the picture", control="choice"
    )
    ink: Colour = param("#1d1a26", help="Colour of the ink", control="colour")
    ground: Colour = param("#f6efe0", help="Colour of the paper", control="colour")

from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.model import param


@effect_kinds.register("invert")
class Invert(EffectBase):
    """Invert: light for dark, in the channels chosen."""

    family: ClassVar[Family] = "colour"
    kind: Literal["invert"] = "invert"
    red: bool = param(True, help="Red", control="switch")
    green: bool = param(True, help="Green", control="switch")
    blue: bool = param(True, help="Blue", control="switch")
    alpha: bool = param(False, help="What is clear", control="switch")

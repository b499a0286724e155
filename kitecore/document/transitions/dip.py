from __future__ import annotations

from typing import Literal

from kitecore.document.properties import Hex
from kitecore.document.transitions._base import TransitionBase, transition_kinds
from kitecore.model import param


@transition_kinds.register("dip")
class Dip(TransitionBase):
    """Down to a colour and up from it."""

    kind: Literal["dip"] = "dip"
    colour: Hex = param("#000000", help="Colour between", control="colour")

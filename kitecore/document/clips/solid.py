from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Pictured, clip_kinds
from kitecore.document.model import param
from kitecore.document.properties import Colour


@clip_kinds.register("solid")
class SolidClip(Pictured):
    """One colour over the whole canvas."""

    kind: Literal["solid"] = "solid"
    colour: Colour = param("#808080", help="Colour", control="colour")

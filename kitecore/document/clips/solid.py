from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Pictured, clip_kinds
from kitecore.document.fills import Fill, PlainFill


@clip_kinds.register("solid")
class SolidClip(Pictured):
    """One colour or a gradient over the whole canvas."""

    kind: Literal["solid"] = "solid"
    fill: Fill = PlainFill()

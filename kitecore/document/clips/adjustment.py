from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Pictured, clip_kinds


@clip_kinds.register("adjustment")
class AdjustmentClip(Pictured):
    """No picture of its own: its grade and effects work on all that lies below it.

    It is as large as the canvas; its place and masks say where it works, its opacity how much.
    """

    kind: Literal["adjustment"] = "adjustment"

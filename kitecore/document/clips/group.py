from __future__ import annotations

from typing import Literal

from kitecore.document.canvas import Canvas
from kitecore.document.clips._base import clip_kinds
from kitecore.document.clips._holding import Holding


@clip_kinds.register("group")
class GroupClip(Holding):
    """Several clips that behave as one.

    With a ``canvas`` its picture has that size, and is fitted like any other; without one it is as
    large as what it lies on.
    """

    kind: Literal["group"] = "group"
    canvas: Canvas | None = None

    @property
    def own_canvas(self) -> Canvas | None:
        return self.canvas

from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Pictured, clip_kinds
from kitecore.document.fills import Fill, PlainFill
from kitecore.document.shapes import Form, RectangleForm, Stroke


@clip_kinds.register("shape")
class ShapeClip(Pictured):
    """A form with a fill and a stroke, either of which may be missing."""

    kind: Literal["shape"] = "shape"
    form: Form = RectangleForm()
    fill: Fill | None = PlainFill(colour="#f4efe6")
    stroke: Stroke | None = None

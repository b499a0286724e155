"""Masks: where on a picture something works. Used by grades and by layers.

Lengths count in heights of the picture, from its middle, right and down positive: a mask stays
where it is on the picture, whatever the picture's size in pixels.
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from kitecore.document.brushes import Brushed
from kitecore.document.paths import Path
from kitecore.document.properties import Keys, Number, Point
from kitecore.model import Id, Model, Start, new_id, param

Join = Literal["add", "subtract", "intersect"]


class MaskBase(Model):
    """``join`` is how it goes together with the masks before it; the first one begins.

    With a ``tracker`` of its clip it goes along with what that follows, from where it is at
    ``since``, a tick of the file.
    """

    id: Id = Field(default_factory=new_id)
    on: bool = True
    join: Join = "add"
    invert: bool = False
    centre: Point = param((0.0, 0.0), help="Middle", low=-1, high=1, step=0.001)
    turn: Number = param(0.0, help="Turn, clockwise", unit="°", low=-180, high=180, step=0.5)
    grow: Number = param(0.0, help="Larger or smaller", low=-0.5, high=0.5, step=0.002)
    inwards: Number = param(0.0, help="Softness inwards", low=0, high=0.5, step=0.002)
    outwards: Number = param(0.0, help="Softness outwards", low=0, high=0.5, step=0.002)
    tracker: Id | None = None
    since: Start = 0


class EllipseMask(MaskBase):
    kind: Literal["ellipse"] = "ellipse"
    size: Point = param((0.3, 0.3), help="Half its width and height", low=0.005, high=2, step=0.005)


class RectangleMask(MaskBase):
    kind: Literal["rectangle"] = "rectangle"
    size: Point = param((0.2, 0.2), help="Half its width and height", low=0.005, high=2, step=0.005)
    radius: Number = param(0.0, help="Round corners", low=0, high=0.5, step=0.005)


class EdgeMask(MaskBase):
    """Lets through what lies above a straight line through its middle (before its turn)."""

    kind: Literal["edge"] = "edge"


class PathMask(MaskBase):
    """Lets through what lies inside of pen paths; where they cross, by the even-odd rule."""

    kind: Literal["path"] = "path"
    contours: Path = ()


class BrushStroke(Brushed):
    """One stroke of a painted mask; it may also wipe away."""

    erase: bool = False


Strokes = Annotated[tuple[BrushStroke, ...], Field(max_length=1000)]


class StrokesKeys(Keys[Strokes]):
    """Painted anew at some moments: what was painted at each stands until the next."""

    held: ClassVar[bool] = True


class BrushMask(MaskBase):
    """Lets through what was painted: the strokes keep their form, all of them together grow and
    soften.
    """

    kind: Literal["brush"] = "brush"
    strokes: Strokes | StrokesKeys = ()


MASKS: dict[str, type[MaskBase]] = {
    "ellipse": EllipseMask,
    "rectangle": RectangleMask,
    "edge": EdgeMask,
    "path": PathMask,
    "brush": BrushMask,
}
Mask = Annotated[
    EllipseMask | RectangleMask | EdgeMask | PathMask | BrushMask, Field(discriminator="kind")
]

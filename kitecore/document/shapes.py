"""Forms that a shape clip draws. Lengths are canvas pixels from the middle of the clip."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document.fills import Fill
from kitecore.document.paths import Path
from kitecore.document.properties import Number, NumberKeys, Point
from kitecore.model import Model, param

MOST_CORNERS = 200


class RectangleForm(Model):
    kind: Literal["rectangle"] = "rectangle"
    size: Point = param(
        (480.0, 320.0), help="Width and height", unit="px", low=1, high=2000, step=1
    )
    radius: Number = param(0.0, help="Round corners", unit="px", low=0, high=500, step=1)


class EllipseForm(Model):
    kind: Literal["ellipse"] = "ellipse"
    size: Point = param(
        (400.0, 400.0), help="Width and height", unit="px", low=1, high=2000, step=1
    )


class PolygonForm(Model):
    """Corners on a circle, the first one on top."""

    kind: Literal["polygon"] = "polygon"
    radius: Number = param(220.0, help="Radius", unit="px", low=1, high=1000, step=1)
    corners: Number = param(6.0, help="Corners", low=3, high=24, step=1)


class StarForm(Model):
    """Points on a circle and dents on a smaller one; the first point on top."""

    kind: Literal["star"] = "star"
    radius: Number = param(240.0, help="Radius of the points", unit="px", low=1, high=1000, step=1)
    inner: Number = param(110.0, help="Radius of the dents", unit="px", low=1, high=1000, step=1)
    points: Number = param(5.0, help="Points", low=3, high=40, step=1)


class LineForm(Model):
    kind: Literal["line"] = "line"
    begin: Point = param((-250.0, 0.0), help="Where it begins", unit="px", control="spot")
    end: Point = param((250.0, 0.0), help="Where it ends", unit="px", control="spot")


class PathForm(Model):
    """Pen paths; where they cross, filled by the even-odd rule."""

    kind: Literal["path"] = "path"
    contours: Path = ()


FORMS: dict[str, type[Model]] = {
    "rectangle": RectangleForm,
    "ellipse": EllipseForm,
    "polygon": PolygonForm,
    "star": StarForm,
    "line": LineForm,
    "path": PathForm,
}
Form = Annotated[
    RectangleForm | EllipseForm | PolygonForm | StarForm | LineForm | PathForm,
    Field(discriminator="kind"),
]


class Stroke(Model):
    """A line along the form. ``dashes`` are lengths of line and gap in turn, none for a whole line.

    Only the part from ``begin`` to ``end`` is drawn: with keys it grows along the line.
    """

    fill: Fill
    width: Number = param(12.0, help="Width", unit="px", low=0, high=200, step=0.5)
    cap: Literal["butt", "round", "square"] = "round"
    join: Literal["miter", "round", "bevel"] = "round"
    dashes: tuple[Annotated[float, Field(gt=0, le=4000)] | NumberKeys, ...] = Field(
        default=(), max_length=8
    )
    dash_shift: Number = param(
        0.0, help="Shift of the dashes", unit="px", low=-500, high=500, step=1
    )
    begin: Number = param(0.0, help="Drawn from", low=0, high=1, step=0.005)
    end: Number = param(1.0, help="Drawn to", low=0, high=1, step=0.005)

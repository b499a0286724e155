"""Strokes that mend a picture of a take: they never touch the file, and can be changed at any time.

Lengths count in heights of the picture, places from its middle, right and down positive. They work
on the picture as it was taken, before its key and its grade, one after the other.
"""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field

from kitecore.document.brushes import Brushed
from kitecore.document.properties import Vector
from kitecore.model import Id, Start, new_id, param

MOST_STROKES: Final = 100
"""Of one clip."""


class StrokeBase(Brushed):
    """What every stroke has. The first line of its own docstring is its name and what it does.

    ``steady`` evens out the hand that drew it.

    With a ``tracker`` of its clip it goes along with what that follows, from where it was painted,
    at ``since``, a tick of the file; where that is lost it does nothing.
    """

    kind: str
    id: Id = Field(default_factory=new_id)
    on: bool = True
    width: float = param(0.06, help="Size", low=0.002, high=0.5, step=0.001, ge=0.0005, le=2)
    softness: float = param(0.2, help="Softness", low=0, high=1, step=0.05, ge=0, le=1)
    strength: float = param(1.0, help="Strength", low=0, high=1, step=0.01, ge=0, le=1)
    steady: float = param(0.0, help="Evens out the line", low=0, high=1, step=0.05, ge=0, le=1)
    tracker: Id | None = None
    since: Start = 0


class Sourcing(StrokeBase):
    """``source`` leads from the stroke to the place whose picture it takes."""

    source: Vector = (0.1, 0.0)


class CloneStroke(Sourcing):
    """Clone: lays another place of the picture over this one."""

    kind: Literal["clone_stroke"] = "clone_stroke"


class HealStroke(Sourcing):
    """Heal: takes the grain of another place and the light from around."""

    kind: Literal["heal_stroke"] = "heal_stroke"


class FillStroke(StrokeBase):
    """Fill: closes a hole from the rest of the picture, or of the take.

    ``taken_from`` around: as that is at ``since``; from other moments: what other frames of a video show there;
    ``behind`` is the tracker of its clip that what lies behind goes along with, else it stands still.
    """

    kind: Literal["fill_stroke"] = "fill_stroke"
    taken_from: Literal["around", "moments"] = "around"
    behind: Id | None = None


class SoftenStroke(StrokeBase):
    """Soften: takes spots away and keeps grain and edges."""

    kind: Literal["soften_stroke"] = "soften_stroke"
    spots: float = param(
        0.012, help="The largest spots that go", low=0.002, high=0.06, step=0.001, ge=0.0005, le=0.2
    )
    keeps: float = param(
        0.0015, help="Finer than this stays", low=0.0005, high=0.01, step=0.0005, ge=0.0002, le=0.05
    )


class SharpenStroke(StrokeBase):
    """Sharpen: makes edges clearer."""

    kind: Literal["sharpen_stroke"] = "sharpen_stroke"
    radius: float = param(
        0.002, help="How wide edges are", low=0.0005, high=0.02, step=0.0005, ge=0.0002, le=0.05
    )
    amount: float = param(1.0, help="How much clearer", low=0, high=3, step=0.05, ge=0, le=5)


class LightStroke(StrokeBase):
    """Light: lightens or darkens."""

    kind: Literal["light_stroke"] = "light_stroke"
    stops: float = param(
        0.5, help="Lighter or darker", unit="stops", low=-2, high=2, step=0.05, ge=-4, le=4
    )


STROKES: Final[dict[str, type[StrokeBase]]] = {
    "clone_stroke": CloneStroke,
    "heal_stroke": HealStroke,
    "fill_stroke": FillStroke,
    "soften_stroke": SoftenStroke,
    "sharpen_stroke": SharpenStroke,
    "light_stroke": LightStroke,
}
Stroke = Annotated[
    CloneStroke | HealStroke | FillStroke | SoftenStroke | SharpenStroke | LightStroke,
    Field(discriminator="kind"),
]

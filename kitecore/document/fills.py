"""What a surface is filled with: one colour or a gradient."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document.properties import Colour, Number, Point
from kitecore.model import Model, param

MOST_STOPS = 32


class Stop(Model):
    """A colour of a gradient, ``at`` a share of the way along it."""

    at: Number = param(0.0, help="Where on the way", low=0, high=1, step=0.01)
    colour: Colour = param("#808080", help="Colour", control="colour")
    opacity: Number = param(1.0, help="Opacity", low=0, high=1, step=0.01)


class PlainFill(Model):
    """One colour."""

    kind: Literal["plain"] = "plain"
    colour: Colour = param("#808080", help="Colour", control="colour")
    opacity: Number = param(1.0, help="Opacity", low=0, high=1, step=0.01)


Stops = Annotated[tuple[Stop, ...], Field(min_length=1, max_length=MOST_STOPS)]

TWO_STOPS = (Stop(at=0.0, colour="#ffd9a0"), Stop(at=1.0, colour="#5d4384"))


class StraightFill(Model):
    """A gradient from one point to another, in canvas pixels from the middle of what is filled.

    Stops may stand in any order; beyond the outermost ones their colours go on.
    """

    kind: Literal["straight"] = "straight"
    begin: Point = param((0.0, -400.0), help="Where it begins", unit="px", control="spot")
    end: Point = param((0.0, 400.0), help="Where it ends", unit="px", control="spot")
    stops: Stops = TWO_STOPS


class RoundFill(Model):
    """A gradient from a middle outwards, to a point on its rim; lengths as in `StraightFill`."""

    kind: Literal["round"] = "round"
    begin: Point = param((0.0, 0.0), help="Its middle", unit="px", control="spot")
    end: Point = param((0.0, 500.0), help="Its rim", unit="px", control="spot")
    stops: Stops = TWO_STOPS


Gradient = StraightFill | RoundFill
Fill = Annotated[PlainFill | StraightFill | RoundFill, Field(discriminator="kind")]
FILLS: dict[str, type[PlainFill] | type[StraightFill] | type[RoundFill]] = {
    "plain": PlainFill,
    "straight": StraightFill,
    "round": RoundFill,
}

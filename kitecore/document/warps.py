"""Bending a picture by pins, or by a grid of points.

Lengths count in heights of the picture, from its middle, right and down positive, as in masks.
"""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from kitecore.document.properties import LatticeKeys, Offsets, Point, Vector
from kitecore.model import Id, Model, Real, Start, new_id, param

MOST_PINS = 40
MOST_DIVISIONS = 12
LEAST_AREA = 0.01
_NEAR = 1e-4


class Pin(Model):
    """A spot of the picture, ``rest``, and where it is held, ``at``."""

    id: Id = Field(default_factory=new_id)
    rest: Vector
    at: Point


class PinWarp(Model):
    """The picture gives way between its pins, turning rather than stretching.

    ``chain`` names pins from the top down: each goes along with the one at the top, ``later`` ticks
    after the one before it.
    """

    kind: Literal["pins"] = "pins"
    on: bool = True
    pins: tuple[Pin, ...] = Field(default=(), max_length=MOST_PINS)
    stiffness: float = param(
        0.3, help="How far a bend spreads", low=0, high=1, step=0.05, ge=0, le=1
    )
    chain: tuple[Id, ...] = Field(default=(), max_length=MOST_PINS)
    later: Start = 0

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        known = {pin.id for pin in self.pins}
        if len(known) < len(self.pins):
            raise ValueError("two pins have the same id")
        if not known.issuperset(self.chain) or len(set(self.chain)) < len(self.chain):
            raise ValueError("a chain names each of its pins once")
        for index, one in enumerate(self.pins):
            for other in self.pins[:index]:
                if all(abs(a - b) < _NEAR for a, b in zip(one.rest, other.rest, strict=True)):
                    raise ValueError("two pins are at the same spot")
        return self


Area = tuple[Real, Real, Real, Real]
"""Left, top, right and bottom, in heights of the picture from its middle."""


class GridWarp(Model):
    """A smooth sheet through ``columns`` × ``rows`` fields; ``points`` are how far its corners are
    from where they rest, row by row.

    The fields share the ``area``, or all of the picture; what lies outside goes along with the
    border that is nearest.
    """

    kind: Literal["grid"] = "grid"
    on: bool = True
    columns: int = param(3, help="Fields across", low=1, high=8, step=1, ge=1, le=MOST_DIVISIONS)
    rows: int = param(3, help="Fields down", low=1, high=8, step=1, ge=1, le=MOST_DIVISIONS)
    points: Offsets = ((0.0, 0.0),) * 16
    area: Area | None = None

    @model_validator(mode="after")
    def _enough(self) -> Self:
        count = (self.columns + 1) * (self.rows + 1)
        keyed = isinstance(self.points, LatticeKeys)
        found = [key.value for key in self.points.keys] if keyed else [self.points]  # type: ignore[union-attr]
        if any(len(points) != count for points in found):  # type: ignore[arg-type]
            raise ValueError(f"a grid of {self.columns} × {self.rows} fields has {count} points")
        if self.area is not None:
            left, top, right, bottom = self.area
            if right - left < LEAST_AREA or bottom - top < LEAST_AREA:
                raise ValueError("the area of a grid has a width and a height")
        return self


Warp = Annotated[PinWarp | GridWarp, Field(discriminator="kind")]

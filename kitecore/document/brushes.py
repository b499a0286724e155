"""What a round brush draws: the one form of all that is painted."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import Field, model_validator

from kitecore.document.properties import Vector
from kitecore.model import Model

Pressure = Annotated[float, Field(ge=0, le=1)]


class Brushed(Model):
    """A round brush of a diameter, drawn along points.

    ``pressures`` are the shares of the diameter at the points, as a pen was pressed; without any the
    brush is as wide everywhere.
    """

    points: tuple[Vector, ...] = Field(min_length=1, max_length=4000)
    pressures: tuple[Pressure, ...] = Field(default=(), max_length=4000)
    width: float = Field(default=0.06, gt=0, le=2)
    softness: float = Field(default=0.3, ge=0, le=1)

    @model_validator(mode="after")
    def _one_each(self) -> Self:
        if self.pressures and len(self.pressures) != len(self.points):
            raise ValueError("a stroke has as many pressures as points, or none")
        return self

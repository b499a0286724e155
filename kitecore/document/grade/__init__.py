"""The grade of a clip: what is done to its colours, pixel by pixel."""

from __future__ import annotations

from pydantic import Field

from kitecore.document.grade.adjustments import Adjustments
from kitecore.document.grade.stages import (
    Balance,
    Cdl,
    Colour,
    Contrast,
    Curves,
    Input,
    Levels,
    Light,
    Lut,
    Match,
    StageBase,
    Wheel,
    Wheels,
)
from kitecore.document.grade.zone import BrightnessRange, HueRange, Zone

MOST_ZONES = 8

__all__ = [
    "MOST_ZONES",
    "Adjustments",
    "Balance",
    "BrightnessRange",
    "Cdl",
    "Colour",
    "Contrast",
    "Curves",
    "Grade",
    "HueRange",
    "Input",
    "Levels",
    "Light",
    "Lut",
    "Match",
    "StageBase",
    "Wheel",
    "Wheels",
    "Zone",
    "grade_of",
]


class Grade(Adjustments):
    """First the input transform, then the adjustments in order, then zones, each on what is there."""

    on: bool = True
    input: Input = Input()
    zones: tuple[Zone, ...] = Field(default=(), max_length=MOST_ZONES)

    @property
    def stages(self) -> tuple[tuple[str, StageBase], ...]:
        return (("input", self.input), *super().stages)


def grade_of(adjustments: Adjustments) -> Grade:
    """The same adjustments as a grade of its own."""
    return Grade(**{name: getattr(adjustments, name) for name in Adjustments.model_fields})

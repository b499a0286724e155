"""All adjustments of a grade, stage by stage."""

from __future__ import annotations

from kitecore.document.grade.stages import (
    Balance,
    Cdl,
    Colour,
    Contrast,
    Curves,
    Levels,
    Light,
    Lut,
    Match,
    StageBase,
    Wheels,
)
from kitecore.model import Model


class Adjustments(Model):
    """The fields stand in the order in which they work."""

    light: Light = Light()
    balance: Balance = Balance()
    levels: Levels = Levels()
    wheels: Wheels = Wheels()
    cdl: Cdl = Cdl()
    contrast: Contrast = Contrast()
    curves: Curves = Curves()
    colour: Colour = Colour()
    match: Match = Match()
    lut: Lut = Lut()

    @property
    def stages(self) -> tuple[tuple[str, StageBase], ...]:
        """Name and settings of each stage, in order."""
        return tuple((name, getattr(self, name)) for name in Adjustments.model_fields)

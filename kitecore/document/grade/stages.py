"""The stages of a grade, in the order in which they work. Each can be switched off on its own.

All numbers with a range describe themselves, so that benches can build their controls from them.
"""

from __future__ import annotations

from typing import Any, ClassVar

from kitecore.document.properties import Curve, Number, Point, Triple, Vector3
from kitecore.document.references import LookName
from kitecore.model import Model, Name, param


class StageBase(Model):
    """One stage. As it is by default it changes nothing."""

    title: ClassVar[str] = ""

    on: bool = True

    @property
    def works(self) -> bool:
        """Whether it is on and set to anything."""
        return self.on and self != type(self)()


class Input(StageBase):
    """From what a camera wrote to a picture for the screen."""

    title: ClassVar[str] = "Camera"

    transform: Name = param("", help="How the camera coded its picture", control="transform")


class Light(StageBase):
    title: ClassVar[str] = "Light"

    exposure: Number = param(
        0.0, help="More or less light, as if by the lens", unit="stops", low=-4, high=4, step=0.05
    )


class Balance(StageBase):
    """Towards another white: along the colours of daylight, and across from green to magenta."""

    title: ClassVar[str] = "Balance"

    warmth: Number = param(0.0, help="From blue to amber", low=-100, high=100, step=1)
    tint: Number = param(0.0, help="From green to magenta", low=-100, high=100, step=1)


def _percent(default: float, help: str, low: float, high: float) -> Any:
    return param(default, help=help, unit="%", low=low, high=high, step=0.5)


def _factor(help: str, low: float = 0, high: float = 2) -> Any:
    return param(1.0, help=help, unit="×", low=low, high=high, step=0.01)


class Levels(StageBase):
    title: ClassVar[str] = "Levels"

    black: Number = _percent(0.0, "What becomes black", -20, 60)
    white: Number = _percent(100.0, "What becomes white", 40, 120)
    gamma: Number = _factor("Brightness of what lies between", 0.2, 4)
    lowest: Number = _percent(0.0, "How dark black is", 0, 60)
    highest: Number = _percent(100.0, "How bright white is", 40, 100)
    red: Number = _factor("Red, all of it")
    green: Number = _factor("Green, all of it")
    blue: Number = _factor("Blue, all of it")


class Wheel(Model):
    """A push towards a colour, by its place on the vectorscope, and a level for all channels.

    ``push`` lies in the unit circle: right is towards blue, up is towards red.
    """

    push: Point = param((0.0, 0.0), help="Towards a colour", low=-1, high=1, step=0.01)
    level: Number = param(0.0, help="Darker or brighter", low=-100, high=100, step=1)


class Wheels(StageBase):
    """Lift moves black most, gain moves white most, gamma what lies between."""

    title: ClassVar[str] = "Wheels"

    lift: Wheel = Wheel()
    gamma: Wheel = Wheel()
    gain: Wheel = Wheel()


class Cdl(StageBase):
    """ASC Color Decision List: slope, offset and power of each channel, then saturation."""

    title: ClassVar[str] = "CDL"

    slope: Triple = param((1.0, 1.0, 1.0), help="Slope", low=0, high=4, step=0.01)
    offset: Triple = param((0.0, 0.0, 0.0), help="Offset", low=-1, high=1, step=0.005)
    power: Triple = param((1.0, 1.0, 1.0), help="Power", low=0.1, high=4, step=0.01)
    saturation: Number = _factor("Saturation", 0, 4)


class Contrast(StageBase):
    title: ClassVar[str] = "Contrast"

    contrast: Number = param(0.0, help="Steeper or flatter", low=-100, high=100, step=1)
    pivot: Number = _percent(41.0, "The brightness that stays", 0, 100)
    blacks: Number = param(0.0, help="The darkest parts", low=-100, high=100, step=1)
    shadows: Number = param(0.0, help="The dark parts", low=-100, high=100, step=1)
    highlights: Number = param(0.0, help="The bright parts", low=-100, high=100, step=1)
    whites: Number = param(0.0, help="The brightest parts", low=-100, high=100, step=1)


def _curve(help: str) -> Any:
    return param(((0.0, 0.0), (1.0, 1.0)), help=help, control="curve")


def _hue_curve(help: str) -> Any:
    return param(((0.0, 0.5),), help=help, control="hue-curve")


class Curves(StageBase):
    """Curves of levels 0..1, and around the circle of hues with 0.5 for no change."""

    title: ClassVar[str] = "Curves"

    luma: Curve = _curve("Brightness, colours kept")
    red: Curve = _curve("Red")
    green: Curve = _curve("Green")
    blue: Curve = _curve("Blue")
    hue_to_hue: Curve = _hue_curve("Turns hues, by hue")
    hue_to_saturation: Curve = _hue_curve("Stronger or weaker, by hue")


class Colour(StageBase):
    title: ClassVar[str] = "Colour"

    saturation: Number = param(0.0, help="All colours", low=-100, high=100, step=1)
    vibrance: Number = param(0.0, help="Weak colours more", low=-100, high=100, step=1)
    hue: Number = param(0.0, help="Turns all hues", unit="°", low=-180, high=180, step=1)


class Match(StageBase):
    """Gains of red, green and blue, in light; then statistics in OKLab (mean and spread of L, a, b)
    of this shot after them, and of the one it follows.
    """

    title: ClassVar[str] = "Match"

    gains: Vector3 = (1.0, 1.0, 1.0)
    own_mean: Vector3 = (0.0, 0.0, 0.0)
    own_spread: Vector3 = (1.0, 1.0, 1.0)
    wanted_mean: Vector3 = (0.0, 0.0, 0.0)
    wanted_spread: Vector3 = (1.0, 1.0, 1.0)
    name: Name = ""
    amount: Number = _percent(100.0, "How much of it", 0, 100)


class Lut(StageBase):
    """A look: a table of colours, ours or brought in, by its name."""

    title: ClassVar[str] = "Look"

    look: LookName = param("", help="Which look", control="look")
    mix: Number = _percent(100.0, "How much of it", 0, 100)

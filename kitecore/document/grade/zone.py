"""Where, or in which colours, a further grade works."""

from __future__ import annotations

from pydantic import Field

from kitecore.document.grade.adjustments import Adjustments
from kitecore.document.masks import Mask
from kitecore.document.properties import Number
from kitecore.model import Id, Model, Name, new_id, param


class BrightnessRange(Model):
    """Lets through luma from ``low`` to ``high``; beyond, less and less over ``softness``."""

    on: bool = True
    low: Number = param(0.0, help="Darkest that is meant", unit="%", low=0, high=100, step=0.5)
    high: Number = param(100.0, help="Brightest that is meant", unit="%", low=0, high=100, step=0.5)
    softness: Number = param(10.0, help="Softness", unit="%", low=0, high=50, step=0.5)


class HueRange(Model):
    """Lets through hues (angles on the vectorscope) around ``middle`` that are coloured enough."""

    on: bool = True
    middle: Number = param(123.0, help="Hue that is meant", unit="°", low=0, high=360, step=1)
    width: Number = param(40.0, help="How wide around it", unit="°", low=0, high=360, step=1)
    softness: Number = param(20.0, help="Softness", unit="°", low=0, high=120, step=1)
    weakest: Number = param(4.0, help="Weakest colour meant", unit="%", low=0, high=60, step=0.5)


class Zone(Model):
    """A further grade, limited by masks, by brightness and by hue, as far as these are there.

    ``original``: brightness and hue are those of the picture before the rest of its grade.
    """

    id: Id = Field(default_factory=new_id)
    name: Name = ""
    on: bool = True
    amount: Number = param(100.0, help="How much of it", unit="%", low=0, high=100, step=1)
    invert: bool = False
    masks: tuple[Mask, ...] = Field(default=(), max_length=16)
    brightness: BrightnessRange | None = None
    hues: HueRange | None = None
    original: bool = False
    adjust: Adjustments = Adjustments()

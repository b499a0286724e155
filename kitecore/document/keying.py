"""Keys of the trade's second sense: making a layer clear by its colour or its brightness."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document.properties import Colour, Curve, Number
from kitecore.model import Model, param

STRAIGHT_CURVE = ((0.0, 0.0), (1.0, 1.0))


class KeyBase(Model):
    """What both have. ``shrink`` and ``soften`` work on the matte, in canvas pixels."""

    on: bool = True
    invert: bool = False
    shrink: Number = param(
        0.0, help="Shrink the edge", unit="px", low=-10, high=20, step=0.1, ge=-100, le=200
    )
    soften: Number = param(
        0.0, help="Soften the edge", unit="px", low=0, high=20, step=0.1, ge=0, le=200
    )


class ChromaKey(KeyBase):
    """Clear where the picture has the colour of the screen, by distance in chroma.

    The distance is 0 at the screen's colour and 1 at grey; nearer than ``clear_below`` is wholly
    clear, farther than ``solid_above`` solid, between them ``response`` leads from one to the other.
    ``even_out`` follows the light on the screen, so that its dark and bright parts are alike.
    """

    kind: Literal["chroma"] = "chroma"
    colour: Colour = param("#2fa84f", help="Colour of the screen", control="colour")
    clear_below: Number = param(0.08, help="Clear below", low=0, high=1, step=0.005)
    solid_above: Number = param(0.94, help="Solid above", low=0, high=1, step=0.005)
    response: Curve = STRAIGHT_CURVE
    spill: Number = param(1.0, help="Take away spill", low=0, high=1, step=0.01)
    even_out: Number = param(1.0, help="Even out the screen's light", low=0, high=1, step=0.01)


class LumaKey(KeyBase):
    """Solid from one brightness to another (BT.709 luma), less and less beyond, over ``softness``."""

    kind: Literal["luma"] = "luma"
    low: Number = param(20.0, help="Darkest that stays", unit="%", low=0, high=100, step=0.5)
    high: Number = param(100.0, help="Brightest that stays", unit="%", low=0, high=100, step=0.5)
    softness: Number = param(8.0, help="Softness", unit="%", low=0, high=50, step=0.5)


LayerKey = Annotated[ChromaKey | LumaKey, Field(discriminator="kind")]

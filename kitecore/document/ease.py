"""How a value goes from one key to the next (the functions are in `kitecore.motion.easing`)."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document.model import Model


class Hold(Model):
    """Stay at the key's value until the next key."""

    kind: Literal["hold"] = "hold"


class Steady(Model):
    """Even pace."""

    kind: Literal["steady"] = "steady"


class Bezier(Model):
    """CSS ``cubic-bezier(x1, y1, x2, y2)``; ``y`` outside 0..1 overshoots."""

    kind: Literal["bezier"] = "bezier"
    x1: float = Field(ge=0, le=1)
    y1: float = Field(ge=-10, le=10)
    x2: float = Field(ge=0, le=1)
    y2: float = Field(ge=-10, le=10)


Ease = Annotated[Hold | Steady | Bezier, Field(discriminator="kind")]

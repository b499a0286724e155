"""How a mouth goes from one pose to the next. To add a way: a model here, its drawing in the clip."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field

from kitecore.document.ease import SOFT, Ease
from kitecore.model import Model, param


class Swapped(Model):
    """Swapped: one pose, then the next."""

    kind: Literal["swapped"] = "swapped"


class Bouncing(Model):
    """Bouncing: swapped, and each swings in width and height as it comes."""

    kind: Literal["bouncing"] = "bouncing"
    bounce: float = param(0.2, help="How far it swings", low=0, high=0.6, step=0.01, ge=0, le=0.9)
    settling: float = param(
        0.35, help="How long it swings", unit="s", low=0.05, high=1, step=0.01, ge=0.01, le=5
    )


class Moving(Model):
    """Moving: points, places, sizes and colours go from pose to pose, where all have the same."""

    kind: Literal["moving"] = "moving"
    lasting: float = param(
        0.1, help="How long a change takes", unit="s", low=0, high=0.4, step=0.01, ge=0, le=2
    )
    ease: Ease = SOFT


MOUTH_WAYS: Final[dict[str, type[Model]]] = {
    "swapped": Swapped,
    "bouncing": Bouncing,
    "moving": Moving,
}
MouthWay = Annotated[Swapped | Bouncing | Moving, Field(discriminator="kind")]

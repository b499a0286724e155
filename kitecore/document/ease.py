"""How a value goes from one key to the next (the functions are in `kitecore.motion.easing`).

To add an easing: a model here, its function there.
"""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field

from kitecore.model import Model, param


class Hold(Model):
    """Hold: stays at the key's value until the next key."""

    kind: Literal["hold"] = "hold"


class Steady(Model):
    """Steady: an even pace."""

    kind: Literal["steady"] = "steady"


class Bezier(Model):
    """Curve: CSS ``cubic-bezier(x1, y1, x2, y2)``; ``y`` outside 0..1 overshoots."""

    kind: Literal["bezier"] = "bezier"
    x1: float = param(
        0.42, help="First handle: share of the time", low=0, high=1, step=0.01, ge=0, le=1
    )
    y1: float = param(
        0.0, help="First handle: share of the way", low=-1, high=2, step=0.01, ge=-10, le=10
    )
    x2: float = param(
        0.58, help="Second handle: share of the time", low=0, high=1, step=0.01, ge=0, le=1
    )
    y2: float = param(
        1.0, help="Second handle: share of the way", low=-1, high=2, step=0.01, ge=-10, le=10
    )


class Reversible(Model):
    """Can run the other way round: ``backwards`` begins with what else comes at the end."""

    backwards: bool = False


class Steps(Reversible):
    """Steps: CSS ``steps(count)``, jumping at the end of each; ``backwards`` at its start."""

    kind: Literal["steps"] = "steps"
    count: int = param(4, help="How many steps", low=1, high=24, step=1, ge=1, le=1000)


class Bounce(Reversible):
    """Bounce: falls to the next value and springs up from it a few times, ever lower."""

    kind: Literal["bounce"] = "bounce"
    count: int = param(3, help="How many times it springs up", low=1, high=8, step=1, ge=1, le=20)
    kept: float = param(
        0.3, help="Height that each leaves to the next", low=0.05, high=0.8, step=0.05, ge=0, le=0.9
    )


class Spring(Reversible):
    """Spring: swings about the next value and settles there.

    A damped oscillator of mass 1; its time is the stretch, so it lasts as long as that does.
    """

    kind: Literal["spring"] = "spring"
    stiffness: float = param(
        320.0, help="How strongly it is pulled", low=20, high=1500, step=10, gt=0, le=10000
    )
    damping: float = param(
        16.0, help="How soon it comes to rest", low=2, high=60, step=1, gt=0, le=500
    )


Ease = Annotated[Hold | Steady | Bezier | Steps | Bounce | Spring, Field(discriminator="kind")]

EASES: Final[dict[str, type[Model]]] = {
    "hold": Hold,
    "steady": Steady,
    "bezier": Bezier,
    "steps": Steps,
    "bounce": Bounce,
    "spring": Spring,
}
SOFT: Final = Bezier(x1=0.42, y1=0, x2=0.58, y2=1)
OVERSHOOT: Final = Bezier(x1=0.3, y1=1.5, x2=0.6, y2=1)


def turned_round(ease: Ease) -> Ease:
    """The same pace seen from the end: for a value that goes back the way it came."""
    if isinstance(ease, Bezier):
        return Bezier(x1=1 - ease.x2, y1=1 - ease.y2, x2=1 - ease.x1, y2=1 - ease.y1)
    if isinstance(ease, Hold):
        return Steps(count=1, backwards=True)
    if isinstance(ease, Steps) and ease.count == 1 and ease.backwards:
        return Hold()
    if isinstance(ease, Reversible):
        return ease.model_copy(update={"backwards": not ease.backwards})
    return ease

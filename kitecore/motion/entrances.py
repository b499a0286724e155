"""How layers come in and go out: where they are while they are not yet there."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

from kitecore.document.ease import OVERSHOOT, Bezier, Bounce, Ease, Spring, Steady
from kitecore.document.moves import SQUASHED, Entrance
from kitecore.document.properties import Vector
from kitecore.motion.easing import eased
from kitecore.motion.pose import Away
from kitecore.registry import Registry

From = Callable[[Entrance, Vector], Away]
"""``away(entrance, canvas)``: how far from its place a layer is when it begins to come in.

``canvas`` is the width and height in which it is at home.
"""
entrances: Registry[From] = Registry("way to come in")

CALM: Final = Bezier(x1=0.16, y1=1, x2=0.3, y2=1)
_PACE: Final[dict[str, Ease]] = {
    "drop": Bounce(count=3, kept=0.2),
    "pop": OVERSHOOT,
    "unfold": OVERSHOOT,
    "fade": Steady(),
    "squash": Spring(),
}
_UNIT: Final[dict[str, Vector]] = {
    "left": (-1.0, 0.0),
    "right": (1.0, 0.0),
    "top": (0.0, -1.0),
    "bottom": (0.0, 1.0),
}


def pace_of(entrance: Entrance, *, leaving: bool) -> Ease:
    """Its own ease, or that of its kind."""
    if entrance.ease is not None:
        return entrance.ease
    if leaving and entrance.kind == "drop":
        return CALM
    return _PACE.get(entrance.kind, CALM)


def away_of(entrance: Entrance, canvas: Vector, *, leaving: bool) -> Away:
    """Where a layer comes from, or where it goes to."""
    away = entrances[entrance.kind](entrance, canvas)
    # Up and down go on the way they began.
    onwards = leaving and entrance.kind in ("rise", "drop")
    return away.with_shift((-away.shift[0], -away.shift[1])) if onwards else away


def come(entrance: Entrance, progress: float, canvas: Vector, *, leaving: bool = False) -> Away:
    """How far away a layer still is, when a share of its coming in (0..1) is over."""
    share = eased(pace_of(entrance, leaving=leaving), min(max(progress, 0.0), 1.0))
    return away_of(entrance, canvas, leaving=leaving).scaled(1 - share)


@entrances.register("rise")
def rise(entrance: Entrance, canvas: Vector) -> Away:
    return Away(shift=(0.0, 0.12 * canvas[1] * entrance.strength), opacity=0.0)


@entrances.register("drop")
def drop(entrance: Entrance, canvas: Vector) -> Away:
    return Away(shift=(0.0, -canvas[1] * entrance.strength))


@entrances.register("slide")
def slide(entrance: Entrance, canvas: Vector) -> Away:
    x, y = _UNIT[entrance.side]
    return Away(shift=(x * canvas[0] * entrance.strength, y * canvas[1] * entrance.strength))


@entrances.register("pop")
def pop(entrance: Entrance, canvas: Vector) -> Away:
    return Away(size=(0.0, 0.0))


@entrances.register("fade")
def fade(entrance: Entrance, canvas: Vector) -> Away:
    return Away(opacity=0.0)


@entrances.register("spin")
def spin(entrance: Entrance, canvas: Vector) -> Away:
    return Away(turn=-270.0 * entrance.strength, size=(0.1, 0.1), opacity=0.0)


@entrances.register("unfold")
def unfold(entrance: Entrance, canvas: Vector) -> Away:
    """As a sheet opens about its crease, which is the pivot's level or upright."""
    lean = 12.0 * entrance.strength
    if entrance.side in ("left", "right"):
        return Away(size=(0.0, 1.0), lean=lean)
    return Away(size=(1.0, 0.0), lean=lean)


@entrances.register("squash")
def squash(entrance: Entrance, canvas: Vector) -> Away:
    """Wide and low at first, or narrow and high below 0; it springs into its shape."""
    by = SQUASHED * entrance.strength
    return Away(size=(max(1 + by, 0.05), max(1 - by, 0.05)))

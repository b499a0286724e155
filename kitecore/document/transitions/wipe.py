from __future__ import annotations

from typing import Literal

from kitecore.document.transitions._base import TransitionBase, transition_kinds
from kitecore.model import param


@transition_kinds.register("wipe")
class Wipe(TransitionBase):
    """A line passes over the picture; the new one is behind it."""

    kind: Literal["wipe"] = "wipe"
    angle: float = param(
        0.0,
        help="Way the line goes, clockwise from rightwards",
        unit="°",
        low=-180,
        high=180,
        step=1,
    )
    softness: float = param(0.1, help="Width of its edge", low=0, high=1, step=0.01)

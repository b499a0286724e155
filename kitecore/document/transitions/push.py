from __future__ import annotations

from typing import Literal

from kitecore.document.transitions._base import TransitionBase, transition_kinds
from kitecore.model import param


@transition_kinds.register("push")
class Push(TransitionBase):
    """The new picture pushes the old one out."""

    kind: Literal["push"] = "push"
    angle: float = param(
        0.0, help="Way it goes, clockwise from rightwards", unit="°", low=-180, high=180, step=1
    )

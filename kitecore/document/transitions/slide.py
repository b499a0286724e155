from __future__ import annotations

from typing import Literal

from kitecore.document.transitions._base import TransitionBase, transition_kinds
from kitecore.model import param


@transition_kinds.register("slide")
class Slide(TransitionBase):
    """The new picture slides over the old one."""

    kind: Literal["slide"] = "slide"
    angle: float = param(
        0.0, help="Way it goes, clockwise from rightwards", unit="°", low=-180, high=180, step=1
    )

from __future__ import annotations

from typing import Literal

from kitecore.document.transitions._base import TransitionBase, transition_kinds
from kitecore.model import param


@transition_kinds.register("blur_through")
class BlurThrough(TransitionBase):
    """Blurs out of one and into the other."""

    kind: Literal["blur_through"] = "blur_through"
    amount: float = param(
        60.0, help="Width of the blur in the middle", unit="px", low=5, high=200, step=1
    )

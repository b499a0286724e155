from __future__ import annotations

from typing import Literal

from kitecore.document.transitions._base import TransitionBase, transition_kinds


@transition_kinds.register("dissolve")
class Dissolve(TransitionBase):
    """One fades into the other."""

    kind: Literal["dissolve"] = "dissolve"

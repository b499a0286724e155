from __future__ import annotations

from typing import Literal

from kitecore.document.inserts._base import InsertBase, insert_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@insert_kinds.register("delay")
class Delay(InsertBase):
    """Delay: the sound comes again, quieter each time."""

    kind: Literal["delay"] = "delay"
    seconds: float = param(
        0.3, help="Comes again after", unit="s", low=0.02, high=2, step=0.01, ge=0.005, le=4
    )
    again: float = param(35.0, help="Each time at", unit="%", low=0, high=85, step=1, ge=0, le=90)
    across: bool = param(False, help="From side to side", control="switch")
    mix: Number = param(
        30.0, help="How much of it", unit="%", low=0, high=100, step=1, ge=0, le=100
    )

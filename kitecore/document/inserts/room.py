from __future__ import annotations

from typing import Literal

from kitecore.document.inserts._base import InsertBase, insert_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@insert_kinds.register("room")
class RoomSound(InsertBase):
    """Room: the sound comes back from walls."""

    kind: Literal["room"] = "room"
    seconds: float = param(
        0.8, help="Dies away within", unit="s", low=0.1, high=4, step=0.05, ge=0.05, le=6
    )
    ahead: float = param(
        12.0, help="First wall after", unit="ms", low=0, high=120, step=1, ge=0, le=500
    )
    dull: float = param(45.0, help="Dullness of the walls", unit="%", low=0, high=100, ge=0, le=100)
    mix: Number = param(
        20.0, help="How much of it", unit="%", low=0, high=100, step=1, ge=0, le=100
    )

from __future__ import annotations

from typing import Literal

from kitecore.document.inserts._base import InsertBase, insert_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@insert_kinds.register("gate")
class Gate(InsertBase):
    """Gate: makes pauses quieter."""

    kind: Literal["gate"] = "gate"
    threshold: Number = param(
        -45.0, help="Pauses are below", unit="dB", low=-80, high=0, step=0.5, ge=-100, le=12
    )
    depth: Number = param(
        18.0, help="Quieter by", unit="dB", low=0, high=60, step=0.5, ge=0, le=100
    )
    attack: float = param(
        4.0, help="Opens within", unit="ms", low=0.1, high=100, step=0.1, ge=0.05, le=500
    )
    hold: float = param(
        120.0, help="Stays open for", unit="ms", low=0, high=1000, step=1, ge=0, le=2000
    )
    release: float = param(
        220.0, help="Closes within", unit="ms", low=5, high=1500, step=1, ge=1, le=2000
    )

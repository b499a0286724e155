from __future__ import annotations

from typing import Literal

from kitecore.document.inserts._base import InsertBase, insert_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@insert_kinds.register("compressor")
class Compressor(InsertBase):
    """Compressor: makes loud parts quieter, so that all is more even."""

    kind: Literal["compressor"] = "compressor"
    threshold: Number = param(
        -24.0, help="Works from", unit="dB", low=-60, high=0, step=0.5, ge=-80, le=12
    )
    ratio: Number = param(3.0, help="Ratio to 1", low=1, high=20, step=0.1, ge=1, le=100)
    attack: float = param(
        10.0, help="Takes hold within", unit="ms", low=0.1, high=200, step=0.1, ge=0.05, le=500
    )
    release: float = param(
        160.0, help="Lets go within", unit="ms", low=5, high=1500, step=1, ge=1, le=2000
    )
    knee: Number = param(
        6.0, help="Width of the knee", unit="dB", low=0, high=24, step=0.5, ge=0, le=40
    )
    makeup: Number = param(
        0.0, help="Louder afterwards by", unit="dB", low=0, high=24, step=0.1, ge=-24, le=36
    )

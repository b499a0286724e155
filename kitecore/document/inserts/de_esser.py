from __future__ import annotations

from typing import Literal

from kitecore.document.inserts._base import InsertBase, insert_kinds
from kitecore.document.properties import Number
from kitecore.model import param


@insert_kinds.register("de_esser")
class DeEsser(InsertBase):
    """De-esser: softens sharp s sounds of a voice."""

    kind: Literal["de_esser"] = "de_esser"
    frequency: float = param(
        5500.0, help="Sharp from", unit="Hz", low=3000, high=10_000, step=50, ge=1500, le=16_000
    )
    threshold: Number = param(
        -32.0, help="Works from", unit="dB", low=-60, high=0, step=0.5, ge=-80, le=12
    )
    most: Number = param(
        9.0, help="Quieter by at most", unit="dB", low=0, high=24, step=0.5, ge=0, le=60
    )

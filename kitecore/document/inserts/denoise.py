from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field

from kitecore.document.inserts._base import InsertBase, insert_kinds
from kitecore.document.properties import Number
from kitecore.model import Real, param

NOISE_BANDS: Final = 40
"""Bands of a learnt noise, evenly spaced by ear from 40 Hz to 20 kHz."""

NoiseLevels = Annotated[tuple[Real, ...], Field(max_length=NOISE_BANDS)]


@insert_kinds.register("denoise")
class Denoise(InsertBase):
    """Noise reduction: takes away an even noise that was learnt from a stretch of it.

    ``noise`` is the noise's level in each of `NOISE_BANDS` bands, in dB; until it is learnt nothing
    is taken away. It is picked from the sound as a key's colour is from the picture.
    """

    kind: Literal["denoise"] = "denoise"
    noise: NoiseLevels = ()
    amount: Number = param(
        14.0, help="Quieter by", unit="dB", low=0, high=40, step=0.5, ge=0, le=60
    )
    reach: Number = param(
        6.0, help="Noise reaches above what was learnt by", unit="dB", low=0, high=18, step=0.5
    )

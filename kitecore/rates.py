"""Frame rates, as they are kept."""

from __future__ import annotations

from typing import Self

from pydantic import model_validator

from kitecore.model import Model
from kitecore.ticks import RATES, Rate


class FrameRate(Model):
    """One of `kitecore.ticks.RATES`, as a fraction."""

    num: int = 30
    den: int = 1

    @model_validator(mode="after")
    def _known(self) -> Self:
        if not any((rate.num, rate.den) == (self.num, self.den) for rate in RATES):
            raise ValueError("frame rates: " + ", ".join(str(rate) for rate in RATES))
        return self

    @property
    def exact(self) -> Rate:
        return Rate(self.num, self.den)

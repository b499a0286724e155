from __future__ import annotations

import math
from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Timed, effect_kinds
from kitecore.model import param
from kitecore.ticks import TICKS_PER_SECOND


@effect_kinds.register("hold")
class Hold(Timed):
    """Fewer pictures: each stays for a while, as in a film made by hand."""

    family: ClassVar[Family] = "time"
    kind: Literal["hold"] = "hold"
    rate: float = param(
        8.0, help="Pictures in a second", unit="/s", low=1, high=30, step=0.5, gt=0, le=120
    )

    @property
    def looks_back(self) -> int:
        return math.ceil(TICKS_PER_SECOND / self.rate)

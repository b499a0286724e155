from __future__ import annotations

import math
from typing import ClassVar, Final, Literal

from kitecore.document.effects._base import Family, Timed, effect_kinds
from kitecore.document.properties import Number, extremes
from kitecore.model import param
from kitecore.ticks import TICKS_PER_SECOND

SLOWEST: Final = 0.05
FASTEST: Final = 120.0
"""Pictures in a second: a rate beyond counts as that."""


@effect_kinds.register("hold")
class Hold(Timed):
    """Fewer pictures: each stays for a while, as in a film made by hand."""

    family: ClassVar[Family] = "time"
    keyed: ClassVar[frozenset[str]] = frozenset({"rate"})
    kind: Literal["hold"] = "hold"
    rate: Number = param(8.0, help="Pictures in a second", unit="/s", low=1, high=30, step=0.5)

    @property
    def looks_back(self) -> int:
        """As long as one picture stays at the slowest that has a key."""
        return math.ceil(TICKS_PER_SECOND / min(max(extremes(self.rate)[0], SLOWEST), FASTEST))

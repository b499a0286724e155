from __future__ import annotations

from typing import ClassVar, Final, Literal

from kitecore.document.effects._base import Family, Timed, effect_kinds
from kitecore.document.properties import Number, extremes
from kitecore.model import param
from kitecore.ticks import TICKS_PER_SECOND

MOST: Final = 8
"""Moments that are seen still."""
SOONEST: Final = 0.001
LATEST: Final = 20.0
"""Seconds from one to the next: less or more count as these."""


@effect_kinds.register("echo")
class Echo(Timed):
    """Echo: what was seen a moment ago is seen still, more and more faintly."""

    family: ClassVar[Family] = "time"
    keyed: ClassVar[frozenset[str]] = frozenset({"count", "later"})
    kind: Literal["echo"] = "echo"
    count: Number = param(4.0, help="How many moments", low=1, high=MOST, step=1)
    later: Number = param(0.1, help="From one to the next", unit="s", low=0.01, high=2, step=0.01)
    strength: Number = param(0.6, help="How much of each the next has", low=0, high=1, step=0.01)
    where: Literal["behind", "light"] = param(
        "behind", help="Behind what is seen now, or added to it as light", control="choice"
    )

    @property
    def looks_back(self) -> int:
        """As far as with the most moments, the farthest apart, that have keys."""
        return self.most * round(self.latest * TICKS_PER_SECOND)

    @property
    def most(self) -> int:
        return round(min(max(extremes(self.count)[1], 1), MOST))

    @property
    def latest(self) -> float:
        """Seconds from one moment to the next."""
        return min(max(extremes(self.later)[1], SOONEST), LATEST)

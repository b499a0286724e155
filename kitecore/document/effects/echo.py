from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import Family, Timed, effect_kinds
from kitecore.document.properties import Number
from kitecore.model import param
from kitecore.ticks import TICKS_PER_SECOND


@effect_kinds.register("echo")
class Echo(Timed):
    """Echo: what was seen a moment ago is seen still, more and more faintly."""

    family: ClassVar[Family] = "time"
    kind: Literal["echo"] = "echo"
    count: int = param(4, help="How many moments", low=1, high=8, step=1, ge=1, le=8)
    later: float = param(
        0.1, help="From one to the next", unit="s", low=0.01, high=2, step=0.01, gt=0, le=20
    )
    strength: Number = param(0.6, help="How much of each the next has", low=0, high=1, step=0.01)
    where: Literal["behind", "light"] = param(
        "behind", help="Behind what is seen now, or added to it as light", control="choice"
    )

    @property
    def looks_back(self) -> int:
        return self.count * round(self.later * TICKS_PER_SECOND)

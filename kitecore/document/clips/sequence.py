from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document.clips._base import Retouchable, clip_kinds
from kitecore.document.references import TakeIds
from kitecore.model import Length, Tick


@clip_kinds.register("sequence")
class SequenceClip(Retouchable):
    """Numbered stills as one clip: ``each`` ticks a picture, in an order that never changes.

    After the last picture it begins again; there and back shows the two ends once.
    """

    kind: Literal["sequence"] = "sequence"
    pictures: TakeIds = Field(min_length=1, max_length=5000)
    each: Length
    order: Literal["forward", "backward", "there_and_back"] = "forward"
    first: Tick = 0
    """Ticks of the row that have passed at the clip's start."""

    def trimmed(self, start: int, end: int) -> SequenceClip:
        moved = super().trimmed(start, end)
        return moved.model_copy(update={"first": self.first + start - self.start})

    def media_at(self, local: int) -> str:
        count = len(self.pictures)
        number = (self.first + local) // self.each
        if self.order == "there_and_back" and count > 1:
            number %= 2 * count - 2
            number = number if number < count else 2 * count - 2 - number
        else:
            number %= count
        return self.pictures[count - 1 - number if self.order == "backward" else number]

    @property
    def once(self) -> int:
        """Ticks until it begins again."""
        count = len(self.pictures)
        return self.each * (max(1, 2 * count - 2) if self.order == "there_and_back" else count)

    def uses(self) -> frozenset[str]:
        return frozenset(self.pictures)

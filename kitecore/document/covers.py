"""How strong what covers something has to be for nothing of it to be made out again."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final


@dataclass(frozen=True)
class Strength:
    """Of an effect: which of its numbers counts, in shares of what is covered; canvas pixels at least,
    and at most.
    """

    number: str
    share: float
    least: float
    most: float

    def over(self, pixels: float) -> float:
        """That number for a thing of so many canvas pixels, by its longer side."""
        return min(max(self.least, pixels * self.share), self.most)


STRENGTHS: Final = {
    # Five squares across: so few that no face is known by them.
    "mosaic": Strength("side", 1 / 5, 8.0, 20_000.0),
    # By a sigma of that, what is left of a thing are its colours.
    "soft_blur": Strength("sigma", 0.3, 4.0, 20_000.0),
}

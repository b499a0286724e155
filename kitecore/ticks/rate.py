"""Frame rates, and the tick at which each frame starts."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Final

TICKS_PER_SECOND: Final = 705_600_000
"""Ticks in a second ("flicks"): divisible by every rate in `RATES` and by 44.1, 48 and 96 kHz."""


@dataclass(frozen=True, order=True)
class Rate:
    """Frames a second as an exact fraction.

    Parameters
    ----------
    num, den
        Positive integers; 29.97 is ``Rate(30000, 1001)``.

    Raises
    ------
    ValueError
        If either is not positive, or a frame is not a whole number of ticks.
    """

    num: int
    den: int = 1

    def __post_init__(self) -> None:
        if self.num <= 0 or self.den <= 0:
            raise ValueError("a rate is positive")
        if TICKS_PER_SECOND * self.den % self.num:
            raise ValueError(f"a frame at {self.num}/{self.den} is not a whole number of ticks")

    @property
    def frame_ticks(self) -> int:
        """Length of one frame in ticks."""
        return TICKS_PER_SECOND * self.den // self.num

    @property
    def fraction(self) -> Fraction:
        return Fraction(self.num, self.den)

    @property
    def nominal(self) -> int:
        """Frames counted to a second of timecode: 30 for 29.97."""
        return -(-self.num // self.den)

    def start_of(self, frame: int) -> int:
        """Tick at which ``frame`` starts."""
        return frame * self.frame_ticks

    def frame_at(self, tick: int) -> int:
        """Number of the frame that is shown at ``tick`` (floor, also below zero)."""
        return tick // self.frame_ticks

    def nearest(self, tick: int) -> int:
        """Frame boundary nearest to ``tick``, as a tick; halves go up."""
        return (tick + self.frame_ticks // 2) // self.frame_ticks * self.frame_ticks

    def is_boundary(self, tick: int) -> bool:
        return tick % self.frame_ticks == 0

    def __str__(self) -> str:
        return f"{self.num / self.den:.3f}".rstrip("0").rstrip(".")


RATES: Final = (
    Rate(24000, 1001),
    Rate(24),
    Rate(25),
    Rate(30000, 1001),
    Rate(30),
    Rate(48),
    Rate(50),
    Rate(60000, 1001),
    Rate(60),
)
"""The rates a project can have."""

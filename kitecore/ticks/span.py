"""A stretch of time."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Span:
    """Ticks from ``start`` up to, not including, ``end``."""

    start: int
    end: int

    @property
    def length(self) -> int:
        return max(0, self.end - self.start)

    def __bool__(self) -> bool:
        return self.end > self.start

    def __contains__(self, tick: int) -> bool:
        return self.start <= tick < self.end

    def overlaps(self, other: Span) -> bool:
        return self.start < other.end and other.start < self.end

    def intersection(self, other: Span) -> Span:
        """What both cover; empty (and so false) if nothing."""
        start = max(self.start, other.start)
        return Span(start, max(start, min(self.end, other.end)))

    def moved(self, by: int) -> Span:
        return Span(self.start + by, self.end + by)

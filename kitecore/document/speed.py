"""Speed of a clip: one function of source time over timeline time, given by its derivative.

Between two points the speed goes straight or softly (smoothstep); both have the mean of the two
ends, so every length follows from additions and one division, and the integral is a polynomial.
"""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Iterator
from itertools import pairwise
from typing import Annotated, Final

from pydantic import Field, field_validator

from kitecore.model import Model, Tick

FASTEST: Final = 20.0
Factor = Annotated[float, Field(ge=-FASTEST, le=FASTEST)]
"""Source time to timeline time; negative plays backwards, 0 stands still."""

_FAR = 2**53


class SpeedPoint(Model):
    """``speed`` at a tick counted from the start of the clip.

    One that ``bends`` stands halfway between two others and only leads the source to where they have
    it: whoever moves those sets it anew. ``soft`` is how the speed changes from here to the next
    point, where that is not as in all of the ramp.
    """

    at: Tick = 0
    speed: Factor = 1.0
    bends: bool = False
    soft: bool | None = None


class Speed(Model):
    """Speed over time: before the first point that one's, after the last that one's.

    ``soft`` lets the speed ease from point to point; otherwise it changes evenly.
    """

    points: tuple[SpeedPoint, ...] = Field(default=(SpeedPoint(),), min_length=1, max_length=200)
    soft: bool = True

    @field_validator("points")
    @classmethod
    def _in_order(cls, points: tuple[SpeedPoint, ...]) -> tuple[SpeedPoint, ...]:
        if any(a.at >= b.at for a, b in pairwise(points)):
            raise ValueError("points are in order of time, no two at the same moment")
        return points

    @classmethod
    def steady(cls, factor: float) -> Speed:
        return cls(points=(SpeedPoint(speed=factor),))

    @property
    def constant(self) -> float | None:
        """The factor, if it is the same all the time."""
        first = self.points[0].speed
        return first if all(point.speed == first for point in self.points) else None

    @property
    def plain(self) -> bool:
        """Whether the source plays as it is."""
        return self.constant == 1.0

    def at(self, tick: int) -> float:
        """Speed at a tick counted from the start of the clip."""
        index = bisect_right(self.points, tick, key=lambda point: point.at)
        if index == 0:
            return self.points[0].speed
        if index == len(self.points):
            return self.points[-1].speed
        a, b = self.points[index - 1], self.points[index]
        share = (tick - a.at) / (b.at - a.at)
        if self._is_soft(a):
            share = share * share * (3 - 2 * share)
        return a.speed + (b.speed - a.speed) * share

    def offset(self, tick: int) -> int:
        """Source ticks that pass from the start of the clip to ``tick`` (which may lie before)."""
        constant = self.constant
        if constant is not None:
            return tick if constant == 1 else round(tick * constant)
        return round(self._area(tick) - self._area(0))

    def _area(self, tick: int) -> float:
        """Integral from the first point to ``tick``."""
        first = self.points[0]
        if tick <= first.at:
            return (tick - first.at) * first.speed
        area = 0.0
        for a, b in pairwise(self.points):
            if tick <= b.at:
                return area + self._part(a, b, tick)
            area += (b.at - a.at) * (a.speed + b.speed) / 2
        return area + (tick - self.points[-1].at) * self.points[-1].speed

    def _part(self, a: SpeedPoint, b: SpeedPoint, tick: int) -> float:
        length = b.at - a.at
        u = (tick - a.at) / length
        risen = u**3 - u**4 / 2 if self._is_soft(a) else u * u / 2
        return length * (a.speed * u + (b.speed - a.speed) * risen)

    def _is_soft(self, point: SpeedPoint) -> bool:
        """Whether the speed eases from a point to the next."""
        return self.soft if point.soft is None else point.soft

    def moved(self, by: int) -> Speed:
        """The same curve counted from a start that lies ``by`` ticks earlier."""
        if not by or (self.constant is not None and len(self.points) == 1):
            return self
        points = tuple(point.model_copy(update={"at": point.at + by}) for point in self.points)
        return self.model_copy(update={"points": points})

    def scaled(self, factor: float) -> Speed:
        """Everything ``factor`` times as fast: the same content in a shorter time."""
        points = {round(point.at / factor): point for point in self.points}
        made = tuple(
            point.model_copy(update={"at": at, "speed": point.speed * factor})
            for at, point in sorted(points.items())
        )
        return self.model_copy(update={"points": made})

    def reversed(self, length: int) -> Speed:
        """The same content from its end to its beginning."""
        # What led from a point to the next leads from that one to it.
        softs = (None, *(point.soft for point in self.points[:-1]))
        points = [
            point.model_copy(update={"at": length - point.at, "speed": -point.speed, "soft": soft})
            for point, soft in zip(self.points, softs, strict=True)
        ]
        return self.model_copy(update={"points": tuple(reversed(points))})

    def inside(self, length: int) -> tuple[SpeedPoint, ...]:
        """The points of a clip of this length, with one at its start and one at its end."""
        between = tuple(point for point in self.points if 0 < point.at < length)
        before = next((point for point in reversed(self.points) if point.at <= 0), SpeedPoint())
        first = SpeedPoint(speed=self.at(0), soft=before.soft)
        return (first, *between, SpeedPoint(at=length, speed=self.at(length)))

    def extremes(self, length: int) -> tuple[int, int]:
        """Lowest and highest source offset within a clip of this length."""
        if self.constant is not None:
            end = self.offset(length)
            return min(0, end), max(0, end)
        turns = [t for t in self._turns(0) if t < length]
        offsets = [self.offset(tick) for tick in (0, *turns, length)]
        return min(offsets), max(offsets)

    def room(self, tick: int, below: int, above: int, *, later: bool) -> int:
        """How far one can go from ``tick`` until the source ends.

        Parameters
        ----------
        below, above
            Source ticks that are left under and over the offset at ``tick``.
        later
            Towards later times, or towards earlier ones.
        """
        if below < 0 or above < 0:
            return -1
        if not later:
            return self.reversed(0).room(-tick, below, above, later=True)
        base = self.offset(tick)
        at = tick
        for turn in (*self._turns(tick), None):
            if turn is None:
                return at - tick + self._steady_room(at, base, below, above)
            if not -below <= self.offset(turn) - base <= above:
                return self._exit(at, turn, base, below, above) - tick
            at = turn
        raise AssertionError("unreachable")

    def _steady_room(self, at: int, base: int, below: int, above: int) -> int:
        """From the last point on, where the speed stays."""
        done, speed = self.offset(at) - base, self.at(at)
        left = above - done if speed > 0 else below + done
        return _FAR if speed == 0 else min(_FAR, math.floor(left / abs(speed)))

    def _exit(self, low: int, high: int, base: int, below: int, above: int) -> int:
        """The last tick of a monotonic stretch that is within the source."""
        while high - low > 1:
            middle = (low + high) // 2
            if -below <= self.offset(middle) - base <= above:
                low = middle
            else:
                high = middle
        return low

    def _turns(self, tick: int) -> Iterator[int]:
        """Ticks after ``tick`` between which the source only goes one way."""
        for a, b in pairwise(self.points):
            if a.speed * b.speed < 0:
                crossing = round(a.at + (b.at - a.at) * self._crossing(a, b))
                if crossing > tick:
                    yield crossing
            if b.at > tick:
                yield b.at

    def _crossing(self, first: SpeedPoint, second: SpeedPoint) -> float:
        """Share of the way at which the speed is 0."""
        share = first.speed / (first.speed - second.speed)
        soft = self._is_soft(first)
        return 0.5 - math.sin(math.asin(1 - 2 * share) / 3) if soft else share

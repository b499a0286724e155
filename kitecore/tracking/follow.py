"""One thing followed from picture to picture, held against how it looked at first."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Final

import cv2
import numpy as np

from kitecore.tracking.flow import Grey, flowed, matched
from kitecore.tracking.quads import (
    Change,
    Matrix,
    Quad,
    agreed,
    area_of,
    carried,
    inverse,
    is_sound,
)
from kitecore.tracking.views import LONG, View, alike, even, halves, patch_of, view_of

SURE: Final = 0.65
"""Likeness from which on what is seen is taken for the thing."""
_LIKELY: Final = 0.45
"""Likeness from which on it may be the thing, for a while: followed, and told as unsure."""
_LEAP: Final = 0.75
"""Sizes of itself that a thing goes at most in one step to be taken for it where that is unsure."""
DOUBTS: Final = 15
"""Pictures in a row for which that is enough."""
_FOUND: Final = 0.8
"""Likeness from which on a thing that was lost is taken for found."""
_FLOWS: Final = 0.8
"""Share of points that agree where a thing is followed though it looks otherwise by now."""
_STILL_ITSELF: Final = 0.35
"""Likeness of its worse half at which a thing looks otherwise, but nothing is before it."""
_MOST_VIEWS: Final = 40
_GROWS: Final = 1.3
"""By how much a thing is larger or smaller at most in one step."""

_STILL: Final = 0.3
"""Pixels by which a corner moves where it is not worth the while to look once more."""

_WORTH: Final = 0.35
"""Correlation with what a thing looked like from which on it is worth a closer look."""
_FARTHEST: Final = 6.0
"""Sizes of a lost thing around its last place within which it is looked for."""
_LOOKS: Final = tuple((turn, size) for size in (1.0, 0.83, 1.2) for turn in (0.0, 12.0, -12.0))
"""Turns (degrees) and sizes in which a lost thing is looked for, one with each picture."""

Box = tuple[slice, slice]


@dataclass(frozen=True)
class Seen:
    """Where a thing is in one picture, and how surely, 0..1.

    Below `SURE` it is a guess; at 0 it is lost, and stays where it was.
    """

    quad: Quad
    sure: float


def follow(pictures: Iterable[Grey], quad: Quad, change: Change) -> Iterator[Seen]:
    """Where a thing is in each picture; in the first it is at ``quad``, in pixels.

    From one picture to the next its points are followed, then it is held against its first view, so
    that nothing creeps; and against a later one only where it has come to look otherwise. A thing
    that is covered or has left is looked for around its last place, ever farther.
    """
    follower: Follower | None = None
    for picture in pictures:
        if follower is None:
            follower = Follower(picture, quad, change)
            yield Seen(quad, 1.0)
        else:
            yield follower.step(picture)


class Follower:
    """One thing on its way: ``quad`` is where it is by now.

    ``seen``: how its first view is brought to that, if somebody else lets its corners change more.
    """

    def __init__(
        self, picture: Grey, quad: Quad, change: Change, seen: Change | None = None
    ) -> None:
        self.quad, self.change, self.before = quad, change, picture
        self.seen = seen or change
        self.views = [view_of(picture, quad)]
        self.lost = self.doubts = 0

    def step(self, picture: Grey) -> Seen:
        sure = 0.0 if self.lost else self._followed(picture)
        if sure < SURE:
            sure = max(sure, self._found_again(picture))
        if sure >= SURE:
            self.lost = self.doubts = 0
        elif sure >= _LIKELY and self.doubts < DOUBTS:
            self.doubts += 1
        else:
            self.lost += 1
        self.before = picture
        return Seen(self.quad, 0.0 if self.lost else sure)

    def _followed(self, picture: Grey) -> float:
        guess = self._flowed(picture)
        if guess is None:
            return 0.0
        quad, agree = guess
        best, sure = self._settled(picture, quad)
        if sure < SURE and agree > _FLOWS and self._is_itself(picture, quad):
            self.views.append(view_of(picture, quad))
            best, sure = quad, SURE
        if sure < SURE and not _near(self.quad, best):
            return 0.0
        if sure >= _LIKELY:
            self.quad = best
        return sure

    def _is_itself(self, picture: Grey, quad: Quad) -> bool:
        """Whether all of a thing looks a little like it did: what goes past it covers a part wholly."""
        view = self.views[-1]
        seen = patch_of(picture, view.from_now(self.seen, quad), view.patch.shape)
        return len(self.views) < _MOST_VIEWS and halves(view.patch, seen)[1] > _STILL_ITSELF

    def _flowed(self, picture: Grey) -> tuple[Quad, float] | None:
        """Where its points lead it, and the share of them that agree."""
        box = _box(self.quad, picture, 0.5)
        corner = np.array([box[1].start, box[0].start], np.float64)
        view = self.views[-1]
        back = view.to_now(self.seen, self.quad)
        points = (carried(back, view.points) - corner).astype(np.float32)
        before, after = (np.ascontiguousarray(one[box]) for one in (self.before, picture))
        there, good = flowed(before, after, points)
        found = agreed(self.change, points[good], there[good])
        if found is None:
            return None
        matrix, inside = found
        quad = carried(matrix, self.quad - corner) + corner
        return (quad, float(inside.sum()) / len(points)) if _may_be(self.quad, quad) else None

    def _settled(self, picture: Grey, quad: Quad) -> tuple[Quad, float]:
        """Where it fits its first view best, from a guess; or its last, where it fits that better."""
        best, sure = self._fitted(picture, quad, self.views[0])
        if sure < SURE and len(self.views) > 1:
            other, likely = self._fitted(picture, quad, self.views[-1])
            if likely > sure:
                return other, likely
        return best, sure

    def _fitted(self, picture: Grey, quad: Quad, view: View) -> tuple[Quad, float]:
        into = view.from_now(self.seen, quad)
        seen = patch_of(picture, into, view.patch.shape)
        sure = alike(view.patch, seen)
        for _ in range(2):
            after, good = matched(view.evened, even(seen), view.points)
            found = agreed(self.change, view.points[good], after[good])
            if found is None or found[1].sum() < 0.2 * len(view.points):
                break
            # What the patch shows of the thing, brought back to the picture.
            corners = carried(found[0], carried(view.into, view.quad))
            better = carried(inverse(into), corners)
            if not _may_be(quad, better):
                break
            into = view.from_now(self.seen, better)
            seen = patch_of(picture, into, view.patch.shape)
            likely = alike(view.patch, seen)
            if likely <= sure:
                break
            moved = float(np.abs(better - quad).max())
            quad, sure = better, likely
            if moved < _STILL:
                break
        return quad, sure

    def _found_again(self, picture: Grey) -> float:
        """Look for it where it was, then around: as it was, and a little turned, larger or smaller."""
        quad, sure = self._settled(picture, self.quad)
        if sure >= _FOUND and _near(self.quad, quad):
            self.quad = quad
            return sure
        turn, size = _LOOKS[(self.lost + self.doubts) % len(_LOOKS)]
        quad = _turned(self.quad, turn, size) if self.change != "moves" else self.quad
        view = self.views[-1]
        back = view.to_now(self.seen, quad)
        low, high = quad.min(axis=0), quad.max(axis=0)
        scale = LONG / float(max(*(high - low), 1.0))
        upright = np.diag([scale, scale, 1.0]) @ _shift(-low)
        shape = tuple(np.ceil((high - low) * scale).astype(int)[::-1])
        wanted = patch_of(view.patch, upright @ back, shape)
        box = _box(self.quad, picture, min(0.5 + 0.2 * self.lost, _FARTHEST))
        around = cv2.resize(picture[box], None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA)
        if around.shape[0] < shape[0] or around.shape[1] < shape[1]:
            return 0.0
        told = cv2.matchTemplate(around, wanted, cv2.TM_CCOEFF_NORMED)
        _, best, _, at = cv2.minMaxLoc(told)
        if best < _WORTH:
            return 0.0
        there = np.array(at, np.float64) / scale + [box[1].start, box[0].start]
        quad, sure = self._settled(picture, quad + there - low)
        if sure < _FOUND:
            return 0.0
        self.quad = quad
        return sure


def _turned(quad: Quad, degrees: float, size: float) -> Quad:
    """Turned and sized about its middle."""
    middle = quad.mean(axis=0)
    cos, sin = size * np.cos(np.radians(degrees)), size * np.sin(np.radians(degrees))
    return np.asarray((quad - middle) @ np.array([[cos, sin], [-sin, cos]]) + middle)


def _shift(by: Quad) -> Matrix:
    return np.array([[1.0, 0.0, by[0]], [0.0, 1.0, by[1]], [0.0, 0.0, 1.0]])


def _may_be(before: Quad, after: Quad) -> bool:
    """Whether a thing can have come from one place to another in one step."""
    if not is_sound(after):
        return False
    grown = area_of(after) / area_of(before)
    return 1 / _GROWS**2 < grown < _GROWS**2


def _near(before: Quad, after: Quad) -> bool:
    """Whether a thing went less far than it is large."""
    far = np.hypot(*(after.mean(axis=0) - before.mean(axis=0)))
    return bool(far < _LEAP * np.ptp(before, axis=0).max())


def _box(quad: Quad, picture: Grey, around: float) -> Box:
    """The part of a picture around a thing, by so many of its sizes on each side."""
    low, high = quad.min(axis=0), quad.max(axis=0)
    edge = around * float(max(high - low)) + 24
    height, width = picture.shape
    left, top = np.clip(np.floor(low - edge), 0, [width - 2, height - 2]).astype(int)
    right, bottom = np.clip(np.ceil(high + edge), [left + 2, top + 2], [width, height]).astype(int)
    return slice(int(top), int(bottom)), slice(int(left), int(right))

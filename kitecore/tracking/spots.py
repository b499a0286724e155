"""Several spots of a thing followed, each by itself: together they tell how it moves.

What lies between them does not count: a screen may show what it likes, a hand may go past.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.flow import Grey
from kitecore.tracking.follow import DOUBTS, SURE, Follower, Seen
from kitecore.tracking.quads import (
    LEAST,
    Change,
    Matrix,
    Points,
    Quad,
    agreed,
    between,
    carried,
    is_sound,
)

SIDE: Final = 0.07
"""Heights of the picture across which a spot is seen."""
_PART: Final = 0.15
_LEAST_HALF: Final = 8.0
"""Half of that: at most such a part of the thing, and at least so many pixels."""
_GUESS: Final = SURE / 2
"""How sure it is where too few agree."""
_LESS: Final[dict[Change, Change]] = {"leans": "turns", "turns": "moves"}
"""What fewer spots tell still."""
_UNIT: Final = np.array([[0.0, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]])


def spots_at(quad: Quad, spots: NDArray[np.floating]) -> NDArray[np.float64]:
    """Where spots are, told as shares across and down a thing, when that is at ``quad``."""
    return carried(between("leans", _UNIT, quad), np.asarray(spots, np.float64))


def follow_spots(
    pictures: Iterable[Grey], quad: Quad, change: Change, spots: NDArray[np.floating]
) -> Iterator[Seen]:
    """Where a thing is in each picture; in the first it is at ``quad``, in pixels.

    A spot that is lost, or disagrees with the others, is looked for where they say that it is. As
    long as as many agree as a change needs, the thing is not lost; if fewer than half do, it is a
    guess.

    Parameters
    ----------
    spots
        As `spots_at` takes them, shape (n, 2).
    """
    group: _Group | None = None
    for picture in pictures:
        if group is None:
            group = _Group(picture, quad, change, spots_at(quad, spots))
            yield Seen(quad, 1.0)
        else:
            yield group.step(picture)


class _Group:
    def __init__(self, picture: Grey, quad: Quad, change: Change, at: NDArray[np.float64]) -> None:
        wide = float(np.ptp(quad, axis=0).max())
        half = max(min(_PART * wide, SIDE / 2 * len(picture)), _LEAST_HALF)
        own: Change = "moves" if change == "moves" else "turns"
        self.first, self.change, self.at = quad, change, at
        self.matrix = np.eye(3)
        self.guesses = 0
        self.squares = [(2 * _UNIT - 1) * half + spot for spot in at]
        self.followers = [Follower(picture, square, own, change) for square in self.squares]

    def step(self, picture: Grey) -> Seen:
        before = carried(self.matrix, self.at)
        seen = [follower.step(picture) for follower in self.followers]
        there = np.array([follower.quad.mean(axis=0) for follower in self.followers])
        known = np.array([one.sure > 0 for one in seen])
        found = _fitted(self.change, self.at, there, known)
        guessed = found is None
        if found is None and (less := _LESS.get(self.change)):
            # Too few for all of it, but enough to tell where the rest has gone, for a while.
            step = _fitted(less, before, there, known)
            found = step and (step[0] @ self.matrix, step[1])
        if found is None or not is_sound(carried(found[0], self.first)):
            return Seen(carried(self.matrix, self.first), 0.0)
        self.matrix, agree = found
        self._lead(known if guessed else agree)
        sure = float(np.mean([one.sure for one, fits in zip(seen, agree, strict=True) if fits]))
        guessed |= 2 * agree.sum() < len(agree)
        self.guesses = self.guesses + 1 if guessed else 0
        if guessed:
            sure = min(sure, _GUESS) if self.guesses <= DOUBTS else 0.0
        return Seen(carried(self.matrix, self.first), sure)

    def _lead(self, free: NDArray[np.bool_]) -> None:
        """All turn and grow as the thing does; those that are not free are where it says, too."""
        for follower, square, own in zip(self.followers, self.squares, free, strict=True):
            led = carried(self.matrix, square)
            off = follower.quad.mean(axis=0) - led.mean(axis=0) if own else 0.0
            follower.quad = led + off


def _fitted(
    change: Change,
    before: NDArray[np.float64],
    after: NDArray[np.float64],
    known: NDArray[np.bool_],
) -> tuple[Matrix, NDArray[np.bool_]] | None:
    """The change that the known spots tell, and which of all agree with it."""
    found = agreed(change, _narrow(before[known]), _narrow(after[known]))
    if found is None or found[1].sum() < LEAST[change]:
        return None
    agree = known.copy()
    agree[known] = found[1]
    return found[0], agree


def _narrow(points: NDArray[np.float64]) -> Points:
    return np.ascontiguousarray(points, np.float32)

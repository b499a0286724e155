"""A thing followed from several views of it: each is met exactly, and the ways between agree."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.flow import Grey
from kitecore.tracking.follow import SURE, Seen, follow
from kitecore.tracking.quads import Change, Quad
from kitecore.tracking.spots import follow_spots

Read = Callable[[int], Grey]
_APART: Final = 0.4
"""In sizes of a thing: how far from each other two ways lead that do not follow the same."""
_DOUBT: Final = SURE / 2


@dataclass(frozen=True)
class Way:
    """``quads`` (n, 4, 2) and how surely the thing is there, 0..1 (n); at 0 it is lost."""

    quads: NDArray[np.float64]
    sure: NDArray[np.float64]


def followed(
    read: Read,
    first: int,
    last: int,
    views: Sequence[tuple[int, Quad]],
    change: Change,
    spots: NDArray[np.floating] | None = None,
    tell: Callable[[float], None] = lambda share: None,
) -> Way:
    """Where a thing is in each frame from ``first`` to ``last``.

    It is followed from every view both ways, up to the next; between two views it goes over from
    the way of the earlier to that of the later, so a correction pulls along what lies around it.

    Parameters
    ----------
    read
        The grey picture of a frame.
    views
        Frames, all different, and where the thing is in them, in pixels.
    spots
        What alone counts of the thing (see `spots.follow_spots`); none for all of it.
    """
    ordered = sorted(views, key=lambda view: view[0])
    quads = dict(ordered)
    legs = _legs([at for at, _ in ordered], first, last)
    whole = sum(abs(end - begin) + 1 for begin, end in legs)
    done = 0

    def counted(numbers: Iterable[int]) -> Iterable[Grey]:
        nonlocal done
        for number in numbers:
            yield read(number)
            done += 1
            tell(done / whole)

    def seen_on(begin: int, end: int) -> list[Seen]:
        pictures, quad = counted(_way(begin, end)), quads[begin]
        if spots is None:
            return list(follow(pictures, quad, change))
        return list(follow_spots(pictures, quad, change, spots))

    ways = {(begin, end): seen_on(begin, end) for begin, end in legs}
    found: dict[int, Seen] = {}
    for (begin, end), way in ways.items():
        back = ways.get((end, begin))
        for index, seen in enumerate(way):
            at = begin + index if end >= begin else begin - index
            if back is None or begin == end:
                found[at] = seen
            elif begin < end:
                found[at] = _mixed(seen, back[len(way) - 1 - index], index / (len(way) - 1))
    seen_all = [found[at] for at in range(first, last + 1)]
    return Way(np.stack([one.quad for one in seen_all]), np.array([one.sure for one in seen_all]))


def _legs(moments: list[int], first: int, last: int) -> list[tuple[int, int]]:
    """From which frame up to which the thing is followed: both ways between two views."""
    legs = [(moments[0], first), (moments[-1], last)]
    for one, other in pairwise(moments):
        legs += [(one, other), (other, one)]
    return legs


def _way(begin: int, end: int) -> range:
    return range(begin, end + 1) if end >= begin else range(begin, end - 1, -1)


def _mixed(ahead: Seen, back: Seen, share: float) -> Seen:
    """Of two ways, that which knows; both by how far it is to their views."""
    if (ahead.sure > 0) != (back.sure > 0):
        return ahead if ahead.sure > 0 else back
    quad = (1 - share) * ahead.quad + share * back.quad
    sure = (1 - share) * ahead.sure + share * back.sure
    return Seen(quad, min(sure, _DOUBT) if _differ(ahead.quad, back.quad) else sure)


def _differ(one: Quad, other: Quad) -> bool:
    """Whether they lie so far from each other that it is not the same thing."""
    apart = np.abs(one.mean(axis=0) - other.mean(axis=0))
    size = np.minimum(np.ptp(one, axis=0), np.ptp(other, axis=0))
    return bool((apart > _APART * size).any())

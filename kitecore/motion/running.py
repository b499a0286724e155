"""How far something has come that runs at a pace which may have keys."""

from __future__ import annotations

from bisect import bisect_right
from itertools import pairwise
from typing import Final

import numpy as np

from kitecore.document.ease import Hold, Steady
from kitecore.document.properties import Keys, Number, NumberKeys
from kitecore.motion.value import value_at
from kitecore.ticks import TICKS_PER_SECOND

_Places = tuple[tuple[float, float], ...]
"""Of a stretch: shares of the way, and how much what is there counts."""


def _gauss(count: int) -> _Places:
    """Where a few values tell a sum best (C. F. Gauss)."""
    nodes, weights = np.polynomial.legendre.leggauss(count)
    return tuple(((1 + node) / 2, weight / 2) for node, weight in zip(nodes, weights, strict=True))


_STRAIGHT: Final = _gauss(1)
_EASED: Final = _gauss(24)


def run_by(pace: Number, since: int, tick: int) -> float:
    """What a pace, in so much a second, adds up to from one tick to another; backwards below 0.

    Without keys that is the pace by the seconds; with keys it is exact where the pace goes straight or
    is held, and within a hundredth of what changes between two keys where it is eased.
    """
    if not isinstance(pace, Keys):
        return pace * (tick - since) / TICKS_PER_SECOND
    begin, end = min(since, tick), max(since, tick)
    bounds = (begin, *(key.at for key in pace.keys if begin < key.at < end), end)
    total = sum(_summed(pace, at, to) for at, to in pairwise(bounds))
    return total / TICKS_PER_SECOND * (1 if tick >= since else -1)


def _summed(pace: NumberKeys, at: int, to: int) -> float:
    """Within a stretch in which there is no key."""
    before = max(bisect_right(pace.keys, at, key=lambda key: key.at) - 1, 0)
    places = _STRAIGHT if isinstance(pace.keys[before].ease, Hold | Steady) else _EASED
    return (to - at) * sum(
        share * value_at(pace, round(at + (to - at) * way)) for way, share in places
    )

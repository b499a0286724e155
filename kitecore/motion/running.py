"""How far something has come that runs at a pace which may have keys."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from itertools import accumulate
from typing import Final

import numpy as np

from kitecore.document.ease import Hold, Steady
from kitecore.document.properties import Keys, Number, NumberKeys
from kitecore.kept import KeptOf
from kitecore.motion.value import value_at
from kitecore.ticks import TICKS_PER_SECOND, Span

_Places = tuple[tuple[float, float], ...]
"""Of a stretch: shares of the way, and how much what is there counts."""


def _gauss(count: int) -> _Places:
    """Where a few values tell a sum best (C. F. Gauss)."""
    nodes, weights = np.polynomial.legendre.leggauss(count)
    return tuple(((1 + node) / 2, weight / 2) for node, weight in zip(nodes, weights, strict=True))


_STRAIGHT: Final = _gauss(1)
_EASED: Final = _gauss(24)
_FINE: Final = TICKS_PER_SECOND // 24_000
"""Ticks to which it is told when something is reached."""

_at_keys: Final[KeptOf[list[float]]] = KeptOf(256)


def run_by(pace: Number, since: int, tick: int) -> float:
    """What a pace, in so much a second, adds up to from one tick to another; backwards below 0.

    Without keys that is the pace by the seconds; with keys it is exact where the pace goes straight or
    is held, and within a hundredth of what changes between two keys where it is eased.
    """
    if not isinstance(pace, Keys):
        return pace * (tick - since) / TICKS_PER_SECOND
    return (_up_to(pace, tick) - _up_to(pace, since)) / TICKS_PER_SECOND


def when_run(pace: NumberKeys, since: int, amount: float, within: Span) -> int:
    """The first moment of a span at which a pace above 0 has added up to an amount; its end if it has not
    before. Told to a 24 000th of a second, on which frames of all usual rates begin.
    """
    wanted = amount * TICKS_PER_SECOND + _up_to(pace, since)
    moments = range(within.start // _FINE + 1, within.end // _FINE + 1)
    found = bisect_left(moments, wanted, key=lambda moment: _up_to(pace, moment * _FINE))
    return min((moments.start + found) * _FINE, within.end)


def _up_to(pace: NumberKeys, tick: int) -> float:
    """From the first key on, in so much a tick."""
    before = bisect_right(pace.keys, tick, key=lambda key: key.at) - 1
    if before < 0:
        return (tick - pace.keys[0].at) * pace.keys[0].value
    return _at_keys.get(pace, lambda: _at_all(pace))[before] + _summed(pace, before, tick)


def _at_all(pace: NumberKeys) -> list[float]:
    """Up to each key."""
    stretches = (_summed(pace, before, key.at) for before, key in enumerate(pace.keys[1:]))
    return list(accumulate(stretches, initial=0.0))


def _summed(pace: NumberKeys, before: int, to: int) -> float:
    """From the key of a number on, ``to`` no later than the next."""
    at = pace.keys[before].at
    places = _STRAIGHT if isinstance(pace.keys[before].ease, Hold | Steady) else _EASED
    return (to - at) * sum(
        share * value_at(pace, round(at + (to - at) * way)) for way, share in places
    )

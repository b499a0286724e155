"""Points whose two numbers move apart, each with keys of its own, and the way there and back."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

from kitecore.document.properties import (
    Axes,
    Key,
    NumberKeys,
    Point,
    PointKeys,
    SpotKey,
    Vector,
    keys_in,
    plain_point,
)
from kitecore.motion.spatial import heading_at, is_straight
from kitecore.motion.thinning import thinned
from kitecore.motion.value import value_at
from kitecore.ticks import TICKS_PER_SECOND

_FINENESS = 0.0005
"""How far keys that are found anew may lead from the old ones, as a share of the way: half a pixel
on a canvas a thousand pixels wide."""

_NEAR = TICKS_PER_SECOND // 2000
_RESTS = 1e-9


def apart(keys: PointKeys, step: int) -> Axes:
    """The same motion with keys across and down on their own.

    Straight stretches keep their keys and easings and are the same exactly; a path that bends is
    followed within ``_FINENESS`` at moments ``step`` ticks apart.
    """
    if all(is_straight(a, b) for a, b in pairwise(keys.keys)):
        found = [[(key.at, key.value[n], key.ease) for key in keys.keys] for n in (0, 1)]
    else:
        ticks = _moments([key.at for key in keys.keys], step)
        spots = [value_at(keys, tick) for tick in ticks]
        found = [_thinned(ticks, [spot[n] for spot in spots]) for n in (0, 1)]
    across, down = (_number_keys(one) for one in found)
    return Axes(across=across, down=down)


def together(point: Point, step: int) -> Vector | PointKeys:
    """The same motion with keys of both numbers at once: what is no `Axes` stays as it is.

    Exact where both have their keys and easings in common, or only one has keys; else followed as
    `apart` does.
    """
    if not isinstance(point, Axes):
        return point
    both = [one for one in (point.across, point.down) if isinstance(one, NumberKeys)]
    if not both:
        plain: Vector = plain_point(point)
        return plain
    paces = [[(key.at, key.ease) for key in one.keys] for one in both]
    if all(pace == paces[0] for pace in paces):
        rows = [(at, value_at(point, at), ease) for at, ease in paces[0]]
    else:
        ticks = _moments([at for pace in paces for at, _ in pace], step)
        rows = _thinned(ticks, [value_at(point, tick) for tick in ticks])
    return PointKeys(keys=tuple(SpotKey(at=at, value=value, ease=ease) for at, value, ease in rows))


def direction_at(point: Point, tick: int) -> float:
    """As `heading_at`, for numbers that move apart too."""
    if not isinstance(point, Axes):
        return heading_at(point, tick)
    keys = sorted(key.at for one in keys_in(point) for key in one.keys)
    between = [(a + b) // 2 for a, b in pairwise(keys)]
    for moment in (tick, *sorted((*keys, *between), key=lambda at: abs(at - tick))):
        (x, y), (there_x, there_y) = (value_at(point, moment + by) for by in (-_NEAR, _NEAR))
        if math.hypot(there_x - x, there_y - y) > _RESTS:
            return math.degrees(math.atan2(there_y - y, there_x - x))
    return 0.0


def _moments(keys: list[int], step: int) -> list[int]:
    """Ticks ``step`` apart from the first to the last key, and those of all keys."""
    return sorted({*keys, *range(min(keys), max(keys), step)})


def _thinned(ticks: list[int], values: list[Any]) -> list[tuple[int, Any, Any]]:
    numbers = [
        number for value in values for number in (value if isinstance(value, tuple) else (value,))
    ]
    return thinned(ticks, values, max(_FINENESS * (max(numbers) - min(numbers)), 1e-9))


def _number_keys(rows: list[tuple[int, float, Any]]) -> NumberKeys:
    return NumberKeys(
        keys=tuple(Key[float](at=at, value=value, ease=ease) for at, value, ease in rows)
    )

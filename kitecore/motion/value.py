"""The one way to read a property."""

from __future__ import annotations

from bisect import bisect_right
from typing import Any, overload

from kitecore.document.properties import Colour, Keys, Number, Point
from kitecore.motion import oklab
from kitecore.motion.easing import eased


@overload
def value_at(prop: Number, tick: int) -> float: ...
@overload
def value_at(prop: Point, tick: int) -> tuple[float, float]: ...
@overload
def value_at(prop: Colour, tick: int) -> str: ...
def value_at(prop: Any, tick: int) -> Any:
    """Value of a property at a tick counted from the start of its clip.

    Before the first key its value holds, after the last key that one's. Between keys numbers and
    points go straight, colours through OKLab, at the pace of the first key's easing.
    """
    if not isinstance(prop, Keys):
        return prop
    keys = prop.keys
    index = bisect_right(keys, tick, key=lambda key: key.at)
    if index == 0:
        return keys[0].value
    if index == len(keys):
        return keys[-1].value
    before, after = keys[index - 1], keys[index]
    progress = (tick - before.at) / (after.at - before.at)
    return _between(before.value, after.value, eased(before.ease, progress))


def _between(first: Any, second: Any, share: float) -> Any:
    if isinstance(first, str):
        return oklab.mix(first, second, min(max(share, 0.0), 1.0))
    if isinstance(first, tuple):
        return tuple(a + (b - a) * share for a, b in zip(first, second, strict=True))
    return first + (second - first) * share

"""The one way to read a property."""

from __future__ import annotations

from bisect import bisect_right
from typing import Any, Final, TypeVar, overload

from kitecore import oklab
from kitecore.document.paths import Contour, Contours, Path
from kitecore.document.properties import (
    Axes,
    Colour,
    Curve,
    CurvePoints,
    Keys,
    Lattice,
    Number,
    Offsets,
    Point,
    SpotKey,
    Triple,
    fields_with_keys,
    map_keys,
)
from kitecore.kept import KeptOf
from kitecore.model import Model
from kitecore.motion.curve import curve_between
from kitecore.motion.easing import eased
from kitecore.motion.path import path_between
from kitecore.motion.spatial import spot_between

M = TypeVar("M", bound=Model)

_PLAIN: Final = frozenset({float, int, str, tuple})
"""Types of values that are no keys: asked first, since most properties have none, and to ask whether
something is of a model's kind takes ten times as long.
"""
_moving: Final[KeptOf[frozenset[str]]] = KeptOf(4096)
_texts: Final[KeptOf[str]] = KeptOf(4096)


def still_at(model: M, tick: int, but: frozenset[str] = frozenset()) -> M:
    """The model as it is at a tick: every property with keys, however deep, as its value there.

    Fields named in ``but`` keep their keys.
    """
    if _moving.get(model, lambda: fields_with_keys(model)) <= but:
        return model
    return map_keys(model, lambda keys: value_at(keys, tick), but)


def text_at(model: Model, tick: int) -> str:
    """The model as it is at a tick, as JSON: a name for how it looks then."""
    still = still_at(model, tick)
    return _texts.get(model, model.model_dump_json) if still is model else still.model_dump_json()


@overload
def value_at(prop: Number, tick: int) -> float: ...
@overload
def value_at(prop: Point, tick: int) -> tuple[float, float]: ...
@overload
def value_at(prop: Colour, tick: int) -> str: ...
@overload
def value_at(prop: Triple, tick: int) -> tuple[float, float, float]: ...
@overload
def value_at(prop: Curve, tick: int) -> CurvePoints: ...
@overload
def value_at(prop: Offsets, tick: int) -> Lattice: ...
@overload
def value_at(prop: Path, tick: int) -> Contours: ...
@overload
def value_at(prop: Keys[Any], tick: int) -> Any: ...
def value_at(prop: Any, tick: int) -> Any:
    """Value of a property at a tick counted from the start of its clip.

    Before the first key its value holds, after the last key that one's. Between keys numbers go
    straight, points along their path, colours through OKLab, curves and paths point by point, at the
    pace of the first key's easing. What is held stands until the next key.
    """
    if type(prop) in _PLAIN:
        return prop
    if isinstance(prop, Axes):
        return value_at(prop.across, tick), value_at(prop.down, tick)
    if not isinstance(prop, Keys):
        return prop
    keys = prop.keys
    index = bisect_right(keys, tick, key=lambda key: key.at)
    if index == 0:
        return keys[0].value
    if index == len(keys):
        return keys[-1].value
    before, after = keys[index - 1], keys[index]
    if prop.held:
        return before.value
    progress = (tick - before.at) / (after.at - before.at)
    share = eased(before.ease, progress)
    if isinstance(before, SpotKey):
        assert isinstance(after, SpotKey)
        return spot_between(before, after, share)
    return _between(before.value, after.value, share)


def _between(first: Any, second: Any, share: float) -> Any:
    if isinstance(first, str):
        return oklab.mix(first, second, min(max(share, 0.0), 1.0))
    if isinstance(first, tuple):
        if any(isinstance(item, Contour) for item in (*first, *second)):
            return path_between(first, second, share)
        if not (first and isinstance(first[0], float | int)):
            return curve_between(first, second, share)
        return tuple(a + (b - a) * share for a, b in zip(first, second, strict=True))
    return first + (second - first) * share

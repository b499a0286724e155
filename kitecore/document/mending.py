"""Numbers of documents from before there were bounds."""

from __future__ import annotations

import copy
from collections.abc import Callable
from typing import Any, Final

from pydantic import ValidationError
from pydantic_core import ErrorDetails

Data = dict[str, Any]

_BOUND: Final[dict[str, str]] = {
    "less_than_equal": "le",
    "less_than": "lt",
    "greater_than_equal": "ge",
    "greater_than": "gt",
}


def with_numbers_in_bounds(data: Data, error: ValidationError) -> tuple[Data, int]:
    """The data with numbers that were too large or too small at their bounds, and how many were."""
    data = copy.deepcopy(data)
    mended = sum(_mended(data, one) for one in error.errors())
    return data, mended


def _mended(data: Data, error: ErrorDetails) -> bool:
    bounded = _bounding(error)
    place = _place_of(data, error["loc"]) if bounded else None
    if bounded is None or place is None:
        return False
    inside, last = place
    before = inside[last]
    inside[last] = _each_number(before, bounded)
    return bool(inside[last] != before)


def _bounding(error: ErrorDetails) -> Callable[[float], float] | None:
    told = error.get("ctx", {})
    if error["type"] == "within":
        low, high = float(told["low"]), float(told["high"])
        return lambda number: min(max(number, low), high)
    if error["type"] in _BOUND:
        bound = told[_BOUND[error["type"]]]
        return lambda number: bound
    return None


def _each_number(value: Any, change: Callable[[float], float]) -> Any:
    """A number, a point, or a property with keys, changed number by number."""
    if isinstance(value, list):
        return [_each_number(one, change) for one in value]
    if isinstance(value, dict):
        keys = [key | {"value": _each_number(key["value"], change)} for key in value["keys"]]
        return value | {"keys": keys}
    number = change(value)
    return round(number) if isinstance(value, int) and number == round(number) else number


def _place_of(data: Any, loc: tuple[int | str, ...]) -> tuple[Any, Any] | None:
    """What holds the value an error is about. A location also names kinds, which no data have."""
    place = None
    for part in loc:
        inside = isinstance(part, int) and isinstance(data, list) and part < len(data)
        if inside or (isinstance(data, dict) and part in data):
            place, data = (data, part), data[part]  # type: ignore[index]
    return place

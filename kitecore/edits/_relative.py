"""Values of keys counted from where a layer is, instead of as they stand."""

from __future__ import annotations

from typing import Any, Final

from kitecore.edits._properties import whole_of
from kitecore.errors import EditRefused

RELATIVE: Final = {"place/position", "place/turn", "place/lean"}
"""Properties that go on by differences from the first key."""
PROPORTIONAL: Final = {"place/size"}


def about(path: str, value: Any, first: Any, now: Any) -> Any:
    """A value of a property whose keys begin with ``first``, as they would begin with ``now``.

    Raises
    ------
    EditRefused
        If these are no values of that property.
    """
    whole = whole_of(path)
    try:
        if whole in RELATIVE:
            if isinstance(value, int | float):
                return now + value - first
            return [there + a - b for there, a, b in zip(now, value, first, strict=True)]
        if whole in PROPORTIONAL:
            if isinstance(value, int | float):
                return _in_proportion(now, value, first)
            return [_in_proportion(*row) for row in zip(now, value, first, strict=True)]
    except TypeError as error:
        raise EditRefused("That motion does not fit.") from error
    return value


def _in_proportion(now: float, value: float, first: float) -> float:
    return now * (value / first if first else 1.0)

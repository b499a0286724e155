"""Values of keys counted from where a layer is, instead of as they stand."""

from __future__ import annotations

from typing import Any, Final

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
    try:
        if path in RELATIVE:
            if isinstance(value, int | float):
                return now + value - first
            return [there + a - b for there, a, b in zip(now, value, first, strict=True)]
        if path in PROPORTIONAL:
            return [
                there * (a / b if b else 1.0) for there, a, b in zip(now, value, first, strict=True)
            ]
    except TypeError as error:
        raise EditRefused("That motion does not fit.") from error
    return value

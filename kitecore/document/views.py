"""What a person said of single moments of a take, from which something is found for all of them."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Protocol


class _At(Protocol):
    @property
    def at(self) -> int: ...


def require_within(views: Iterable[_At], first: int, last: int) -> None:
    """Each of a moment of its own, within a stretch, in ticks of the file.

    Raises
    ------
    ValueError
    """
    moments = [view.at for view in views]
    if len(set(moments)) < len(moments):
        raise ValueError("two views are of the same moment")
    if not all(first <= at <= last for at in moments):
        raise ValueError("a view lies beyond what is looked at")

"""Values kept while they are of use."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, Generic, TypeVar

from numpy.typing import NDArray

T = TypeVar("T")
Picture = NDArray[Any]


class DerivedCache(Generic[T]):
    """What follows from immutable objects, by their identity: told once for each.

    Keeps the objects too, so that no other can take the place of one in memory.
    """

    def __init__(self, limit: int) -> None:
        self.limit = limit
        self._entries: OrderedDict[int, tuple[object, T]] = OrderedDict()

    def get(self, of: object, make: Callable[[], T]) -> T:
        """What was made of ``of`` before, or is made now."""
        key = id(of)
        if key not in self._entries:
            self._entries[key] = (of, make())
            while len(self._entries) > self.limit:
                self._entries.popitem(last=False)
        return self._entries[key][1]


class PictureCache:
    """Arrays by key; the longest unused go when their bytes exceed ``limit``."""

    def __init__(self, limit: int) -> None:
        self.limit = limit
        self.used = 0
        self._entries: OrderedDict[Hashable, Picture] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Hashable, make: Callable[[], Picture]) -> Picture:
        """The array kept under ``key``; made, frozen and kept if there is none."""
        with self._lock:
            if key in self._entries:
                self._entries.move_to_end(key)
                return self._entries[key]
        made = make()
        made.flags.writeable = False
        with self._lock:
            if key not in self._entries and made.nbytes <= self.limit:
                self._entries[key] = made
                self.used += made.nbytes
            while self.used > self.limit:
                _, oldest = self._entries.popitem(last=False)
                self.used -= oldest.nbytes
        return made

    def __len__(self) -> int:
        return len(self._entries)

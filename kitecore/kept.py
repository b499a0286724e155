"""Values kept while they are of use: the one kind of cache there is."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from threading import RLock
from typing import Generic, TypeVar, cast

from cachetools import LRUCache

V = TypeVar("V")
W = TypeVar("W")


def _one(value: object) -> int:
    return 1


class Kept(Generic[V]):
    """Values by key; the longest unused go first. Safe for several threads.

    Parameters
    ----------
    most
        How much is kept: of values, or of what ``size`` counts.
    size
        What a value counts; one that counts more than ``most`` is not kept.
    """

    def __init__(self, most: float, size: Callable[[V], float] = _one) -> None:
        self._most = most
        self._size = size
        self._entries: LRUCache[Hashable, V] = LRUCache(most, getsizeof=size)
        self._lock = RLock()

    def get(self, key: Hashable, make: Callable[[], W]) -> W:
        """The value kept under ``key``; made and kept if there is none.

        It is made while nobody is kept waiting, so two may make it at once; the first stays.
        """
        found = self.find(key)
        if found is None:
            made = make()
            with self._lock:
                found = self._entries.get(key)
                if found is None:
                    self.put(key, cast(V, made))
                    return made
        return cast(W, found)

    def find(self, key: Hashable) -> V | None:
        with self._lock:
            try:
                found: V = self._entries[key]
            except KeyError:
                return None
            return found

    def put(self, key: Hashable, value: V) -> None:
        if self._size(value) <= self._most:
            with self._lock:
                self._entries[key] = value

    def clear(self) -> None:
        with self._lock:
            self._entries.clear()

    @property
    def used(self) -> float:
        """What the kept values count."""
        return float(self._entries.currsize)

    def __len__(self) -> int:
        return len(self._entries)


class KeptOf(Generic[V]):
    """What follows from immutable objects, by their identity: told once for each.

    Keeps the objects too, so that no other can take the place of one in memory.
    """

    def __init__(self, most: int) -> None:
        self._kept: Kept[tuple[object, V]] = Kept(most)

    def get(self, of: object, make: Callable[[], V]) -> V:
        """What was made of ``of`` before, or is made now."""
        return self._kept.get(id(of), lambda: (of, make()))[1]

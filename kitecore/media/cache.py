"""Least recently used values, bounded in bytes."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any

from numpy.typing import NDArray

Picture = NDArray[Any]


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

"""Small answers in memory, by content, bounded in bytes."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock


class Kept:
    """Answers by key; the longest unused go when there are more bytes than ``limit``."""

    def __init__(self, limit: int) -> None:
        self.limit = limit
        self._lock = Lock()
        self._answers: OrderedDict[str, bytes] = OrderedDict()
        self._bytes = 0

    def get(self, key: str) -> bytes | None:
        with self._lock:
            data = self._answers.get(key)
            if data is not None:
                self._answers.move_to_end(key)
            return data

    def put(self, key: str, data: bytes) -> None:
        with self._lock:
            self._bytes += len(data) - len(self._answers.pop(key, b""))
            self._answers[key] = data
            while self._bytes > self.limit:
                _, oldest = self._answers.popitem(last=False)
                self._bytes -= len(oldest)

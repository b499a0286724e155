"""Finished pieces on disk, by content, bounded in bytes."""

from __future__ import annotations

import os
from contextlib import suppress
from functools import cache
from pathlib import Path
from random import random

from django.conf import settings

from kitecore.media.whole import whole_file


class PieceStore:
    """Files by key; the longest unused go when there are more bytes than ``limit``."""

    def __init__(self, folder: Path, limit: int) -> None:
        self.folder = folder
        self.limit = limit

    def path(self, key: str) -> Path:
        return self.folder / key[:2] / key

    def get(self, key: str) -> bytes | None:
        path = self.path(key)
        try:
            data = path.read_bytes()
            os.utime(path)
        except OSError:
            return None
        return data

    def put(self, key: str, data: bytes) -> None:
        path = self.path(key)
        path.parent.mkdir(parents=True, exist_ok=True)
        with whole_file(path) as unfinished:
            unfinished.write_bytes(data)
        if random() < 1 / 64:
            self.prune()

    def prune(self, keep: frozenset[str] = frozenset()) -> None:
        """Delete the longest unused files, none of ``keep``, until nine tenths of the limit are kept."""
        found = []
        for path in self.folder.glob("*/*"):
            try:
                facts = path.stat()
            except OSError:
                continue
            found.append((facts.st_mtime, facts.st_size, path))
        kept = sum(size for _, size, _ in found)
        if kept <= self.limit:
            return
        for _, size, path in sorted(found):
            if path.name in keep:
                continue
            path.unlink(missing_ok=True)
            kept -= size
            if kept <= self.limit * 0.9:
                break


@cache
def store() -> PieceStore:
    return PieceStore(settings.CACHE_DIR / "pieces", settings.PIECE_CACHE_BYTES)


def keep(key: str, data: bytes) -> None:
    """Keep what was made. On a full disk it is made again the next time, and shown all the same."""
    with suppress(OSError):
        store().put(key, data)

"""Files that are open to be read from: a decoder for each clip, as many as there is room for."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterator
from typing import Final

from kitecore.media.folder import FindMedia
from kitecore.media.reader import VideoReader, open_original, open_proxy

OPEN: Final = 8
OPEN_PROXIES: Final = 24
"""Proxies are small, and a wall shows sixteen at once."""
BYTES: Final = 160 * 2**20
"""Of decoders from which on one that is idle is closed."""
IDLE: Final = 24
"""Frames read since: a reader that long unused is taken for another clip of the same file."""

_Key = tuple[str, str, bool]
"""Media, lane, whether it reads the proxy."""


class Readers:
    """Of takes by their id; ``threads`` are those of each decoder."""

    def __init__(self, folder: FindMedia, threads: int) -> None:
        self._folder = folder
        self._threads = threads
        self._open: OrderedDict[_Key, VideoReader] = OrderedDict()
        self._used: dict[_Key, int] = {}
        self._reads = 0

    def __iter__(self) -> Iterator[_Key]:
        """Media, lane, and whether it is the proxy: those longest unused first."""
        return iter(self._open)

    def __len__(self) -> int:
        return len(self._open)

    def of(self, media: str, lane: str, proxy: bool) -> VideoReader:
        """One for the frames of a lane, which follow each other; of the proxy or of the original."""
        key = (media, lane, proxy)
        if key not in self._open:
            idle = self._idle(media, proxy)
            self._open[key] = self._open.pop(idle) if idle else self._opened(media, proxy)
            self._close_some(proxy)
        self._open.move_to_end(key)
        self._reads += 1
        self._used[key] = self._reads
        return self._open[key]

    def forget(self, media: str) -> None:
        """Close those of a take that is another one now."""
        for key in [key for key in self._open if key[0] == media]:
            self._open.pop(key).close()

    def close(self) -> None:
        while self._open:
            self._open.popitem()[1].close()

    def _close_some(self, proxy: bool) -> None:
        """Of proxies, or of originals, those that were not used for longest: too many, or idle and too large."""
        alike = [key for key in self._open if key[2] == proxy]
        most = OPEN_PROXIES if proxy else OPEN
        held = sum(self._open[key].nbytes for key in alike)
        for count, key in zip(range(len(alike), 1, -1), alike, strict=False):
            idle = self._reads - self._used.get(key, self._reads) > IDLE
            if count <= most and (held <= BYTES or not idle):
                return
            held -= self._open[key].nbytes
            self._open.pop(key).close()

    def _idle(self, media: str, proxy: bool) -> _Key | None:
        for key in self._open:
            same = key[0] == media and key[2] == proxy
            if same and self._reads - self._used[key] > IDLE:
                return key
        return None

    def _opened(self, media: str, proxy: bool) -> VideoReader:
        folder = self._folder(media)
        return open_proxy(folder) if proxy else open_original(folder, threads=self._threads)

"""Where two documents differ: one was made from the other, so what stayed is the same object."""

from __future__ import annotations

import operator
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from kitecore.document.clips import ClipBase
from kitecore.document.track import Track


@dataclass(frozen=True)
class Window:
    """The part of two rows that is not the same: after ``head`` items, before the last ``tail``."""

    head: int
    tail: int

    def of(self, row: tuple[Any, ...]) -> tuple[Any, ...]:
        return row[self.head : len(row) - self.tail]


def window(old: tuple[Any, ...], new: tuple[Any, ...]) -> Window:
    """Between the items at both ends of two rows that are the same objects."""
    shared = min(len(old), len(new))
    head = _alike(old, new)
    tail = min(_alike(reversed(old), reversed(new)), shared - head)
    return Window(head, tail)


def _alike(old: Iterable[Any], new: Iterable[Any]) -> int:
    """How many items from the first on are the same; rows are long, so no loop of our own."""
    same = list(map(operator.is_, old, new))
    return same.index(False) if False in same else len(same)


@dataclass(frozen=True)
class TrackChange:
    """A track that is new or has other clips, the clips that it no longer has, and those it got."""

    before: Track | None
    after: Track | None
    window: Window

    @property
    def gone(self) -> tuple[ClipBase, ...]:
        return self.window.of(self.before.clips) if self.before else ()

    @property
    def come(self) -> tuple[ClipBase, ...]:
        return self.window.of(self.after.clips) if self.after else ()


def changed_tracks(old: tuple[Track, ...], new: tuple[Track, ...]) -> Iterator[TrackChange]:
    """The tracks that changed, by their ids, in order; those that are gone come last."""
    before = {track.id: track for track in old}
    for track in new:
        known = before.pop(track.id, None)
        if known is not track:
            yield TrackChange(known, track, window(known.clips if known else (), track.clips))
    for track in before.values():
        yield TrackChange(track, None, Window(0, 0))


def changed_clips(
    old: tuple[Track, ...], new: tuple[Track, ...]
) -> tuple[list[ClipBase], list[ClipBase]]:
    """Clips of tracks, not of groups in them, that are only among the old and only among the new.

    One that moved, or was otherwise changed, is in both as it was and as it is.
    """
    gone: dict[int, ClipBase] = {}
    come: dict[int, ClipBase] = {}
    for change in changed_tracks(old, new):
        gone.update((id(clip), clip) for clip in change.gone)
        come.update((id(clip), clip) for clip in change.come)
    stayed = gone.keys() & come.keys()
    return (
        [clip for key, clip in gone.items() if key not in stayed],
        [clip for key, clip in come.items() if key not in stayed],
    )

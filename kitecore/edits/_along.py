"""Keys of strips go along with the clips that they lie on."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable, Sequence
from typing import Any, TypeVar

from kitecore.document import ClipBase, Document
from kitecore.document.properties import Key, Keys, map_keys
from kitecore.document.strips import Strip
from kitecore.model import LONGEST

S = TypeVar("S", bound=Strip)


def with_keys_along(before: Document, after: Document) -> Document:
    """``after`` with the keys of strips where the sound is that they were set for.

    Keys of a track's strip lie on its own clips, those of the film's on the main track's. What lies
    where a clip was cut away is gone, but for the last: from there on all is as loud as it was.
    """
    old = {track.id: track for track in before.tracks}
    for track in after.tracks:
        was = old.get(track.id)
        if was is None or was.clips is track.clips or was.strip is not track.strip:
            continue
        strip = _along(track.strip, was.clips, track.clips)
        if strip is not track.strip:
            after = after.with_strip(track.id, strip)
    if before.main.clips is not after.main.clips and before.strip is after.strip:
        strip_of_film = _along(after.strip, before.main.clips, after.main.clips)
        if strip_of_film is not after.strip:
            after = after.with_strip(None, strip_of_film)
    return after


def _along(strip: S, was: Sequence[ClipBase], now: Sequence[ClipBase]) -> S:
    def change(keys: Keys[Any]) -> Keys[Any]:
        moved = _moved(keys.keys, was, now)
        return keys if moved == keys.keys else keys.model_copy(update={"keys": moved})

    return map_keys(strip, change)


def _moved(
    keys: Iterable[Key[Any]], was: Sequence[ClipBase], now: Sequence[ClipBase]
) -> tuple[Key[Any], ...]:
    known = {clip.id for clip in was}
    there = {clip.id: clip for clip in now}
    fresh = [clip for clip in now if clip.id not in known]
    starts = [clip.start for clip in was]
    found: dict[int, Key[Any]] = {}
    cut: dict[int, Key[Any]] = {}
    for key in keys:
        index = bisect_right(starts, key.at) - 1
        at, kept = (key.at, True) if index < 0 else _place(key.at, index, was, there, fresh)
        # No longer than a timeline may be, which is asked of clips alone.
        at = min(at, LONGEST)
        (found if kept else cut)[at] = key.model_copy(update={"at": at})
    whole = cut | found
    return tuple(whole[at] for at in sorted(whole))


def _place(
    at: int,
    index: int,
    was: Sequence[ClipBase],
    there: dict[str, ClipBase],
    fresh: Sequence[ClipBase],
) -> tuple[int, bool]:
    """Where a key lies that was on a clip, or behind it; and whether that part is still there."""
    clip = was[index]
    new = there.get(clip.id)
    if new is not None:
        moved = at + _shift(clip, new)
        if moved < new.start:
            return new.start, False
        if moved < new.end or at >= clip.end or new.length >= clip.length:
            return moved, True
        if rest := _rest(clip, new, fresh):
            return at + rest.end - clip.end, True
    if any(other.start <= at < other.end for other in fresh) or at >= clip.end:
        return at, True
    return _join(index, was, there), False


def _shift(clip: ClipBase, new: ClipBase) -> int:
    """By how much a clip's sound is later: counted from its end where its beginning was trimmed."""
    begins = getattr(clip, "source_in", 0), getattr(new, "source_in", 0)
    trimmed = begins[0] != begins[1] and new.length != clip.length
    return new.end - clip.end if trimmed else new.start - clip.start


def _rest(clip: ClipBase, new: ClipBase, fresh: Sequence[ClipBase]) -> ClipBase | None:
    """The other part of a clip that was split, wherever that was pushed."""
    length = clip.length - new.length
    later = (one for one in fresh if one.start >= new.end and one.length == length)
    return next((one for one in later if _named(one) == _named(clip)), None)


def _named(clip: ClipBase) -> tuple[object, ...]:
    return type(clip), clip.name, getattr(clip, "media", None)


def _join(index: int, was: Sequence[ClipBase], there: dict[str, ClipBase]) -> int:
    """Where what was cut away has left a join: at the next clip that is there, or the last one's end."""
    if (cut := there.get(was[index].id)) is not None:
        return cut.end
    for clip in was[index + 1 :]:
        if clip.id in there:
            return there[clip.id].start
    for clip in reversed(was[:index]):
        if clip.id in there:
            return there[clip.id].end
    return was[index].start

"""What of some tracks shows at a moment."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from kitecore.document import HOLDOUTS, ClipBase, Pictured, Track, TransitionBase
from kitecore.motion.posing import opacity_at


@dataclass(frozen=True)
class Crossing:
    """Two clips in the course of a transition."""

    before: Pictured
    after: Pictured
    transition: TransitionBase
    begin: int


Showing = Pictured | Crossing


def showing_at(tracks: tuple[Track, ...], tick: int, *, clear: bool = False) -> list[Showing]:
    """What shows at ``tick``, from the back to the front.

    What is wholly clear is there only if something may be clipped to it, or with ``clear``.
    """
    found = [showing for track in seen_tracks(tracks) for showing in _on_track(track.clips, tick)]
    if clear or any(isinstance(one, Pictured) and one.clipped for one in found):
        return found
    return [
        one for one in found if isinstance(one, Crossing) or opacity_at(one, tick - one.start) > 0
    ]


def seen_tracks(tracks: tuple[Track, ...]) -> list[Track]:
    """Those whose pictures are seen, from the back to the front."""
    seen = [track for track in tracks if track.kind != "sound" and not track.hidden]
    alone = [track for track in seen if track.solo]
    return alone or seen


def cuts_holes(all_showing: list[Showing]) -> bool:
    """Whether any of them is a holdout."""
    return any(isinstance(one, Pictured) and one.blend in HOLDOUTS for one in all_showing)


def _on_track(clips: tuple[ClipBase, ...], tick: int) -> Iterator[Showing]:
    index = _index_at(clips, tick)
    if index is None:
        return
    clip = clips[index]
    for later in (index, index + 1):
        if not 0 < later < len(clips):
            continue
        before, after = clips[later - 1], clips[later]
        transition = after.transition
        if transition is None or before.end != after.start:
            continue
        begin = after.start - transition.half
        both = isinstance(before, Pictured) and isinstance(after, Pictured)
        if both and begin <= tick < begin + transition.length:
            yield Crossing(before, after, transition, begin)  # type: ignore[arg-type]
            return
    if isinstance(clip, Pictured):
        yield clip


def _index_at(clips: tuple[ClipBase, ...], tick: int) -> int | None:
    """Index of the clip of an ordered row that covers ``tick``."""
    low, high = 0, len(clips)
    while low < high:
        middle = (low + high) // 2
        if clips[middle].end <= tick:
            low = middle + 1
        else:
            high = middle
    return low if low < len(clips) and clips[low].start <= tick else None

"""What is true of every document, checked after every edit."""

from __future__ import annotations

from kitecore.document.clips import ClipBase
from kitecore.document.clips.group import DEEPEST, GroupClip
from kitecore.document.document import Document
from kitecore.document.track import Track
from kitecore.errors import BrokenDocument
from kitecore.ticks import Rate


def check(document: Document, before: Document | None = None) -> None:
    """Raise if ``document`` breaks an invariant.

    Parameters
    ----------
    before
        A document already checked: tracks shared with it (by identity) are taken as good.

    Raises
    ------
    BrokenDocument
        Naming the first thing that is wrong.
    """
    if [track.kind for track in document.tracks].count("main") != 1:
        raise BrokenDocument("A project has exactly one main track.")
    same_rate = before is not None and before.rate == document.rate
    known = {id(track) for track in before.tracks} if before and same_rate else set()
    for track in document.tracks:
        if id(track) not in known:
            _check_track(track, document.rate.exact)
    ids: list[str] = []
    _gather_ids(document.tracks, ids, 0)
    if len(set(ids)) != len(ids):
        raise BrokenDocument("Two parts of the project have the same id.")


def _gather_ids(tracks: tuple[Track, ...], ids: list[str], depth: int) -> None:
    if depth > DEEPEST:
        raise BrokenDocument(f"Groups lie in groups at most {DEEPEST} deep.")
    for track in tracks:
        ids.append(track.id)
        for clip in track.clips:
            ids.append(clip.id)
            if isinstance(clip, GroupClip):
                _gather_ids(clip.tracks, ids, depth + 1)


def _check_track(track: Track, rate: Rate) -> None:
    step = rate.frame_ticks
    last_end = 0
    for clip in track.clips:
        start, length = clip.start, clip.length
        if start < last_end:
            raise BrokenDocument(f"Two clips would overlap on the track “{track.name}”.")
        if track.closes_gaps and start != last_end:
            raise BrokenDocument(f"There would be a gap on the track “{track.name}”.")
        if start % step or length % step or length <= 0:
            raise BrokenDocument("A clip would not start and end with a frame.")
        _check_clip(track, clip, rate)
        last_end = start + length


def _check_clip(track: Track, clip: ClipBase, rate: Rate) -> None:
    if not track.accepts(clip):
        raise BrokenDocument(f"The track “{track.name}” does not hold clips of that kind.")
    if isinstance(clip, GroupClip):
        for inner in clip.tracks:
            _check_track(inner, rate)
    before, after = clip.reach
    if before < 0 or after < 0:
        raise BrokenDocument(f"“{clip.name}” would go on after its source has ended.")

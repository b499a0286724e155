"""What is true of every document, checked after every edit."""

from __future__ import annotations

from kitecore.document.changes import TrackChange, changed_tracks
from kitecore.document.clips import ClipBase
from kitecore.document.clips._holding import DEEPEST, Holding
from kitecore.document.clips.mouth import MouthClip
from kitecore.document.clips.multicam import MulticamClip
from kitecore.document.document import Document
from kitecore.document.track import Track
from kitecore.errors import BrokenDocument
from kitecore.ticks import Rate


def check(document: Document, before: Document | None = None) -> None:
    """Raise if ``document`` breaks an invariant.

    Parameters
    ----------
    before
        A document already checked: what is shared with it (by identity) is taken as good.

    Raises
    ------
    BrokenDocument
        Naming the first thing that is wrong.
    """
    if [track.kind for track in document.tracks].count("main") != 1:
        raise BrokenDocument("A project has exactly one main track.")
    same_rate = before is not None and before.rate == document.rate
    known = before.tracks if before and same_rate else ()
    for change in changed_tracks(known, document.tracks):
        if change.after is not None:
            _check_changed(change, change.after, document.rate.exact)
    ids: list[str] = []
    _gather_ids(document.tracks, ids, 0)
    if len(set(ids)) != len(ids):
        raise BrokenDocument("Two parts of the project have the same id.")


def _check_changed(change: TrackChange, track: Track, rate: Rate) -> None:
    """The clips that are new on a track, and the one behind them, which must still follow."""
    old = change.before
    if old is None or (old.kind, old.closes_gaps) != (track.kind, track.closes_gaps):
        _check_track(track, track.clips, 0, rate)
        return
    head, tail = change.window.head, max(change.window.tail - 1, 0)
    last_end = track.clips[head - 1].end if head else 0
    _check_track(track, track.clips[head : len(track.clips) - tail], last_end, rate)


def _gather_ids(tracks: tuple[Track, ...], ids: list[str], depth: int) -> None:
    if depth > DEEPEST:
        raise BrokenDocument(f"Groups lie in groups at most {DEEPEST} deep.")
    for track in tracks:
        ids.append(track.id)
        ids += [clip.id for clip in track.clips]
        for clip in track.clips:
            if isinstance(clip, Holding):
                _gather_ids(clip.tracks, ids, depth + 1)


def _check_track(track: Track, clips: tuple[ClipBase, ...], last_end: int, rate: Rate) -> None:
    """Clips of a track that begin where ``last_end`` is at the earliest."""
    step = rate.frame_ticks
    for clip in clips:
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
    if isinstance(clip, Holding):
        for inner in clip.tracks:
            _check_track(inner, inner.clips, 0, rate)
    if isinstance(clip, MulticamClip):
        _check_angles(clip, rate)
    if isinstance(clip, MouthClip) and not clip.is_whole:
        raise BrokenDocument("A mouth has poses, each with a name of its own and a picture.")
    before, after = clip.reach
    if before < 0 or after < 0:
        raise BrokenDocument(f"“{clip.name}” would go on after its source has ended.")


def _check_angles(clip: MulticamClip, rate: Rate) -> None:
    angles = [track.clips for track in clip.tracks]
    if not clip.has_angles:
        raise BrokenDocument("An angle of a multicam clip is one group.")
    if not {switch.angle for switch in clip.switches} <= set(clip.shown or (0,)):
        raise BrokenDocument("A multicam clip would show an angle that has no picture.")
    moments = [switch.at for switch in clip.switches]
    if (
        moments[0]
        or any(at % rate.frame_ticks for at in moments)
        or moments != sorted(set(moments))
    ):
        raise BrokenDocument("The switches of a multicam clip would not follow each other.")
    if len(clip.hears) != len(angles) or not all(0 <= one < len(angles) for one in clip.hears):
        raise BrokenDocument("It would not be known what is heard with an angle.")

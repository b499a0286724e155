"""What follows from an edit by itself: transitions stay at their joins, riders go along."""

from __future__ import annotations

from itertools import pairwise

from kitecore.document import ClipBase, Document, Track, TransitionBase
from kitecore.document.track import transition_out, with_neighbours
from kitecore.edits._lanes import is_free, settled, without


def tidied(before: Document, after: Document) -> Document:
    """``after`` with transitions that still fit, and riders moved with what they ride on."""
    after = _with_riders(before, after)
    old = {track.id: track for track in before.tracks}
    step = after.rate.exact.frame_ticks
    tracks = tuple(
        track if old.get(track.id) is track else _fitting(track, old, step)
        for track in after.tracks
    )
    if all(a is b for a, b in zip(tracks, after.tracks, strict=True)):
        return after
    return after.model_copy(update={"tracks": tracks})


def _fitting(track: Track, old: dict[str, Track], step: int) -> Track:
    if not any(clip.transition for clip in track.clips):
        return track
    before = old[track.id].clips if track.id in old else ()
    before_it = {b.id: a.id for a, b in pairwise(before)}
    known = {clip.id for clip in before}
    had = {clip.id for clip in before if clip.transition}
    clips: list[ClipBase] = []
    for previous, clip, following in with_neighbours(track.clips):
        if clip.transition is not None:
            stranger = (
                previous is not None
                and clip.id in had
                and previous.id in known
                and before_it.get(clip.id) != previous.id
            )
            kept = None if stranger else _fitted(previous, clip, following, step)
            if kept is not clip.transition:
                clip = clip.model_copy(update={"transition": kept})
        clips.append(clip)
    return track.with_clips(tuple(clips))


def longest(
    previous: ClipBase | None, clip: ClipBase, following: ClipBase | None, step: int
) -> int:
    """The longest half of a transition from ``previous`` to ``clip``, in ticks, by footage and room.

    0 if they do not meet. A ``hold`` needs no footage.
    """
    if previous is None or previous.end != clip.start:
        return 0
    leaving = transition_out(clip, following)
    room = clip.length - (leaving.half if leaving else 0)
    mine = previous.transition.half if previous.transition else 0
    most = min(room, previous.length - mine)
    if clip.transition is None or not clip.transition.hold:
        most = min(most, previous.reach[1], clip.reach[0])
    return max(0, most) // step * step


def _fitted(
    previous: ClipBase | None, clip: ClipBase, following: ClipBase | None, step: int
) -> TransitionBase | None:
    """The clip's transition, shortened if need be; none if there is no room for it at all."""
    assert clip.transition is not None
    most = longest(previous, clip, following, step)
    if most >= clip.transition.half and clip.transition.half % step == 0:
        return clip.transition
    half = min(most, clip.transition.half) // step * step
    return clip.transition.model_copy(update={"length": 2 * half}) if half else None


def _with_riders(before: Document, after: Document) -> Document:
    riders = [(track, c) for track in after.tracks for c in track.clips if c.rides]
    if not riders:
        return after
    was = {clip.id: clip.start for _, clip in before.clips()}
    now = {clip.id: clip.start for _, clip in after.clips()}
    for track, clip in riders:
        assert clip.rides is not None
        if clip.rides not in now:
            after = _exchanged(after, track.id, clip.model_copy(update={"rides": None}))
            continue
        by = now[clip.rides] - was.get(clip.rides, now[clip.rides])
        if by and was.get(clip.id) == clip.start and not track.closes_gaps and not track.locked:
            after = _exchanged(after, track.id, clip.at(max(0, clip.start + by)))
    return after


def _exchanged(document: Document, track_id: str, new: ClipBase) -> Document:
    """With a clip of a free track exchanged; unchanged if the new one would lie over another."""
    track = document.find_track(track_id)
    rest = without(track.clips, new.id)
    if not is_free(rest, new.span):
        return document
    return document.with_track(settled(track, (*rest, new)))

"""The files of an angle: where they lie, moved to the sample. What was cut of them stays cut."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kitecore.document import ClipBase, GroupClip, Sourced, Speed, Track, derived_id
from kitecore.errors import EditRefused

Tracks = tuple[Track, ...]
MOST_DRIFT: Final = 0.002
"""As a share of one: what runs further off has a speed of its own."""


@dataclass(frozen=True)
class Placed:
    """A file of an angle, and where its own tick 0 lies in the time of the multicam clip.

    That may be between two frames, and before the clip begins. Of a file whose drift is taken out it is
    what it would be if its clock ran as it did from where the clip begins.
    """

    clip: Sourced
    at: int


def files_of(angle: GroupClip) -> tuple[Placed, ...]:
    """The files of an angle, in the order by which edits number them."""
    clips = (clip for track in _there(angle) for clip in track.clips)
    return tuple(
        Placed(clip, clip.start - clip.source_in) for clip in clips if isinstance(clip, Sourced)
    )


def _there(angle: GroupClip) -> Tracks:
    """What an angle holds, at its time in the multicam clip."""
    by = angle.start - angle.source_in
    return _each(angle.tracks, lambda clip: clip.at(clip.start + by))


def _each(tracks: Tracks, change: Callable[[ClipBase], ClipBase]) -> Tracks:
    return tuple(track.with_clips(tuple(map(change, track.clips))) for track in tracks)


def moved(angle: GroupClip, by: Mapping[str, int], step: int) -> GroupClip:
    """The angle with its files, by the ids of their clips, so many ticks later, or earlier.

    What is no file goes along, by whole frames, where all files go the same way.
    """
    ways = set(by.values()) if len(by) == len(files_of(angle)) else set()
    along = _nearest(ways.pop(), step) if len(ways) == 1 else 0
    if not angle.speed.plain:
        return angle.at(angle.start + along)

    def change(clip: ClipBase) -> ClipBase:
        if not isinstance(clip, Sourced):
            return clip.at(clip.start + along)
        return on_frames(clip.at(clip.start + by.get(clip.id, 0)), step)

    shown = None if angle.whole else (angle.start + along, angle.end + along)
    return _holding(angle, _each(_there(angle), change), shown)


@dataclass(frozen=True)
class Clock:
    """How much faster the clock of a file ran, as a share of one; its tick ``held`` stays where it lies."""

    drift: float
    held: int | None = None


def drift_of(clip: Sourced) -> float | None:
    """The drift that is taken out of a file; none if it has a speed of its own."""
    speed = clip.speed.constant
    if speed is None or abs(speed - 1) > MOST_DRIFT:
        return None
    return speed - 1


def clocked(angle: GroupClip, clocks: Mapping[str, Clock], step: int) -> GroupClip:
    """The angle with files, by the ids of their clips, played as fast as their clocks ran."""
    if not angle.speed.plain:
        raise EditRefused("The angle runs at a speed of its own.", todo="Set that back first.")

    def change(clip: ClipBase) -> ClipBase:
        clock = clocks.get(clip.id)
        if clock is None or not isinstance(clip, Sourced):
            return clip
        return on_frames(_by_clock(clip, clock), step)

    shown = None if angle.whole else (angle.start, angle.end)
    return _holding(angle, _each(_there(angle), change), shown)


def _by_clock(clip: Sourced, clock: Clock) -> ClipBase:
    was = clip.speed.constant
    if was is None or drift_of(clip) is None:
        raise EditRefused(f"“{clip.name}” runs at a speed of its own.")
    begin, end = clip.used
    held = begin if clock.held is None else clock.held
    there = clip.start + (held - begin) / was
    now = 1 + clock.drift
    update: dict[str, object] = {
        "start": round(there - (held - begin) / now),
        "length": max(1, math.floor((end - begin) / now)),
        "speed": Speed.steady(now),
        # Resampled: nobody hears so little, and each sample stays in its place.
        "keep_pitch": not clock.drift,
    }
    return clip.model_copy(update=update)


def with_files(angle: GroupClip, files: Sequence[ClipBase], step: int) -> GroupClip:
    """The angle with more files; one that would lie over what is there comes after that."""
    if not angle.speed.plain:
        raise EditRefused("The angle runs at a speed of its own.", todo="Set that back first.")
    main, *others = _there(angle)
    if not others:
        others = [Track(id=derived_id(main.id, 0), kind="sound", name="Sounds")]
    sounds = others[0]
    end = max(main.end, sounds.end)
    for file in sorted(files, key=lambda clip: clip.start):
        over = any(file.span.overlaps(clip.span) for clip in (*main.clips, *sounds.clips))
        placed = on_frames(file.at(end) if over else file, step)
        end = max(end, placed.end)
        if main.accepts(placed):
            main = main.with_clips((*main.clips, placed))
        else:
            sounds = sounds.with_clips((*sounds.clips, placed))
    shown = None if angle.whole or not angle.source_end else (angle.start, angle.end)
    heard = (sounds,) if sounds.clips else ()
    return _holding(angle, (main, *heard, *others[1:]), shown)


def regridded(angle: GroupClip, step: int) -> GroupClip:
    """The angle with its files where they were, to the sample, on frames of another length."""
    start, end = _nearest(angle.start, step), _nearest(angle.end, step)
    if angle.speed.plain:
        tracks = _each(_there(angle), lambda clip: on_frames(clip, step))
        return _holding(angle, tracks, None if angle.whole else (start, end))
    tracks = _each(angle.tracks, lambda clip: on_frames(clip, step))
    new = angle.at(start).model_copy(update={"tracks": tracks})
    length = min(end - start, new.lasting // step * step)
    return new.model_copy(update={"length": max(step, length)})


def on_frames(clip: ClipBase, step: int) -> ClipBase:
    """A clip that begins and ends anywhere, from one frame to another, its source where it was.

    An end at which it was cut goes to the nearest frame; one at which its source begins or stops
    keeps as much of that as there are whole frames of.
    """
    early, late = clip.reach
    begin, end = clip.start // step * step, -(-clip.end // step) * step
    if early >= step:
        begin = _nearest(clip.start, step)
    elif clip.start - begin > early:
        begin += step
    if late >= step:
        end = _nearest(clip.end, step)
    elif end - clip.end > late:
        end -= step
    if end <= begin:
        raise EditRefused(f"Nothing would be left of “{clip.name}”.")
    return clip if (begin, end) == (clip.start, clip.end) else clip.trimmed(begin, end)


def _nearest(tick: int, step: int) -> int:
    return (tick + step // 2) // step * step


def _holding(angle: GroupClip, tracks: Tracks, shown: tuple[int, int] | None) -> GroupClip:
    """The angle with tracks at times of the multicam clip; it shows a part of them, or all."""
    tracks = tuple(track.with_clips(_without_overlaps(track.clips)) for track in tracks)
    first = min(track.clips[0].start for track in tracks if track.clips)
    last = max(track.end for track in tracks if track.clips)
    low, high = shown or (first, last)
    low, high = max(low, first), min(high, last)
    if high <= low:
        raise EditRefused("The part of the angle that is shown would be empty.")
    update: dict[str, object] = {
        "start": low,
        "source_in": low - first,
        "length": high - low,
        "tracks": _each(tracks, lambda clip: clip.at(clip.start - first)),
    }
    return angle.model_copy(update=update)


def _without_overlaps(clips: Sequence[ClipBase]) -> tuple[ClipBase, ...]:
    """Clips in order of time, each up to where the next begins."""
    row: list[ClipBase] = []
    for clip in sorted(clips, key=lambda one: one.start):
        if row and row[-1].end > clip.start:
            before = row.pop()
            if before.start >= clip.start:
                raise EditRefused(f"“{clip.name}” would lie under another file of its angle.")
            row.append(before.trimmed(before.start, clip.start))
        row.append(clip)
    return tuple(row)

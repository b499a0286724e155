"""Arranging the clips of one track: tuples in, tuples out."""

from __future__ import annotations

from kitecore.document import ClipBase, Holding, Pictured, Track, derived_id
from kitecore.document.effects import Beside, EffectBase
from kitecore.edits._strips import relinked_strip
from kitecore.ticks import Span

Clips = tuple[ClipBase, ...]


def settled(track: Track, clips: Clips) -> Track:
    """The track with these clips in order of time, its gaps closed if it does that."""
    ordered = tuple(sorted(clips, key=lambda clip: clip.start))
    return track.with_clips(without_gaps(ordered) if track.closes_gaps else ordered)


def without_gaps(clips: Clips) -> Clips:
    """Clips one after the other from 0; those already in place stay the same objects."""
    out, at = [], 0
    for clip in clips:
        out.append(clip.at(at))
        at += clip.length
    return tuple(out)


def swapped(clips: Clips, new: ClipBase) -> Clips:
    """Clips with the one of the same id exchanged."""
    return tuple(new if clip.id == new.id else clip for clip in clips)


def without(clips: Clips, *ids: str) -> Clips:
    """Clips but those of these ids."""
    return tuple(clip for clip in clips if clip.id not in ids)


def neighbours(clips: Clips, clip_id: str) -> tuple[ClipBase | None, ClipBase | None]:
    """The clips before and after the one of this id in its row."""
    index = next(number for number, clip in enumerate(clips) if clip.id == clip_id)
    before = clips[index - 1] if index else None
    return before, clips[index + 1] if index + 1 < len(clips) else None


def renamed(clip: ClipBase, seed: str) -> ClipBase:
    """A copy with a derived id; what is in a group gets new ids too."""
    update: dict[str, object] = {"id": derived_id(seed, 0)}
    if isinstance(clip, Holding):
        tracks = tuple(
            _renamed_track(track, f"{seed}/{number}") for number, track in enumerate(clip.tracks)
        )
        new = {
            old.id: copy.id
            for before, after in zip(clip.tracks, tracks, strict=True)
            for old, copy in zip(before.clips, after.clips, strict=True)
        }
        rows = {old.id: copy.id for old, copy in zip(clip.tracks, tracks, strict=True)}
        update["tracks"] = tuple(
            track.model_copy(
                update={
                    "clips": tuple(relinked(c, new) for c in track.clips),
                    "strip": relinked_strip(track.strip, rows),
                }
            )
            for track in tracks
        )
    return clip.model_copy(update=update)


def _renamed_track(track: Track, seed: str) -> Track:
    clips = tuple(renamed(clip, f"{seed}/{number}") for number, clip in enumerate(track.clips))
    return track.model_copy(update={"id": derived_id(seed, -1), "clips": clips})


def relinked(clip: ClipBase, new: dict[str, str]) -> ClipBase:
    """A copied clip that rides on, and follows, the copies of what it did before.

    Without a copy of what it rode on it rides on nothing.
    """
    update: dict[str, object] = {}
    if clip.rides is not None:
        update["rides"] = new.get(clip.rides)
    follow = clip.moves.follow if isinstance(clip, Pictured) else None
    if follow is not None and follow.clip in new and isinstance(clip, Pictured):
        led = follow.model_copy(update={"clip": new[follow.clip]})
        update["moves"] = clip.moves.model_copy(update={"follow": led})
    if isinstance(clip, Pictured) and any(isinstance(one, Beside) for one in clip.effects):
        update["effects"] = tuple(_reading(one, new) for one in clip.effects)
    return clip.model_copy(update=update) if update else clip


def _reading(effect: EffectBase, new: dict[str, str]) -> EffectBase:
    """An effect that reads the copy of the layer that it read before."""
    if not isinstance(effect, Beside) or effect.layer not in new:
        return effect
    return effect.model_copy(update={"layer": new[effect.layer]})


def split_at(clips: Clips, tick: int, seed: str) -> Clips:
    """Clips with the one under ``tick`` cut in two; the later part gets a derived id."""
    out: list[ClipBase] = []
    for clip in clips:
        if clip.start < tick < clip.end:
            later = renamed(clip.trimmed(tick, clip.end), f"{seed}/{len(out)}")
            out += [clip.trimmed(clip.start, tick), later.model_copy(update={"transition": None})]
        else:
            out.append(clip)
    return tuple(out)


def cleared(clips: Clips, span: Span, seed: str) -> Clips:
    """Clips with everything within ``span`` cut away."""
    cut = split_at(split_at(clips, span.start, seed), span.end, seed + "-end")
    return tuple(clip for clip in cut if not clip.span.overlaps(span))


def pushed_in(clips: Clips, new: Clips, at: int) -> Clips:
    """``new`` (from ``at`` on) put in at a border between clips; later clips move by its length."""
    room = sum(clip.length for clip in new)
    moved = tuple(clip.at(clip.start + room) if clip.start >= at else clip for clip in clips)
    return (*moved, *new)


def nearest_border(clips: Clips, tick: int) -> int:
    """The join (or start or end) of a gapless row of clips that is nearest to ``tick``."""
    borders = [0, *(clip.end for clip in clips)]
    return min(borders, key=lambda border: abs(border - tick))


def is_free(clips: Clips, span: Span) -> bool:
    return not any(clip.span.overlaps(span) for clip in clips)

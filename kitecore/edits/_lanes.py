"""Arranging the clips of one track: tuples in, tuples out."""

from __future__ import annotations

from kitecore.document import ClipBase, Track, derived_id
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


def split_at(clips: Clips, tick: int, seed: str) -> Clips:
    """Clips with the one under ``tick`` cut in two; the later part gets a derived id."""
    out: list[ClipBase] = []
    for clip in clips:
        if clip.start < tick < clip.end:
            later = clip.trimmed(tick, clip.end)
            later = later.model_copy(update={"id": derived_id(seed, len(out))})
            out += [clip.trimmed(clip.start, tick), later]
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

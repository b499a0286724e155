"""Clips that were read, made to fit: on tracks that take them, within what they show."""

from __future__ import annotations

from collections import Counter

from kitecore.document import ClipBase, Holding, Paced, Track
from kitecore.edits._sources import within_source
from kitecore.errors import EditRefused
from kitecore.ticks import Rate


def fitted(tracks: tuple[Track, ...], rate: Rate, remarks: Counter[str]) -> tuple[Track, ...]:
    """Tracks of which every clip can be; what had to change is counted."""
    return tuple(_track(track, rate, remarks) for track in tracks)


def _track(track: Track, rate: Rate, remarks: Counter[str]) -> Track:
    clips: list[ClipBase] = []
    for clip in track.clips:
        if not track.accepts(clip):
            remarks["clips on tracks that do not hold them"] += 1
            continue
        whole = _clip(clip, rate, remarks)
        if whole is not None:
            clips.append(whole)
    closes = track.closes_gaps and _closed(clips)
    if track.closes_gaps and not closes:
        remarks["the closing of gaps on a track that has some"] += 1
    return track.model_copy(update={"clips": tuple(clips), "closes_gaps": closes})


def _closed(clips: list[ClipBase]) -> bool:
    at = 0
    for clip in clips:
        if clip.start != at:
            return False
        at = clip.end
    return True


def _clip(clip: ClipBase, rate: Rate, remarks: Counter[str]) -> ClipBase | None:
    if isinstance(clip, Holding):
        clip = clip.model_copy(update={"tracks": fitted(clip.tracks, rate, remarks)})
    if not isinstance(clip, Paced) or min(clip.reach) >= 0:
        return clip
    try:
        fit = within_source(clip, rate.frame_ticks)
    except EditRefused:
        remarks["clips of which nothing is in their file"] += 1
        return None
    if fit.length < clip.length:
        remarks["ends of clips that go on after their file has ended"] += 1
    return fit

"""Finding or making the track that clips go to."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, Track
from kitecore.edits._base import require_accepts
from kitecore.edits._lanes import is_free, settled

FreeKind = Literal["picture", "sound"]
"""Kinds of track of which there can be any number."""


def free_kind(track: Track) -> FreeKind:
    """The kind of free track that holds what ``track`` holds."""
    return "sound" if track.kind == "sound" else "picture"


def on_free_track(
    document: Document, kind: FreeKind, clips: tuple[ClipBase, ...], new: str
) -> Document:
    """Clips that do not overlap laid on the lowest open track with room, or on a new one."""
    for track in document.tracks:
        if track.kind != kind or track.captions:
            continue
        require_accepts(track, *clips)
        room = all(is_free(track.clips, clip.span) for clip in clips)
        if not track.locked and room:
            return document.with_track(settled(track, (*track.clips, *clips)))
    return with_new_track(document, kind, clips, new)


def with_new_track(
    document: Document, kind: FreeKind, clips: tuple[ClipBase, ...], new: str
) -> Document:
    """The document with one more track on top of those of its kind, below captions."""
    number = sum(track.kind == kind for track in document.tracks) + 1
    noun = "Sound" if kind == "sound" else "Above"
    track = Track(id=new, kind=kind, name=f"{noun} {number}")
    require_accepts(track, *clips)
    track = track.with_clips(clips)
    pictures = sum(t.kind != "sound" for t in document.tracks)
    while pictures and document.tracks[pictures - 1].captions:
        pictures -= 1
    at = len(document.tracks) if kind == "sound" else pictures
    tracks = (*document.tracks[:at], track, *document.tracks[at:])
    return document.model_copy(update={"tracks": tracks})


def with_track_beside(document: Document, beside: str, track: Track) -> Document:
    """With a new track right above the one ``beside``; sounds go below all others."""
    at = next(i for i, t in enumerate(document.tracks) if t.id == beside) + 1
    if track.kind == "sound":
        at = len(document.tracks)
    tracks = (*document.tracks[:at], track, *document.tracks[at:])
    return document.model_copy(update={"tracks": tracks})

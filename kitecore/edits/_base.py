from __future__ import annotations

from abc import abstractmethod

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, Model, Track, new_id
from kitecore.errors import EditRefused
from kitecore.registry import Registry
from kitecore.ticks import TICKS_PER_SECOND


class EditBase(Model):
    """One step: data that says what to do, and a pure function that does it.

    ``seed`` makes the ids of new clips follow from the edit, so that doing it again (on a newer
    document, or in a preview first) makes the same ones. ``within`` is the group whose timeline it
    changes; without it, the project's own.
    """

    kind: str
    seed: Id = Field(default_factory=new_id)
    within: Id | None = None

    @abstractmethod
    def label(self) -> str:
        """Name of the step in the history, as a short phrase."""

    @abstractmethod
    def apply(self, document: Document) -> Document:
        """The document afterwards. Call `kitecore.edits.apply`, which also checks it."""


edit_kinds: Registry[type[EditBase]] = Registry("edit")


def open_track(document: Document, track_id: str) -> Track:
    """The track, if it may be changed."""
    track = document.find_track(track_id)
    require_open(track)
    return track


def require_open(track: Track) -> None:
    if track.locked:
        raise EditRefused(f"The track “{track.name}” is locked.", todo="Unlock it first.")


def require_accepts(track: Track, *clips: ClipBase) -> None:
    """Raises `EditRefused` unless a track holds clips of these kinds."""
    if not all(track.accepts(clip) for clip in clips):
        raise EditRefused(
            f"The track “{track.name}” does not hold clips of that kind.",
            todo="Choose another track.",
        )


def open_clips(document: Document, ids: tuple[str, ...]) -> list[tuple[Track, ClipBase]]:
    """Tracks and clips of these ids, in order of tracks and time; all must be there and open."""
    wanted = set(ids)
    found = [(track, clip) for track, clip in document.clips() if clip.id in wanted]
    if len(found) < len(wanted):
        raise EditRefused(
            "A clip of this step is not there any more.", todo="Take a clip in hand and try again."
        )
    for track, _ in found:
        require_open(track)
    return found


def seconds_label(ticks: int) -> str:
    """A time for people: ``0.25 s``."""
    return f"{ticks / TICKS_PER_SECOND:.2f} s"


def count(clips: tuple[str, ...]) -> str:
    return "clip" if len(clips) == 1 else f"{len(clips)} clips"

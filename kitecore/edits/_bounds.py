"""What an edit leaves can be kept, read again, drawn and undone: nothing in it is beyond bounds."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any

from pydantic import ValidationError

from kitecore.document import ClipBase, Document, Holding, Track, all_clips
from kitecore.document.changes import changed_clips, changed_tracks
from kitecore.document.marker import MOST_MARKERS
from kitecore.document.track import MOST_CLIPS, MOST_TRACKS
from kitecore.errors import EditRefused
from kitecore.model import LONGEST


def require_within(before: Document, after: Document) -> None:
    """Check what an edit changed against the bounds of its types.

    Edits copy models without validating them again, so sums and factors may have led out.

    Raises
    ------
    EditRefused
        Naming the first value that is too large or too small, or what there is too much of.
    """
    if len(after.tracks) > MOST_TRACKS:
        raise EditRefused(f"A project has at most {MOST_TRACKS} tracks.")
    if len(after.markers) > MOST_MARKERS:
        raise EditRefused(f"A timeline has at most {MOST_MARKERS} markers.")
    for change in changed_tracks(before.tracks, after.tracks):
        if change.after is not None:
            _require_room(change.after)
    gone, come = changed_clips(before.tracks, after.tracks)
    known = {clip.id: clip for clip in _with_inner(gone)}
    for clip in _changed(come, known):
        _require_valid(clip)


def _with_inner(clips: Iterable[ClipBase]) -> Iterator[ClipBase]:
    """Clips, and those in groups among them."""
    for clip in clips:
        yield clip
        if isinstance(clip, Holding):
            yield from all_clips(clip.tracks)


def _require_room(track: Track) -> None:
    if len(track.clips) > MOST_CLIPS:
        raise EditRefused(f"A track has at most {MOST_CLIPS} clips.")
    if track.end > LONGEST:
        raise EditRefused("That would be later than 48 hours, the longest there is.")


def _changed(clips: Iterable[ClipBase], known: dict[str, ClipBase]) -> Iterator[ClipBase]:
    """Clips with anything new in them but their start, those in groups included."""
    for clip in clips:
        old = known.get(clip.id)
        if clip is old or (old is not None and _only_moved(clip, old)):
            continue
        yield clip
        if isinstance(clip, Holding):
            for track in clip.tracks:
                _require_room(track)
                yield from _changed(track.clips, known)


def _only_moved(clip: ClipBase, old: ClipBase) -> bool:
    then = old.__dict__
    return type(clip) is type(old) and all(
        value is then[name] for name, value in clip.__dict__.items() if name != "start"
    )


def _require_valid(clip: ClipBase) -> None:
    # What lies in a group is looked at by itself, so that a large one is not gone through twice.
    if isinstance(clip, Holding) and not clip.source_end:
        raise EditRefused("A group holds at least one clip.")
    hull: Any = clip.model_copy(update={"tracks": ()}) if isinstance(clip, Holding) else clip
    try:
        type(clip).model_validate(hull.model_dump(mode="json"))
    except ValidationError as error:
        first = error.errors()[0]
        words = " ".join(str(part) for part in first["loc"] if isinstance(part, str))
        raise EditRefused(
            f"That leads beyond what can be set: {words.replace('_', ' ')}. {first['msg']}."
        ) from error

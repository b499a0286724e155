from __future__ import annotations

from typing import Final, Literal

from kitecore.document import ClipBase, Document, Id, Model, Paced, clip_kinds
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._lanes import settled, swapped
from kitecore.edits.takes import STILL_LENGTH, TakePart
from kitecore.errors import EditRefused

_SOURCE: Final = {
    "kind", "name", "media", "source_in", "source_length", "pictures", "each", "order", "first",
    "tracks",
}  # fmt: skip
"""What a clip is of; all else is how it is shown, and stays."""


@edit_kinds.register("replace")
class Replace(EditBase):
    """Another source for a clip; place, effects, speed, sound and transition stay.

    The length stays too; a source that is too short makes the clip shorter.
    """

    kind: Literal["replace"] = "replace"
    clip: Id
    take: TakePart

    def label(self) -> str:
        return f"Replace by “{self.take.title}”"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        source = self.take.clip(STILL_LENGTH)
        if not track.accepts(source):
            raise EditRefused(f"The track “{track.name}” does not hold clips of that kind.")
        new = _shown_as(source, clip)
        if isinstance(new, Paced):
            new = _within_source(new, document.rate.exact.frame_ticks)
        return document.with_track(settled(track, swapped(track.clips, new)))


def _shown_as(source: ClipBase, old: ClipBase) -> ClipBase:
    kept = {
        name: getattr(old, name)
        for name in type(old).model_fields
        if name not in _SOURCE and name in type(source).model_fields
    }
    kind = clip_kinds[source.kind]
    return kind.model_validate(source.model_dump() | {n: _plain(v) for n, v in kept.items()})


def _plain(value: object) -> object:
    if isinstance(value, Model):
        return value.model_dump()
    return [_plain(item) for item in value] if isinstance(value, tuple) else value


def _within_source(clip: Paced, step: int) -> Paced:
    """From the wanted in point, or earlier if the source ends too soon; shorter if it must be."""
    low, high = clip.used
    shift = max(-low, min(0, clip.source_end - high))
    clip = clip.model_copy(update={"source_in": clip.source_in + shift})
    length = min(clip.length, clip.lasting // step * step)
    if length < step:
        raise EditRefused("The new source is shorter than one frame of the project.")
    return clip.model_copy(update={"length": length})

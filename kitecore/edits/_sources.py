"""Clips of another source, and clips within what they show."""

from __future__ import annotations

from typing import Final

from kitecore.document import ClipBase, Model, Paced, Speed, clip_kinds
from kitecore.errors import EditRefused

_SOURCE: Final = {
    "kind", "name", "media", "source_in", "source_length", "pictures", "each", "order", "first",
    "tracks",
}  # fmt: skip
"""What a clip is of; all else is how it is shown, and stays."""
_OF_KIND: Final = {"cutout"}
"""What another kind of clip has in another form: it stays where the kind does."""


def shown_as(source: ClipBase, old: ClipBase) -> ClipBase:
    """A source with all that says how another clip is shown."""
    left = _SOURCE if source.kind == old.kind else _SOURCE | _OF_KIND
    kept = {
        name: getattr(old, name)
        for name in type(old).model_fields
        if name not in left and name in type(source).model_fields
    }
    kind = clip_kinds[source.kind]
    return kind.model_validate(source.model_dump() | {n: _plain(v) for n, v in kept.items()})


def _plain(value: object) -> object:
    if isinstance(value, Model):
        return value.model_dump()
    return [_plain(item) for item in value] if isinstance(value, tuple) else value


def within_source(clip: Paced, step: int) -> Paced:
    """From the wanted in point, or earlier if the source ends too soon; shorter if it must be.

    Raises
    ------
    EditRefused
        If not one frame, ``step`` ticks long, is left.
    """
    low, high = clip.used
    shift = max(-low, min(0, clip.source_end - high))
    clip = clip.model_copy(update={"source_in": clip.source_in + shift})
    length = min(clip.length, clip.lasting // step * step)
    if length < step:
        raise EditRefused("Its source is shorter than one frame of the project.")
    return clip.model_copy(update={"length": length})


def as_long(clip: Paced) -> Paced:
    """As long as it is: from an earlier in point, or slower, where its source is too short."""
    low, high = clip.used
    if high - low > clip.source_end:
        factor = clip.source_end / (high - low + 1)
        points = (
            point.model_copy(update={"speed": point.speed * factor}) for point in clip.speed.points
        )
        speed = Speed(points=tuple(points), soft=clip.speed.soft)
        clip = clip.model_copy(update={"speed": speed})
        low, high = clip.used
    shift = max(-low, min(0, clip.source_end - high))
    return clip.model_copy(update={"source_in": clip.source_in + shift})

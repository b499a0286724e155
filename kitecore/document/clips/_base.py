from __future__ import annotations

from typing import Annotated, Literal, TypeVar

from pydantic import AfterValidator, Field

from kitecore.document.blends import BLENDS
from kitecore.document.effects import Effect
from kitecore.document.model import Id, Length, Model, Name, Start, new_id, param
from kitecore.document.properties import Number, Point, map_keys
from kitecore.registry import Registry
from kitecore.ticks import Span

C = TypeVar("C", bound="ClipBase")


class ClipBase(Model):
    """A stretch of a track.

    ``start`` and ``length`` are ticks on the timeline and lie on frame boundaries. Keys of a
    clip's properties count from its start, so they travel with it.
    """

    kind: str
    id: Id = Field(default_factory=new_id)
    name: Name = ""
    start: Start = 0
    length: Length

    @property
    def end(self) -> int:
        return self.start + self.length

    @property
    def span(self) -> Span:
        return Span(self.start, self.end)

    @property
    def reach(self) -> tuple[int, int]:
        """How far the start can go earlier and the end later, in ticks, before the source ends."""
        return (2**53, 2**53)

    def at(self: C, start: int) -> C:
        """The same clip at another place in time."""
        return self if start == self.start else self.model_copy(update={"start": start})

    def trimmed(self: C, start: int, end: int) -> C:
        """The part from ``start`` to ``end``; keys stay where they are on the timeline.

        May also make the clip longer; the caller minds `reach`.
        """
        by = self.start - start
        clip = map_keys(self, lambda keys: keys.moved(by)) if by else self
        return clip.model_copy(update={"start": start, "length": end - start})


class Sourced(ClipBase):
    """Shows or plays a part of a file.

    ``source_length`` is the length of the file, a fact of the reference: media never change, so
    edits need to ask nobody.
    """

    media: Id
    source_in: Start = 0
    source_length: Length

    @property
    def reach(self) -> tuple[int, int]:
        return (self.source_in, self.source_length - self.source_in - self.length)

    def trimmed(self: C, start: int, end: int) -> C:
        moved = super().trimmed(start, end)  # type: ignore[misc]
        assert isinstance(self, Sourced)
        into = self.source_in + start - self.start
        return moved.model_copy(update={"source_in": into})  # type: ignore[no-any-return]


class Place(Model):
    """Where a picture is on the canvas: pivot, size, lean, turn, then position.

    Distances are canvas pixels from the middle of the canvas, right and down positive.
    """

    position: Point = param(
        (0.0, 0.0), help="Across and down", unit="px", low=-2000, high=2000, step=1
    )
    size: Point = param((1.0, 1.0), help="Width and height", low=0.05, high=5, step=0.01)
    turn: Number = param(0.0, help="Turn, clockwise", unit="°", low=-180, high=180, step=0.1)
    lean: Number = param(0.0, help="Lean", unit="°", low=-80, high=80, step=0.1)
    pivot: Point = param(
        (0.0, 0.0), help="Point that stays put, from the middle of the picture", unit="px"
    )
    fit: Literal["whole", "fill", "own"] = param(
        "whole",
        help="Size 1 shows the whole picture, fills the canvas, or keeps the picture's pixels",
        control="choice",
    )


def _known_blend(name: str) -> str:
    if name not in BLENDS:
        raise ValueError(f"there is no blend mode named {name!r}; known: {', '.join(BLENDS)}")
    return name


class Pictured(ClipBase):
    """Can be seen."""

    place: Place = Place()
    opacity: Number = param(1.0, help="Opacity", low=0, high=1, step=0.01)
    blend: Annotated[str, AfterValidator(_known_blend)] = "normal"
    effects: tuple[Effect, ...] = ()


class Sounding(ClipBase):
    """Can be heard."""

    gain: Number = param(0.0, help="Gain", unit="dB", low=-60, high=12, step=0.1)
    muted: bool = False
    fade_in: Start = 0
    fade_out: Start = 0


clip_kinds: Registry[type[ClipBase]] = Registry("kind of clip")

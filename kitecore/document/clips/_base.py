from __future__ import annotations

from abc import abstractmethod
from typing import Annotated, ClassVar, Literal, TypeVar

from pydantic import AfterValidator, Field

from kitecore.document.blends import BLENDS
from kitecore.document.cell import Cell
from kitecore.document.effects import Effect
from kitecore.document.grade import Grade
from kitecore.document.inserts import Chain
from kitecore.document.keying import LayerKey
from kitecore.document.marker import MOST_MARKERS, Marker, Tag
from kitecore.document.masks import Mask
from kitecore.document.moves import Moves
from kitecore.document.properties import Number, Point, map_keys
from kitecore.document.references import TakeId
from kitecore.document.speed import Speed
from kitecore.document.strokes import MOST_STROKES, Stroke
from kitecore.document.transitions import Transition
from kitecore.document.warps import Warp
from kitecore.model import Id, Length, Model, Name, Start, new_id, param
from kitecore.registry import Registry
from kitecore.ticks import Span

C = TypeVar("C", bound="ClipBase")
P = TypeVar("P", bound="Pictured")
Q = TypeVar("Q", bound="Paced")


class ClipBase(Model):
    """A stretch of a track.

    ``start`` and ``length`` are ticks on the timeline and lie on frame boundaries. Keys of a
    clip's properties and its markers count from its start, so they travel with it. ``transition``
    is how it comes after the clip before it; ``rides`` names a clip that it moves along with.
    """

    kind: str
    id: Id = Field(default_factory=new_id)
    name: Name = ""
    start: Start = 0
    length: Length
    tag: Tag = ""
    markers: tuple[Marker, ...] = Field(default=(), max_length=MOST_MARKERS)
    transition: Transition | None = None
    rides: Id | None = None

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
        clip = self.with_keys_moved(by) if by else self
        update: dict[str, object] = {"start": start, "length": end - start}
        if by and self.markers:
            moved = (m.model_copy(update={"at": m.at + by}) for m in self.markers)
            update["markers"] = tuple(moved)
        return clip.model_copy(update=update)

    def with_keys_moved(self: C, by: int) -> C:
        """With all of its own keys ``by`` ticks later."""
        return map_keys(self, lambda keys: keys.moved(by))

    def uses(self) -> frozenset[str]:
        """Ids of the media it needs."""
        return frozenset()


class Paced(ClipBase):
    """Shows or plays something that has a time of its own, from ``source_in`` on, at a speed.

    Played backwards, ``source_in`` is where the part ends.
    """

    source_in: Start = 0
    speed: Speed = Speed()

    @property
    @abstractmethod
    def source_end(self) -> int:
        """Tick at which the source ends."""

    def source_at(self, local: int) -> int:
        """Source tick at a tick counted from the clip's start."""
        return self.source_in + self.speed.offset(local)

    def shown_at(self, local: int, step: int) -> int:
        """Source tick of the frame, ``step`` long, that begins at a tick of the clip.

        Played backwards a frame begins where it ends, so that the row of frames is that of the same
        clip forwards, from its end.
        """
        return self.source_at(local + step if self.speed.at(local) < 0 else local)

    @property
    def used(self) -> tuple[int, int]:
        """The stretch of the source that is shown."""
        low, high = self.speed.extremes(self.length)
        return self.source_in + low, self.source_in + high

    @property
    def lasting(self) -> int:
        """Ticks from its start until its source ends, whatever its length; below 0 if it has."""
        return self.speed.room(0, self.source_in, self.source_end - self.source_in, later=True)

    @property
    def reach(self) -> tuple[int, int]:
        if self.speed.plain:
            return (self.source_in, self.source_end - self.source_in - self.length)
        low, high = self.used
        if low < 0 or high > self.source_end:
            return (-1, -1)
        last = self.source_at(self.length)
        room, end = self.speed.room, self.source_end
        return (
            room(0, self.source_in, end - self.source_in, later=False),
            room(self.length, last, end - last, later=True),
        )

    def slipped(self: Q, by: int) -> Q:
        """Showing what comes ``by`` ticks later in its source, at the same place."""
        return self.model_copy(update={"source_in": self.source_in + by})

    def trimmed(self: C, start: int, end: int) -> C:
        moved = super().trimmed(start, end)  # type: ignore[misc]
        assert isinstance(self, Paced)
        by = start - self.start
        update = {"source_in": self.source_at(by), "speed": self.speed.moved(-by)}
        return moved.model_copy(update=update)  # type: ignore[no-any-return]


class Sourced(Paced):
    """Shows or plays a part of a file.

    ``source_length`` is the length of the file, a fact of the reference: media never change, so
    edits need to ask nobody.
    """

    media: TakeId
    source_length: Length

    @property
    def source_end(self) -> int:
        return self.source_length

    def uses(self) -> frozenset[str]:
        return frozenset((self.media,))


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
    mirrored: bool = False
    upside_down: bool = False


class Crop(Model):
    """What is cut away at the sides of a picture, in shares of its width and height."""

    left: Number = param(0.0, help="Left", low=0, high=1, step=0.005)
    top: Number = param(0.0, help="Top", low=0, high=1, step=0.005)
    right: Number = param(0.0, help="Right", low=0, high=1, step=0.005)
    bottom: Number = param(0.0, help="Bottom", low=0, high=1, step=0.005)


MOST_MASKS = 16
MOST_EFFECTS = 24


def _known_blend(name: str) -> str:
    if name not in BLENDS:
        raise ValueError(f"there is no blend mode named {name!r}; known: {', '.join(BLENDS)}")
    return name


class Pictured(ClipBase):
    """Can be seen: a layer.

    On the way to the canvas its picture is keyed, graded, cropped, masked, bent by its warp, goes
    through its effects, is placed and moved, and laid by its blend mode. ``clipped``: only where the nearest layer below that is
    not clipped itself is, by that one's alpha or its luma.
    """

    place: Place = Place()
    opacity: Number = param(1.0, help="Opacity", low=0, high=1, step=0.01)
    blend: Annotated[str, AfterValidator(_known_blend)] = "normal"
    clipped: Literal["", "alpha", "luma"] = ""
    key: LayerKey | None = None
    grade: Grade | None = None
    crop: Crop | None = None
    masks: tuple[Mask, ...] = Field(default=(), max_length=MOST_MASKS)
    effects: tuple[Effect, ...] = Field(default=(), max_length=MOST_EFFECTS)
    cell: Cell | None = None
    warp: Warp | None = None
    moves: Moves = Moves()

    def trimmed(self: P, start: int, end: int) -> P:
        clip = super().trimmed(start, end)
        by = self.start - start
        if not by:
            return clip
        update: dict[str, object] = {}
        if self.effects:
            update["effects"] = tuple(one.moved(by) for one in clip.effects)
        if self.moves.meanwhile:
            update["moves"] = clip.moves.moved(by)
        return clip.model_copy(update=update) if update else clip


class Retouchable(Pictured):
    """Shows a picture as it was taken: strokes mend it, unless they are all put out of sight."""

    strokes: tuple[Stroke, ...] = Field(default=(), max_length=MOST_STROKES)
    retouched: bool = True

    @abstractmethod
    def media_at(self, local: int) -> str:
        """Id of the take whose picture is shown at a tick counted from the clip's start."""

    @property
    def working_strokes(self) -> tuple[Stroke, ...]:
        """Those that do something."""
        return tuple(one for one in self.strokes if one.on) if self.retouched else ()


Between = Literal["nearest", "blended", "motion"]
"""What is shown between two frames of the source: the nearer, both mixed, or what moved between."""


Channels = Literal["both", "left", "right", "swapped", "mono"]
FadeShape = Literal["smooth", "straight", "early", "late"]


class Sounding(ClipBase):
    """Can be heard, unless its kind is ``silent``. Where its source runs slower than ``silent_below`` it is silent.

    Its sound is paced and pitched, its channels are chosen; then it goes through the chain, its gain,
    its fades and its pan.
    """

    silent: ClassVar[bool] = False
    gain: Number = param(0.0, help="Gain", unit="dB", low=-60, high=12, step=0.1)
    pan: Number = param(0.0, help="Left and right", low=-1, high=1, step=0.01, ge=-1, le=1)
    pitch: Number = param(
        0.0, help="Pitch, in semitones", low=-12, high=12, step=0.1, ge=-24, le=24
    )
    channels: Channels = param("both", help="Which sides are heard", control="choice")
    muted: bool = False
    fade_in: Start = 0
    fade_out: Start = 0
    fade_in_shape: FadeShape = param("smooth", help="How it fades in", control="choice")
    fade_out_shape: FadeShape = param("smooth", help="How it fades out", control="choice")
    chain: Chain = ()
    keep_pitch: bool = True
    silent_below: float = param(
        0.25, help="Silent when slower than", unit="×", low=0, high=1, step=0.05
    )


def can_sound(kind: type[ClipBase]) -> bool:
    """Whether clips of a kind are ever heard."""
    return issubclass(kind, Sounding) and not kind.silent


clip_kinds: Registry[type[ClipBase]] = Registry("kind of clip")

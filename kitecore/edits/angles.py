"""Multicam clips: made of takes, their angles added, joined, ordered, named, heard."""

from __future__ import annotations

from functools import partial
from typing import Annotated, Final, Literal

from pydantic import Field

from kitecore.document import (
    ClipBase,
    Document,
    GroupClip,
    Id,
    MulticamClip,
    Sourced,
    Switch,
    Tag,
    Track,
    derived_id,
)
from kitecore.document.clips.multicam import MOST_ANGLES
from kitecore.edits._angles import (
    Angle,
    angles_of,
    first_shown,
    in_order,
    open_multicam,
    require_angle,
    sharing,
    with_angles,
    with_scene,
)
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._files import files_of, with_files
from kitecore.edits.place import HOW, Mode, PlaceClip
from kitecore.edits.takes import TakePart
from kitecore.errors import EditRefused
from kitecore.model import Name, Start, Tick
from kitecore.ticks import TICKS_PER_SECOND

TAGS: Final[tuple[Tag, ...]] = ("sky", "amber", "olive", "rose", "sea", "violet")
"""Of the angles of a new multicam clip, in turn."""
EMPTY: Final = 10 * TICKS_PER_SECOND
"""How long a multicam clip lasts that is begun without angles."""
Index = Annotated[int, Field(ge=0, lt=MOST_ANGLES)]
Gain = Annotated[float, Field(ge=-60, le=12)]


@edit_kinds.register("gather_angles")
class GatherAngles(EditBase):
    """Put takes on the timeline as one multicam clip: each is an angle, in this order.

    They all begin together until they are lined up. Without takes it is begun empty, to be filled.
    """

    kind: Literal["gather_angles"] = "gather_angles"
    takes: tuple[TakePart, ...] = Field(max_length=MOST_ANGLES)
    name: Name = "Cameras"
    mode: Mode = "end"
    at: Start = 0

    def label(self) -> str:
        if not self.takes:
            return f"Begin a multicam clip {HOW[self.mode]}"
        return f"Place {len(self.takes)} angles as one clip {HOW[self.mode]}"

    def apply(self, document: Document) -> Document:
        step = document.rate.exact.frame_ticks
        tracks = in_order(
            [
                _new_angle(take, f"{self.seed}/{number}", number, step).track
                for number, take in enumerate(self.takes)
            ]
        )
        clip = MulticamClip(
            id=derived_id(self.seed, 0),
            scene=derived_id(self.seed, 1),
            name=self.name,
            length=max((track.end for track in tracks), default=document.rate.exact.nearest(EMPTY)),
            tracks=tracks,
            switches=(Switch(at=0, angle=first_shown(tracks)),),
            hears=tuple(range(len(tracks))),
        )
        return PlaceClip(seed=self.seed, clip=clip, mode=self.mode, at=self.at).apply(document)


def _new_angle(take: TakePart, seed: str, number: int, step: int, at: int = 0) -> Angle:
    inner = Track(id=derived_id(seed, 1), kind="main", name="Files")
    tag = TAGS[number % len(TAGS)]
    group = GroupClip(id=derived_id(seed, 2), name=take.title, tag=tag, length=1, tracks=(inner,))
    track = Track(id=derived_id(seed, 3), kind="picture", name=take.title, clips=(group,))
    return Angle(track).holding(with_files(group, [_file(take, derived_id(seed, 0), at)], step))


def _file(take: TakePart, new: str, at: int) -> ClipBase:
    """All of a take, whatever of it is marked, with its beginning at a tick."""
    clip = take.model_copy(update={"mark_in": None, "mark_out": None}).clip(1)
    if not isinstance(clip, Sourced):
        raise EditRefused(f"“{take.name}” is a still: an angle needs something that runs.")
    return clip.model_copy(update={"id": new, "start": at})


class OfMulticam(EditBase):
    """An edit of a multicam clip in hand, and of all parts of its scene."""

    clip: Id


@edit_kinds.register("add_angles")
class AddAngles(OfMulticam):
    """Takes as more angles, or as more files of ``angle``; the first begins at ``at``.

    Angles all begin there, files one behind another.
    """

    kind: Literal["add_angles"] = "add_angles"
    takes: tuple[TakePart, ...] = Field(min_length=1, max_length=MOST_ANGLES)
    angle: Index | None = None
    at: Tick = 0

    def label(self) -> str:
        many = len(self.takes)
        what = f"“{self.takes[0].title}”" if many == 1 else f"{many} takes"
        if self.angle is not None:
            return f"Add {what} to an angle"
        return f"Add {what} as {'an angle' if many == 1 else 'angles'}"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        angles, step = angles_of(clip), document.rate.exact.frame_ticks
        if self.angle is not None:
            require_angle(clip, self.angle)
            angle = angles[self.angle]
            files = [_file(take, derived_id(seed, 0), self.at) for take, seed in self._seeded()]
            angles[self.angle] = angle.holding(with_files(angle.group, files, step))
            return with_angles(document, clip, angles)
        if len(angles) + len(self.takes) > MOST_ANGLES:
            raise EditRefused(f"A multicam clip has at most {MOST_ANGLES} angles.")
        new = [
            _new_angle(take, seed, number, step, self.at)
            for number, (take, seed) in enumerate(self._seeded(), len(angles))
        ]
        return with_angles(document, clip, [*angles, *new])

    def _seeded(self) -> list[tuple[TakePart, str]]:
        return [(take, f"{self.seed}/{number}") for number, take in enumerate(self.takes)]


@edit_kinds.register("join_angles")
class JoinAngles(OfMulticam):
    """Two angles are files of one camera: those of ``angle`` go to ``into``, behind its own."""

    kind: Literal["join_angles"] = "join_angles"
    angle: Index
    into: Index

    def label(self) -> str:
        return "Join two angles"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        for index in (self.angle, self.into):
            require_angle(clip, index)
        if self.angle == self.into:
            raise EditRefused("An angle is not joined to itself.")
        angles, step = angles_of(clip), document.rate.exact.frame_ticks
        files = [file.clip for file in files_of(clip.angle(self.angle))]
        into = angles[self.into]
        angles[self.into] = into.holding(with_files(into.group, files, step))
        rest = [angle for angle in angles if angle.was != self.angle]
        return with_angles(document, clip, rest)


@edit_kinds.register("remove_angle")
class RemoveAngle(OfMulticam):
    """An angle goes; where it was shown, the first one is."""

    kind: Literal["remove_angle"] = "remove_angle"
    angle: Index

    def label(self) -> str:
        return "Remove an angle"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        require_angle(clip, self.angle)
        rest = [angle for angle in angles_of(clip) if angle.was != self.angle]
        if not rest:
            raise EditRefused("It is the only angle.", todo="Delete the clip instead.")
        return with_angles(document, clip, rest)


@edit_kinds.register("move_angle")
class MoveAngle(OfMulticam):
    """An angle takes another place among them; digits follow that order."""

    kind: Literal["move_angle"] = "move_angle"
    angle: Index
    to: Index

    def label(self) -> str:
        return "Order the angles"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        for index in (self.angle, self.to):
            require_angle(clip, index)
        angles = angles_of(clip)
        angles.insert(self.to, angles.pop(self.angle))
        return with_angles(document, clip, angles)


@edit_kinds.register("name_angle")
class NameAngle(OfMulticam):
    """An angle gets a name and a colour."""

    kind: Literal["name_angle"] = "name_angle"
    angle: Index
    name: Name
    tag: Tag | None = None

    def label(self) -> str:
        return f"Name an angle “{self.name}”"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        require_angle(clip, self.angle)
        angles = angles_of(clip)
        group = clip.angle(self.angle)
        named = group.model_copy(update={"name": self.name, "tag": self.tag or group.tag})
        track = clip.tracks[self.angle].model_copy(update={"name": self.name, "clips": (named,)})
        angles[self.angle] = Angle(track, self.angle)
        return with_angles(document, clip, angles)


@edit_kinds.register("hear_angles")
class HearAngles(OfMulticam):
    """Which angle is heard with each: all the same one, each its own, or a map of one's own."""

    kind: Literal["hear_angles"] = "hear_angles"
    hears: tuple[Index, ...] = Field(min_length=1, max_length=MOST_ANGLES)

    def label(self) -> str:
        own = self.hears == tuple(range(len(self.hears)))
        return "Hear each angle" if own else "Choose what is heard"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        if len(self.hears) != len(clip.tracks):
            raise EditRefused("What is heard has to be said for each angle.")
        for index in self.hears:
            require_angle(clip, index)
        return with_scene(
            document, clip.scene, lambda part: part.model_copy(update={"hears": self.hears})
        )


@edit_kinds.register("level_angles")
class LevelAngles(OfMulticam):
    """Each angle gets a gain of its own, in dB, in their order: so that all are as loud."""

    kind: Literal["level_angles"] = "level_angles"
    gains: tuple[Gain, ...] = Field(min_length=1, max_length=MOST_ANGLES)

    def label(self) -> str:
        return "Match the levels of the angles"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        if len(self.gains) != len(clip.tracks):
            raise EditRefused("A gain has to be said for each angle.")
        tracks = tuple(
            track.with_clips((clip.angle(index).model_copy(update={"gain": self.gains[index]}),))
            for index, track in enumerate(clip.tracks)
        )
        levelled = clip.model_copy(update={"tracks": tracks})
        return with_scene(document, clip.scene, partial(sharing, levelled))

"""The poses of a mouth: made of clips, added, named, exchanged, taken away."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from pydantic import Field

from kitecore.document import (
    ClipBase,
    Document,
    GroupClip,
    Id,
    MouthClip,
    Pictured,
    StillClip,
    Track,
    derived_id,
)
from kitecore.document.clips.mouth import MOST_POSES, PoseName
from kitecore.document.poses import POSES, REST
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._lanes import renamed
from kitecore.edits._turns import in_order, open_mouth, require_pose, with_main
from kitecore.edits.groups import Group
from kitecore.edits.takes import TakePart
from kitecore.errors import EditRefused, NothingChanges
from kitecore.model import Name
from kitecore.ticks import Rate


@edit_kinds.register("make_mouth")
class MakeMouth(EditBase):
    """Clips become the poses of a mouth, where the first of them lay.

    Those that are named like a pose are that one; the others are the next that are free.
    """

    kind: Literal["make_mouth"] = "make_mouth"
    clips: tuple[Id, ...]
    name: Name = "Mouth"

    def label(self) -> str:
        return f"Make a mouth of {len(self.clips)} clips"

    def apply(self, document: Document) -> Document:
        document = Group(seed=self.seed, clips=self.clips, name=self.name).apply(document)
        track, group = document.find_clip(derived_id(self.seed, 0))
        assert isinstance(group, GroupClip)
        clips = [clip for track in group.tracks for clip in track.clips]
        if not all(isinstance(clip, Pictured) for clip in clips):
            raise EditRefused("A sound is no pose.", todo="Take pictures in hand.")
        by_hand = {clip: place for place, clip in enumerate(self.clips)}
        clips.sort(key=lambda clip: by_hand[clip.id])
        named = zip(_names(clips), clips, strict=True)
        tracks = (
            _pose(name, clip, f"{self.seed}/{number}") for number, (name, clip) in enumerate(named)
        )
        mouth = MouthClip(
            id=group.id,
            name=group.name,
            start=group.start,
            length=group.length,
            tracks=with_main(tuple(tracks)),
        )
        if not track.accepts(mouth):
            raise EditRefused("A sound is no pose.", todo="Take pictures in hand.")
        return document.with_clip(mouth)


def _names(clips: Iterable[ClipBase]) -> list[str]:
    """A pose for each clip, none twice."""
    clips = list(clips)
    said = [clip.name.strip().casefold() for clip in clips]
    kept = {name: said.index(name) for name in POSES if name in said}
    free = iter([name for name in POSES if name not in kept])
    return [
        said[place] if kept.get(said[place]) == place else next(free, f"pose {place + 1}")
        for place in range(len(clips))
    ]


def _pose(name: str, clip: ClipBase, seed: str) -> Track:
    own = {"start": 0, "transition": None, "rides": None}
    held = clip.model_copy(update=own)
    return Track(id=derived_id(seed, 3), kind="picture", name=name, clips=(held,))


@edit_kinds.register("add_pose")
class AddPose(EditBase):
    """One more pose: a take, or a copy of another pose to be changed."""

    kind: Literal["add_pose"] = "add_pose"
    clip: Id
    name: PoseName
    take: TakePart | None = None
    like: PoseName | None = None

    def label(self) -> str:
        return f"Add the pose {self.name}"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        if self.name in clip.poses:
            raise EditRefused(f"This mouth has a pose “{self.name}” already.")
        like = self.like or (REST if REST in clip.poses else next(iter(clip.poses)))
        require_pose(clip, like)
        picture = _shown(self.take, clip.poses[like], self.seed, document.rate.exact)
        new = _pose(self.name, picture, f"{self.seed}/new")
        return document.with_clip(clip.model_copy(update={"tracks": (*clip.tracks, new)}))


@edit_kinds.register("set_pose")
class SetPose(EditBase):
    """Another name, or another picture, of a pose; the mouth goes on having it when it had it."""

    kind: Literal["set_pose"] = "set_pose"
    clip: Id
    pose: PoseName
    name: PoseName | None = None
    take: TakePart | None = None

    def label(self) -> str:
        return f"Change the pose {self.pose}"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        require_pose(clip, self.pose)
        name = self.name or self.pose
        if name != self.pose and name in clip.poses:
            raise EditRefused(f"This mouth has a pose “{name}” already.")
        old = clip.poses[self.pose]
        held = old if self.take is None else _shown(self.take, old, self.seed, document.rate.exact)
        tracks = (
            track.model_copy(update={"name": name, "clips": (held,)})
            if track.name == self.pose
            else track
            for track in clip.tracks
        )
        turns = (
            one.model_copy(update={"pose": name}) if one.pose == self.pose else one
            for one in clip.turns
        )
        update = {"tracks": tuple(tracks), "turns": tuple(turns)}
        return document.with_clip(clip.model_copy(update=update))


@edit_kinds.register("order_pose")
class OrderPose(EditBase):
    """A pose stands at another place among the others."""

    kind: Literal["order_pose"] = "order_pose"
    clip: Id
    pose: PoseName
    to: int = Field(ge=0, lt=MOST_POSES)

    def label(self) -> str:
        return f"Order the pose {self.pose}"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        require_pose(clip, self.pose)
        tracks = [track for track in clip.tracks if track.name != self.pose]
        own = next(track for track in clip.tracks if track.name == self.pose)
        tracks.insert(self.to, own)
        if tracks == list(clip.tracks):
            raise NothingChanges("It stands there already.")
        return document.with_clip(clip.model_copy(update={"tracks": tuple(tracks)}))


@edit_kinds.register("remove_pose")
class RemovePose(EditBase):
    """A pose goes; where the mouth had it, it rests."""

    kind: Literal["remove_pose"] = "remove_pose"
    clip: Id
    pose: PoseName

    def label(self) -> str:
        return f"Remove the pose {self.pose}"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        require_pose(clip, self.pose)
        if len(clip.poses) == 1:
            raise EditRefused("A mouth has at least one pose.", todo="Remove the mouth instead.")
        tracks = tuple(track for track in clip.tracks if track.name != self.pose)
        left = {track.name for track in tracks}
        rest = REST if REST in left else tracks[0].name
        turns = in_order(
            one.model_copy(update={"pose": rest}) if one.pose == self.pose else one
            for one in clip.turns
        )
        update = {"tracks": with_main(tracks), "turns": turns}
        return document.with_clip(clip.model_copy(update=update))


def _shown(take: TakePart | None, like: Pictured, seed: str, rate: Rate) -> Pictured:
    """A take in the place of another pose; without one, that pose again."""
    copy = renamed(like, f"{seed}/copy")
    assert isinstance(copy, Pictured)
    if take is None:
        return copy
    clip = take.clip(like.length)
    if not isinstance(clip, Pictured):
        raise EditRefused("A sound is no pose.", todo="Choose a picture.")
    # What is drawn has lengths of its own, which mean nothing to a picture.
    place = like.place if isinstance(like, StillClip) else clip.place
    length = clip.length // rate.frame_ticks * rate.frame_ticks
    if not length:
        raise EditRefused("Its source is shorter than one frame of the project.")
    return clip.model_copy(update={"id": copy.id, "place": place, "length": length})

"""Which pose a mouth has when. Moments are of the mouth's own time unless it is said."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document import (
    ClipBase,
    Document,
    GroupClip,
    Holding,
    Id,
    Marker,
    Model,
    Turn,
    derived_id,
)
from kitecore.document.clips.mouth import MOST_TURNS, PoseName, may_move
from kitecore.document.marker import MOST_MARKERS
from kitecore.document.model import LONGEST, Start, Tick
from kitecore.document.mouthways import MouthWay
from kitecore.document.poses import REST
from kitecore.edits._base import EditBase, edit_kinds, seconds_label
from kitecore.edits._lanes import renamed
from kitecore.edits._turns import (
    by_hand,
    in_order,
    laid_over,
    open_mouth,
    own_time,
    require_pose,
    with_turns,
)
from kitecore.errors import EditRefused

Moments = Annotated[tuple[Start, ...], Field(min_length=1, max_length=MOST_TURNS)]


class Tapped(Model):
    """From a tick of the timeline on, a pose."""

    at: Start
    pose: PoseName


@edit_kinds.register("say")
class Say(EditBase):
    """Poses as they were tapped, at moments of the timeline.

    Each holds until the next change that there is; with ``until``, a tick of the timeline, those
    between the first tap and that moment go.
    """

    kind: Literal["say"] = "say"
    clip: Id
    taps: tuple[Tapped, ...] = Field(min_length=1, max_length=MOST_TURNS)
    until: Start | None = None

    def label(self) -> str:
        many = len(self.taps)
        return f"Pose a mouth: {self.taps[0].pose}" if many == 1 else f"Pose a mouth {many} times"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        for tap in self.taps:
            require_pose(clip, tap.pose)
        new = [
            Turn(at=own_time(document, clip, tap.at), pose=tap.pose, by_hand=True)
            for tap in self.taps
        ]
        turns = clip.turns
        if self.until is not None:
            low, high = min(one.at for one in new), own_time(document, clip, self.until)
            turns = laid_over(turns, [], low, max(low, high))
        return with_turns(document, clip, in_order([*turns, *new]))


@edit_kinds.register("propose_poses")
class ProposePoses(EditBase):
    """Poses found in a voice, from the first moment up to ``until``; what was chosen by hand stays.

    Proposals for poses that the mouth does not have are shown as its pose of rest.
    """

    kind: Literal["propose_poses"] = "propose_poses"
    clip: Id
    turns: tuple[Turn, ...] = Field(min_length=1, max_length=MOST_TURNS)
    until: Start
    anew: bool = False
    """What was chosen by hand goes too."""

    def label(self) -> str:
        return "Pose a mouth by its voice"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        low, high = self.turns[0].at, self.until
        new = [one.model_copy(update={"by_hand": False}) for one in self.turns if one.at < high]
        found = laid_over(clip.turns, new, low, max(low, high))
        for begin, end in by_hand(clip.turns) if not self.anew else []:
            last = LONGEST if end is None else end
            kept = [one for one in clip.turns if begin <= one.at < last]
            found = laid_over(found, kept, begin, last)
        return with_turns(document, clip, found)


class OfTurns(EditBase):
    """An edit of the changes of pose at these moments."""

    clip: Id
    at: Moments

    def _turns(self, document: Document) -> tuple[Turn, ...]:
        turns = open_mouth(document, self.clip).turns
        if not set(self.at) <= {one.at for one in turns}:
            raise EditRefused("That pose is not there any more.")
        return turns


@edit_kinds.register("pose_turns")
class PoseTurns(OfTurns):
    """Another pose from some changes until the next ones."""

    kind: Literal["pose_turns"] = "pose_turns"
    pose: PoseName

    def label(self) -> str:
        return f"Show the pose {self.pose} there"

    def apply(self, document: Document) -> Document:
        clip, wanted = open_mouth(document, self.clip), set(self.at)
        require_pose(clip, self.pose)
        update = {"pose": self.pose, "by_hand": True, "sure": None}
        turns = (
            one.model_copy(update=update) if one.at in wanted else one
            for one in self._turns(document)
        )
        return with_turns(document, clip, in_order(turns))


@edit_kinds.register("remove_turns")
class RemoveTurns(OfTurns):
    """Some changes go: the pose before each goes on."""

    kind: Literal["remove_turns"] = "remove_turns"

    def label(self) -> str:
        return "Remove a pose" if len(self.at) == 1 else f"Remove {len(self.at)} poses"

    def apply(self, document: Document) -> Document:
        clip, gone = open_mouth(document, self.clip), set(self.at)
        turns = self._turns(document)
        return with_turns(document, clip, in_order(one for one in turns if one.at not in gone))


@edit_kinds.register("roll_turn")
class RollTurn(EditBase):
    """A change of pose comes later, or earlier; it stops a frame before its neighbours."""

    kind: Literal["roll_turn"] = "roll_turn"
    clip: Id
    at: Start
    by: Tick

    def label(self) -> str:
        return f"Move a pose by {seconds_label(self.by)}"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        places = [one.at for one in clip.turns]
        if self.at not in places:
            raise EditRefused("That pose is not there any more.")
        index, rate = places.index(self.at), document.rate.exact
        step = rate.frame_ticks
        low = places[index - 1] + step if index else 0
        high = places[index + 1] - step if index + 1 < len(places) else LONGEST
        to = rate.nearest(max(self.at + self.by, 0))
        to = min(max(to, low), max(low, high))
        turns = list(clip.turns)
        turns[index] = turns[index].model_copy(update={"at": to, "by_hand": True})
        return with_turns(document, clip, tuple(turns))


@edit_kinds.register("rest_in")
class RestIn(EditBase):
    """The mouth rests in some stretches; from their ends on it has the poses that it had."""

    kind: Literal["rest_in"] = "rest_in"
    clip: Id
    spans: Annotated[tuple[tuple[Start, Start], ...], Field(min_length=1, max_length=MOST_TURNS)]

    def label(self) -> str:
        return "Rest in pauses"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        turns = clip.turns
        for low, high in self.spans:
            if low < high:
                turns = laid_over(turns, [Turn(at=low, pose=REST)], low, high)
        return with_turns(document, clip, turns)


@edit_kinds.register("clear_turns")
class ClearTurns(EditBase):
    """All changes go: the mouth rests."""

    kind: Literal["clear_turns"] = "clear_turns"
    clip: Id

    def label(self) -> str:
        return "Let a mouth rest"

    def apply(self, document: Document) -> Document:
        return with_turns(document, open_mouth(document, self.clip), ())


@edit_kinds.register("poses_from_markers")
class PosesFromMarkers(EditBase):
    """Markers named like a pose, on the mouth or over it on the timeline, become that pose there."""

    kind: Literal["poses_from_markers"] = "poses_from_markers"
    clip: Id

    def label(self) -> str:
        return "Make poses of markers"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        mine = [(clip.start + one.at, one.name) for one in clip.markers]
        above = [(one.at, one.name) for one in document.markers if clip.start <= one.at < clip.end]
        known = {name.casefold(): name for name in clip.poses}
        new = [
            Turn(at=own_time(document, clip, at), pose=known[name.casefold()], by_hand=True)
            for at, name in (*above, *mine)
            if name.casefold() in known
        ]
        if not new:
            raise EditRefused(
                "No marker here has the name of a pose.", todo="Name markers like poses first."
            )
        return with_turns(document, clip, in_order([*clip.turns, *new]))


@edit_kinds.register("markers_from_poses")
class MarkersFromPoses(EditBase):
    """A marker on the mouth for each change of pose that is seen, by its name."""

    kind: Literal["markers_from_poses"] = "markers_from_poses"
    clip: Id

    def label(self) -> str:
        return "Make markers of poses"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        seen = [
            (local, one.pose)
            for one in clip.turns
            if (local := round((one.at - clip.source_in) / (clip.speed.constant or 1))) >= 0
            and local < clip.length
        ]
        if not clip.speed.plain or not seen:
            raise EditRefused("Its poses cannot become markers: there are none, or it is paced.")
        if len(seen) > MOST_MARKERS:
            raise EditRefused(f"A clip has at most {MOST_MARKERS} markers.")
        markers = tuple(
            Marker(id=derived_id(self.seed, number), at=at, name=name)
            for number, (at, name) in enumerate(seen)
        )
        return document.with_clip(clip.model_copy(update={"markers": markers}))


@edit_kinds.register("lay_out_mouth")
class LayOutMouth(EditBase):
    """A mouth becomes a group of ordinary clips, with the keys by which it moves."""

    kind: Literal["lay_out_mouth"] = "lay_out_mouth"
    clip: Id

    def label(self) -> str:
        return "Lay a mouth out as clips"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        step = document.rate.exact.frame_ticks
        low, high = clip.used
        low, high = low // step * step, max(-(-high // step), low // step + 1) * step
        [seen] = clip.seen(low, high)
        parts = (one.trimmed(max(one.start, low), min(one.end, high)) for one in seen.clips)
        on_frames = tuple(_on_frames(one, step) for one in parts if one.end - one.start >= step)
        facts = {name: getattr(clip, name) for name in GroupClip.model_fields if name != "kind"}
        row = seen.model_copy(update={"kind": "main", "name": clip.name, "clips": on_frames})
        group = GroupClip(**{**facts, "tracks": (row,)})
        renewed = renamed(group, self.seed).model_copy(update={"id": clip.id})
        return document.with_clip(renewed)


def _on_frames(clip: ClipBase, step: int) -> ClipBase:
    """A clip, and what is in it, of whole frames."""
    update: dict[str, object] = {"length": max(clip.length // step, 1) * step}
    if isinstance(clip, Holding):
        update["tracks"] = tuple(
            track.with_clips(tuple(_on_frames(one, step) for one in track.clips))
            for track in clip.tracks
        )
    return clip.model_copy(update=update)


@edit_kinds.register("mouth_way")
class SetMouthWay(EditBase):
    """How a mouth goes from pose to pose."""

    kind: Literal["mouth_way"] = "mouth_way"
    clip: Id
    way: MouthWay

    def label(self) -> str:
        return f"Have poses {self.way.kind}"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        if self.way.kind == "moving" and not may_move(clip):
            raise EditRefused(
                "These poses cannot move from one to the next: they are not drawn with the same "
                "layers and points.",
                todo="Draw each from a copy of another, or have them swapped.",
            )
        return document.with_clip(clip.model_copy(update={"way": self.way}))

"""Which pose a mouth has when. Moments are of the mouth's own time unless it is said."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document import Document, Id, Model, MouthClip, Turn
from kitecore.document.clips.mouth import MOST_TURNS, PoseName
from kitecore.document.poses import REST
from kitecore.edits._base import EditBase, edit_kinds, seconds_label
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
from kitecore.model import LONGEST, Start, Tick

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

    def _mouth(self, document: Document) -> MouthClip:
        clip = open_mouth(document, self.clip)
        if not set(self.at) <= {one.at for one in clip.turns}:
            raise EditRefused("That pose is not there any more.")
        return clip


@edit_kinds.register("pose_turns")
class PoseTurns(OfTurns):
    """Another pose from some changes until the next ones."""

    kind: Literal["pose_turns"] = "pose_turns"
    pose: PoseName

    def label(self) -> str:
        return f"Show the pose {self.pose} there"

    def apply(self, document: Document) -> Document:
        clip, wanted = self._mouth(document), set(self.at)
        require_pose(clip, self.pose)
        update = {"pose": self.pose, "by_hand": True, "sure": None}
        turns = (one.model_copy(update=update) if one.at in wanted else one for one in clip.turns)
        return with_turns(document, clip, in_order(turns))


@edit_kinds.register("remove_turns")
class RemoveTurns(OfTurns):
    """Some changes go: the pose before each goes on."""

    kind: Literal["remove_turns"] = "remove_turns"

    def label(self) -> str:
        return "Remove a pose" if len(self.at) == 1 else f"Remove {len(self.at)} poses"

    def apply(self, document: Document) -> Document:
        clip, gone = self._mouth(document), set(self.at)
        left = (one for one in clip.turns if one.at not in gone)
        return with_turns(document, clip, in_order(left))


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

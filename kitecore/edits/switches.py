"""Which angle of a multicam clip is seen when. Moments are of its own time unless it is said."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document import (
    Document,
    GroupClip,
    Id,
    Model,
    MulticamClip,
    Switch,
    Transition,
    derived_id,
)
from kitecore.document.clips.multicam import MOST_SWITCHES
from kitecore.edits._angles import open_multicam, require_angle
from kitecore.edits._base import EditBase, edit_kinds, seconds_label
from kitecore.edits._lanes import renamed
from kitecore.edits._switches import in_turn
from kitecore.edits.angles import Index
from kitecore.edits.groups import Ungroup
from kitecore.errors import EditRefused, NothingChanges
from kitecore.model import Start, Tick


class Cut(Model):
    """A tap: from a tick of the timeline on, an angle."""

    at: Start
    angle: Index


@edit_kinds.register("switch")
class SwitchAngles(EditBase):
    """Switch at moments of the timeline, as they were tapped.

    Each holds until the next switch that there is; with ``until``, a tick of the timeline, those
    between the first tap and that moment go: that stretch was switched anew.
    """

    kind: Literal["switch"] = "switch"
    clip: Id
    cuts: tuple[Cut, ...] = Field(min_length=1, max_length=MOST_SWITCHES)
    until: Start | None = None

    def label(self) -> str:
        many = len(self.cuts)
        return f"Switch to angle {self.cuts[0].angle + 1}" if many == 1 else f"Switch {many} times"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        for cut in self.cuts:
            require_angle(clip, cut.angle, shown=True)
        new = [Switch(at=_inner(document, clip, cut.at), angle=cut.angle) for cut in self.cuts]
        kept = list(clip.switches)
        if self.until is not None:
            low, high = min(one.at for one in new), _inner(document, clip, self.until)
            goes_on = Switch(at=high, angle=clip.angle_at(high))
            kept = [one for one in kept if not low <= one.at < high]
            if high < clip.source_end and all(one.at != high for one in kept):
                kept.append(goes_on)
        return _with(document, clip, [*kept, *new])


def _inner(document: Document, clip: MulticamClip, at: int) -> int:
    """The frame of the clip's own time that shows at a tick of the timeline."""
    if not clip.start <= at < clip.end:
        at = min(max(at, clip.start), clip.end)
    rate = document.rate.exact
    inner = rate.nearest(clip.shown_at(at - clip.start, rate.frame_ticks))
    return max(0, min(inner, clip.source_end))


def _with(document: Document, clip: MulticamClip, switches: list[Switch]) -> Document:
    found = in_turn(switches, clip.source_end, document.rate.exact.frame_ticks)
    if len(found) > MOST_SWITCHES:
        raise EditRefused(f"A multicam clip has at most {MOST_SWITCHES} switches.")
    if found == clip.switches:
        raise NothingChanges("That is so already.")
    return document.with_clip(clip.model_copy(update={"switches": found}))


class OfSwitch(EditBase):
    """An edit of the switch that lies at ``at``."""

    clip: Id
    at: Start

    def _found(self, document: Document) -> tuple[MulticamClip, int]:
        clip = open_multicam(document, self.clip)
        for index, switch in enumerate(clip.switches):
            if switch.at == self.at:
                return clip, index
        raise EditRefused("That switch is not there any more.")


@edit_kinds.register("show_angle")
class ShowAngle(OfSwitch):
    """Another angle from a switch until the next; at 0, the first angle."""

    kind: Literal["show_angle"] = "show_angle"
    angle: Index

    def label(self) -> str:
        return f"Show angle {self.angle + 1} there"

    def apply(self, document: Document) -> Document:
        clip, index = self._found(document)
        require_angle(clip, self.angle, shown=True)
        switches = list(clip.switches)
        switches[index] = switches[index].model_copy(update={"angle": self.angle})
        return _with(document, clip, switches)


@edit_kinds.register("roll_switch")
class RollSwitch(OfSwitch):
    """A switch comes later, or earlier; it stops a frame before its neighbours."""

    kind: Literal["roll_switch"] = "roll_switch"
    by: Tick

    def label(self) -> str:
        return f"Roll a switch by {seconds_label(self.by)}"

    def apply(self, document: Document) -> Document:
        clip, index = self._found(document)
        if not index:
            raise EditRefused("The first angle begins with the clip.")
        step = document.rate.exact.frame_ticks
        low = clip.switches[index - 1].at + step
        last = index + 1 == len(clip.switches)
        high = (clip.source_end if last else clip.switches[index + 1].at) - step
        to = min(max(document.rate.exact.nearest(max(0, self.at + self.by)), low), high)
        switches = list(clip.switches)
        switches[index] = switches[index].model_copy(update={"at": to})
        return _with(document, clip, switches)


@edit_kinds.register("remove_switch")
class RemoveSwitch(OfSwitch):
    """A switch goes: the angle before it goes on."""

    kind: Literal["remove_switch"] = "remove_switch"

    def label(self) -> str:
        return "Remove a switch"

    def apply(self, document: Document) -> Document:
        clip, index = self._found(document)
        if not index:
            raise EditRefused("The first angle begins with the clip.")
        return _with(document, clip, [*clip.switches[:index], *clip.switches[index + 1 :]])


@edit_kinds.register("cross_switch")
class CrossSwitch(EditBase):
    """A transition at a switch, or, without ``at``, at all of them; none takes it away.

    It is shortened where the stretches beside it have no room for it.
    """

    kind: Literal["cross_switch"] = "cross_switch"
    clip: Id
    at: Start | None = None
    transition: Transition | None = None

    def label(self) -> str:
        what = "Cross" if self.transition else "Cut"
        return f"{what} at {'all switches' if self.at is None else 'a switch'}"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        if self.at is not None and self.at not in [one.at for one in clip.switches[1:]]:
            raise EditRefused("That switch is not there any more.")
        switches = [clip.switches[0]]
        for switch in clip.switches[1:]:
            here = self.at in (None, switch.at)
            update = {"transition": self.transition} if here else {}
            switches.append(switch.model_copy(update=update))
        return _with(document, clip, switches)


@edit_kinds.register("lay_out")
class LayOut(EditBase):
    """A multicam clip becomes ordinary clips: one for each stretch, and what is heard below."""

    kind: Literal["lay_out"] = "lay_out"
    clip: Id

    def label(self) -> str:
        return "Lay the angles out as clips"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        if not clip.tracks:
            raise EditRefused("It has no angles yet.")
        low, high = clip.used
        found = (*clip.seen(0, clip.source_end), *clip.heard(low, high))
        tracks = tuple(
            track.model_copy(update={"id": derived_id(self.seed, number), "name": clip.name})
            for number, track in enumerate(found, 1)
        )
        shared = {name: getattr(clip, name) for name in GroupClip.model_fields if name in _SHARED}
        group = GroupClip(**{**shared, "tracks": tracks})
        renewed = renamed(group, self.seed).model_copy(update={"id": clip.id})
        document = document.with_clip(renewed)
        return Ungroup(seed=f"{self.seed}-out", clip=clip.id).apply(document)


_SHARED = frozenset(MulticamClip.model_fields) - {"kind", "tracks"}

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, Final, Literal

from pydantic import Field

from kitecore.document.clips._base import clip_kinds
from kitecore.document.clips._holding import Holding
from kitecore.document.clips.group import GroupClip
from kitecore.document.transitions import Transition
from kitecore.model import Id, Model, Start, new_id

if TYPE_CHECKING:
    from kitecore.document.track import Track

MOST_ANGLES: Final = 16
MOST_SWITCHES: Final = 5000
Angle = Annotated[int, Field(ge=0, lt=MOST_ANGLES)]
"""Index of one."""


class Switch(Model):
    """From ``at``, a tick of the multicam clip's own time, ``angle`` is shown, by its index.

    ``transition`` is how it comes after the angle before.
    """

    at: Start
    angle: Angle
    transition: Transition | None = None


Run = tuple[int, int, int]
"""From one tick up to another, one angle."""


@clip_kinds.register("multicam")
class MulticamClip(Holding):
    """Several recordings of one thing, of which one is seen at a time.

    Each of its tracks is an angle and holds one group, in which the files of that camera or recorder
    lie one behind another; what is done to the group is done to the angle. Angles of sound alone are
    never shown. ``hears`` has for each angle the one that is heard with it. Clips of one ``scene``
    are parts of one recording and share their angles, so that what is done to an angle shows in all
    of them; each has its own switches. It may be begun without angles: then it is empty for as long
    as it was made, and takes the length of what it is given.
    """

    kind: Literal["multicam"] = "multicam"
    scene: Id = Field(default_factory=new_id)
    switches: tuple[Switch, ...] = Field(min_length=1, max_length=MOST_SWITCHES)
    hears: tuple[Angle, ...] = Field(max_length=MOST_ANGLES)

    @property
    def source_end(self) -> int:
        return super().source_end if self.tracks else self.used[1]

    @property
    def shown(self) -> tuple[int, ...]:
        """The angles that have a picture, by their indices."""
        return tuple(index for index, track in enumerate(self.tracks) if track.kind != "sound")

    def slipped(self, by: int) -> MulticamClip:
        """Its angles slip under the switches, which stay where they are on the timeline."""
        first = Switch(at=0, angle=self.angle_at(max(0, -by)))
        moved = (one.model_copy(update={"at": one.at + by}) for one in self.switches[1:])
        later = tuple(one for one in moved if one.at > 0)
        update = {"source_in": self.source_in + by, "switches": (first, *later)}
        return self.model_copy(update=update)

    @property
    def has_angles(self) -> bool:
        """Whether each of its tracks is an angle: one group that holds something."""
        rows = (track.clips for track in self.tracks)
        return all(
            len(row) == 1 and isinstance(row[0], GroupClip) and row[0].source_end > 0
            for row in rows
        )

    def angle(self, index: int) -> GroupClip:
        clip = self.tracks[index].clips[0]
        assert isinstance(clip, GroupClip)
        return clip

    def index_at(self, tick: int) -> int:
        """Index of the switch that is on at a tick of its own time."""
        return max(0, bisect_right(self.switches, tick, key=lambda one: one.at) - 1)

    def angle_at(self, tick: int) -> int:
        return self.switches[self.index_at(tick)].angle

    def seen(self, low: int, high: int) -> tuple[Track, ...]:
        """One track with the angles that are shown, and those just before and after them."""
        if not self.shown:
            return ()
        first, last = self.index_at(low), self.index_at(max(low, high - 1))
        row = []
        for index in range(max(0, first - 1), min(last + 2, len(self.switches))):
            switch = self.switches[index]
            part = self._part(switch.angle, switch.at, self._end_of(index))
            if part is not None:
                row.append(part.model_copy(update={"transition": switch.transition, "muted": True}))
        facts = {"kind": "main", "hidden": False, "solo": False, "closes_gaps": False}
        return (self.tracks[0].model_copy(update={**facts, "clips": tuple(row)}),)

    def heard(self, low: int, high: int) -> tuple[Track, ...]:
        """One track with what is heard with them; where that stays the same it is not cut."""
        if not self.tracks:
            return ()
        row = (self._part(who, a, b) for a, b, who in self._hearing() if a < high and b > low)
        facts = {"kind": "sound", "muted": False, "solo": False, "closes_gaps": False}
        clips = tuple(part for part in row if part is not None)
        return (self.tracks[0].model_copy(update={**facts, "clips": clips}),)

    def _hearing(self) -> Iterator[Run]:
        begin, who = 0, self.hears[self.switches[0].angle]
        for switch in self.switches[1:]:
            now = self.hears[switch.angle]
            if now != who:
                yield begin, switch.at, who
                begin, who = switch.at, now
        yield begin, self.source_end, who

    def _end_of(self, index: int) -> int:
        after = index + 1
        return self.switches[after].at if after < len(self.switches) else self.source_end

    def _part(self, angle: int, begin: int, end: int) -> GroupClip | None:
        """What of an angle lies between two ticks; none where it has nothing."""
        clip = self.angle(angle)
        begin, end = max(begin, clip.start), min(end, clip.end)
        return clip.trimmed(begin, end) if begin < end else None

from __future__ import annotations

from bisect import bisect_right
from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, ClassVar, Final, Literal

from pydantic import Field, field_validator

from kitecore.document.canvas import Canvas
from kitecore.document.clips._base import Pictured, clip_kinds
from kitecore.document.clips._holding import Holding
from kitecore.document.ease import Steady
from kitecore.document.morphing import Unlike, morphed
from kitecore.document.mouthways import Bouncing, MouthWay, Moving, Swapped
from kitecore.document.moves import SQUASHED, Entrance
from kitecore.document.poses import REST
from kitecore.model import LONGEST, Model, Start
from kitecore.ticks import TICKS_PER_SECOND

if TYPE_CHECKING:
    from kitecore.document.track import Track

MOST_POSES: Final = 24
MOST_TURNS: Final = 10_000
PoseName = Annotated[str, Field(min_length=1, max_length=40)]


class Turn(Model):
    """From ``at``, a tick of the mouth's own time, it has a pose, until the next turn.

    ``by_hand``: somebody chose it, so that what is proposed later leaves it alone. ``sure``: how surely
    it was found in the sound, 0..1; none where it was not found there.
    """

    at: Start
    pose: PoseName
    by_hand: bool = False
    sure: Annotated[float, Field(ge=0, le=1)] | None = None


@clip_kinds.register("mouth")
class MouthClip(Holding):
    """A mouth that talks: each of its tracks is a pose, by its name, and holds one clip.

    ``way`` is how it goes from pose to pose; where poses cannot move they are swapped. With a
    ``canvas`` its picture has that size. It makes no sound and never ends.
    """

    silent: ClassVar[bool] = True
    kind: Literal["mouth"] = "mouth"
    canvas: Canvas | None = None
    turns: tuple[Turn, ...] = Field(default=(), max_length=MOST_TURNS)
    way: MouthWay = Swapped()

    @property
    def own_canvas(self) -> Canvas | None:
        return self.canvas

    @field_validator("turns")
    @classmethod
    def _in_order(cls, turns: tuple[Turn, ...]) -> tuple[Turn, ...]:
        if any(a.at >= b.at for a, b in pairwise(turns)):
            raise ValueError("the poses of a mouth follow each other, no two at one moment")
        return turns

    @property
    def source_end(self) -> int:
        return LONGEST

    @property
    def whole(self) -> bool:
        return False

    @property
    def poses(self) -> dict[str, Pictured]:
        """Their pictures, by name."""
        held = ((track.name, track.clips[0]) for track in self.tracks if track.name and track.clips)
        return {name: clip for name, clip in held if isinstance(clip, Pictured)}

    @property
    def is_whole(self) -> bool:
        """Whether each track is a pose: has a name of its own, and a picture."""
        names = [track.name for track in self.tracks]
        return 0 < len(names) <= MOST_POSES and len(self.poses) == len(set(names)) == len(names)

    def index_at(self, tick: int) -> int:
        """Index of the turn that is on at a tick of its own time; -1 before the first."""
        return bisect_right(self.turns, tick, key=lambda one: one.at) - 1

    def pose_at(self, tick: int) -> str:
        return self.named(self.index_at(tick))

    def named(self, index: int) -> str:
        """The pose of a turn; that of rest, or else its first, where there is none."""
        name = self.turns[index].pose if index >= 0 else REST
        if name in self.poses:
            return name
        return REST if REST in self.poses else next(iter(self.poses), name)

    def stretch(self, index: int) -> tuple[int, int]:
        """Ticks from which and until which a turn lasts."""
        begin = self.turns[index].at if index >= 0 else 0
        after = index + 1
        return begin, self.turns[after].at if after < len(self.turns) else LONGEST

    def seen(self, low: int, high: int) -> tuple[Track, ...]:
        """One track: the poses that are shown, as ordinary clips; their keys make the way they come."""
        if not self.poses:
            return ()
        if isinstance(self.way, Moving):
            moving = self._moving(self.way, low, high)
            if moving is not None:
                return self._track((moving,))
        first, last = self.index_at(low), self.index_at(max(low, high - 1))
        return self._track(tuple(self._swapped(index) for index in range(first, last + 1)))

    def heard(self, low: int, high: int) -> tuple[Track, ...]:
        return ()

    def _track(self, clips: tuple[Pictured, ...]) -> tuple[Track, ...]:
        facts = {"kind": "picture", "hidden": False, "solo": False, "closes_gaps": False}
        return (self.tracks[0].model_copy(update={**facts, "clips": clips}),)

    def _swapped(self, index: int) -> Pictured:
        begin, end = self.stretch(index)
        clip = self.poses[self.named(index)]
        update: dict[str, object] = {"start": begin, "length": end - begin, "transition": None}
        if isinstance(self.way, Bouncing) and index >= 0 and clip.moves.comes is None:
            swung = _swinging(self.way, flat=self.named(index) == REST)
            update["moves"] = clip.moves.model_copy(update={"comes": swung})
        return clip.model_copy(update=update)

    def _moving(self, way: Moving, low: int, high: int) -> Pictured | None:
        """One clip whose values go from pose to pose; none if its poses are not alike."""
        first = max(self.index_at(low) - 1, -1)
        last = min(self.index_at(max(low, high - 1)) + 1, len(self.turns) - 1)
        begin = self.stretch(first)[0]
        stops: list[tuple[int, str]] = [(0, self.named(first))]
        for index in range(first + 1, last + 1):
            at, half = self.turns[index].at - begin, self._half(index, way.lasting)
            before = (at - half, self.named(index - 1))
            # Where a change ends as the next begins, one key stands for both.
            stops += [before] if before[0] > stops[-1][0] else []
            stops += [(at + max(half, 1), self.named(index))]
        states = [self.poses[name] for _, name in stops]
        try:
            clip = morphed(states, [at for at, _ in stops], way.ease)
        except Unlike:
            return None
        return _lasting(clip.at(begin), max(high - begin, 1))

    def _half(self, index: int, lasting: float) -> int:
        """Ticks before and after a turn in which it comes: no more than half of the turns beside it."""
        begin, end = self.stretch(index)
        before = begin - self.stretch(index - 1)[0]
        return int(min(lasting * TICKS_PER_SECOND, before, end - begin)) // 2


def _swinging(way: Bouncing, *, flat: bool) -> Entrance:
    """Wide and low at first, or narrow and high; then it springs to its size, whatever that is."""
    by = way.bounce if flat else -way.bounce
    lasting = max(1, round(way.settling * TICKS_PER_SECOND))
    return Entrance(kind="squash", length=lasting, strength=by / SQUASHED)


def _lasting(clip: Pictured, length: int) -> Pictured:
    """A clip, and what lies in it from its beginning on, as long as it has to be."""
    update: dict[str, object] = {"length": length, "transition": None}
    if isinstance(clip, Holding):
        update["tracks"] = tuple(
            track.with_clips(
                tuple(_lasting(one, length) for one in track.clips[:1] if isinstance(one, Pictured))
            )
            for track in clip.tracks
        )
    return clip.model_copy(update=update)


def may_move(clip: MouthClip) -> bool:
    """Whether its poses are alike, so that they can move from one to the next."""
    states = list(clip.poses.values())
    try:
        morphed(states, range(len(states)), Steady())
    except Unlike:
        return False
    return bool(states)

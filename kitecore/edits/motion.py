"""Paths in space, following, ready-made motions as ordinary keys."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from kitecore.document import Document, Id, Pictured, VideoClip
from kitecore.document.ease import Steady
from kitecore.document.moves import Follow, Inherited
from kitecore.document.properties import Axes, PointKeys, SpotKey, Vector
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._moves import as_keys
from kitecore.edits._properties import adjusted
from kitecore.errors import EditRefused
from kitecore.model import Length, Tick
from kitecore.motion.axes import together
from kitecore.motion.fitting import fitted
from kitecore.motion.following import rest_of, shown_frame
from kitecore.motion.spatial import lengths_of


def _pictured(document: Document, clip_id: str) -> Pictured:
    _, clip = open_clips(document, (clip_id,))[0]
    if not isinstance(clip, Pictured):
        raise EditRefused("A sound has no place on the picture.")
    return clip


def paced(keys: tuple[SpotKey, ...], step: int) -> tuple[SpotKey, ...]:
    """Keys of a path at such times that it is gone along evenly, from its first to its last key.

    Times lie on frames, ``step`` ticks apart, so that no two keys come to the same one.
    """
    lengths = lengths_of(keys)
    whole, begin, end = sum(lengths), keys[0].at, keys[-1].at
    if whole <= 0:
        return keys
    out, gone = [keys[0]], 0.0
    for index, key in enumerate(keys[1:-1], start=1):
        gone += lengths[index - 1]
        at = begin + round((end - begin) * gone / whole / step) * step
        left = len(keys) - 1 - index
        at = min(max(at, out[-1].at + step), end - left * step)
        out.append(key.model_copy(update={"at": at}))
    out.append(keys[-1])
    return tuple(key.model_copy(update={"ease": Steady()}) for key in out)


@edit_kinds.register("even_pace")
class EvenPace(EditBase):
    """The keys of a clip's position moved in time so that it goes along its path evenly."""

    kind: Literal["even_pace"] = "even_pace"
    clip: Id

    def label(self) -> str:
        return "Even pace along the path"

    def apply(self, document: Document) -> Document:
        clip = _pictured(document, self.clip)
        position = clip.place.position
        if isinstance(position, Axes):
            raise EditRefused(
                "Across and down move apart: there is no path to be paced.",
                todo="Put them together first.",
            )
        if not isinstance(position, PointKeys) or len(position.keys) < 2:
            raise EditRefused("There is no path yet.", todo="Draw one, or set keys of position.")
        step = document.rate.exact.frame_ticks
        if position.keys[-1].at - position.keys[0].at < step * (len(position.keys) - 1):
            raise EditRefused("There are more keys than frames.", todo="Take some away first.")
        keys = PointKeys(keys=paced(position.keys, step))
        return document.with_clip(adjusted(clip, {"place/position": keys}))


@edit_kinds.register("draw_motion")
class DrawMotion(EditBase):
    """A path drawn by hand becomes keys of a clip's position, gone along evenly.

    ``points`` are positions, as the place counts them; ``at`` is a tick of the clip.
    """

    kind: Literal["draw_motion"] = "draw_motion"
    clip: Id
    points: tuple[Vector, ...] = Field(min_length=2, max_length=4000)
    at: Tick = 0
    length: Length
    tolerance: float = Field(default=8.0, gt=0, le=200)

    def label(self) -> str:
        return "Draw a path of motion"

    def apply(self, document: Document) -> Document:
        clip = _pictured(document, self.clip)
        step = document.rate.exact.frame_ticks
        nodes = fitted(self.points, self.tolerance).nodes
        if len(nodes) < 2 or self.length < step * (len(nodes) - 1):
            raise EditRefused("That path is too short to be followed.", todo="Draw a longer one.")
        length = self.length // step * step
        ends = [self.at + round(i / (len(nodes) - 1) * length) for i in range(len(nodes))]
        keys = tuple(
            SpotKey(at=at, value=node.at, before=node.before, after=node.after)
            for at, node in zip(ends, nodes, strict=True)
        )
        new = paced(keys, step)
        old = together(clip.place.position, step)
        kept = old.keys if isinstance(old, PointKeys) else ()
        rest = tuple(key for key in kept if not self.at <= key.at <= self.at + length)
        every = sorted((*rest, *new), key=lambda key: key.at)
        return document.with_clip(adjusted(clip, {"place/position": PointKeys(keys=tuple(every))}))


@edit_kinds.register("follow")
class FollowLayer(EditBase):
    """Clips go along with another layer from how it is at tick ``at`` of the timeline; with none,
    they are free again. They stay where they are at that moment. With a ``tracker`` of it, they go
    along with what that follows.
    """

    kind: Literal["follow"] = "follow"
    clips: tuple[Id, ...]
    leader: Id | None = None
    inherits: tuple[Inherited, ...] = ("position", "turn", "size")
    at: Tick = 0
    tracker: Id | None = None

    def label(self) -> str:
        if self.tracker:
            return "Follow what is tracked"
        return "Follow a layer" if self.leader else "Follow no layer"

    def apply(self, document: Document) -> Document:
        clips = {clip.id: clip for _, clip in document.clips()}
        follow = None
        if self.leader is not None:
            leader = clips.get(self.leader)
            if not isinstance(leader, Pictured):
                raise EditRefused("The layer to follow is not there any more.")
            area = (float(document.canvas.width), float(document.canvas.height))
            local = min(max(self.at - leader.start, 0), leader.length)
            rest = rest_of(shown_frame(leader, local, clips, area), area)
            follow = Follow(clip=leader.id, inherits=self.inherits, rest=rest)
            if self.tracker is not None:
                since = self._since(leader, local, document.rate.exact.frame_ticks)
                follow = follow.model_copy(update={"tracker": self.tracker, "since": since})
            self._require_no_circle(clips)
        for _, clip in open_clips(document, self.clips):
            if isinstance(clip, Pictured):
                moves = clip.moves.model_copy(update={"follow": follow})
                document = document.with_clip(clip.model_copy(update={"moves": moves}))
        return document

    def _since(self, leader: Pictured, local: int, step: int) -> int:
        """The tick of its file that a leader shows at one of its own."""
        trackers = leader.trackers if isinstance(leader, VideoClip) else ()
        if not isinstance(leader, VideoClip) or self.tracker not in {one.id for one in trackers}:
            raise EditRefused("Nothing is tracked there any more.")
        return min(max(leader.shown_at(local, step), 0), leader.source_length)

    def _require_no_circle(self, clips: dict[str, Any]) -> None:
        name, seen = self.leader, set(self.clips)
        while name is not None:
            if name in seen:
                raise EditRefused("These layers would follow each other in a circle.")
            seen.add(name)
            clip = clips.get(name)
            follow = clip.moves.follow if isinstance(clip, Pictured) else None
            name = follow.clip if follow else None


@edit_kinds.register("moves_to_keys")
class MovesToKeys(EditBase):
    """What a clip does by itself becomes ordinary keys: ``comes``, ``goes``, or all that goes on."""

    kind: Literal["moves_to_keys"] = "moves_to_keys"
    clips: tuple[Id, ...]
    which: Literal["comes", "goes", "meanwhile"]

    def label(self) -> str:
        return f"Motion of {count(self.clips)} to keys"

    def apply(self, document: Document) -> Document:
        canvas = (float(document.canvas.width), float(document.canvas.height))
        step, before = document.rate.exact.frame_ticks, document
        for _, clip in open_clips(document, self.clips):
            if isinstance(clip, Pictured):
                document = document.with_clip(as_keys(clip, self.which, canvas, step))
        if document == before:
            raise EditRefused("There is no such motion to become keys.")
        return document

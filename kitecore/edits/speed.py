"""How fast clips run: factor, ramp, fit, reverse, freeze."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, Paced, Speed, SpeedPoint, Track
from kitecore.document.speed import FASTEST, Factor
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips, seconds_label
from kitecore.edits._lanes import neighbours, pushed_in, renamed, settled, split_at, swapped
from kitecore.errors import EditRefused
from kitecore.model import Length, Start

Keep = Literal["content", "length"]
"""What stays when a speed changes: the part of the source (the length follows), or the length."""


@edit_kinds.register("set_speed")
class SetSpeed(EditBase):
    """One speed throughout; negative plays backwards, 0 stands still (and keeps the length)."""

    kind: Literal["set_speed"] = "set_speed"
    clips: tuple[Id, ...]
    factor: Factor
    keep: Keep = "content"

    def label(self) -> str:
        return f"Speed {self.factor:g} × of {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        return _each(document, self.clips, self._run)

    def _run(self, clip: Paced) -> Paced:
        low, high = clip.used
        if not self.factor:
            return _with(clip, clip.source_in, Speed.steady(0.0), clip.length)
        begin = low if self.factor > 0 else high
        standing = high == low
        length = clip.length
        if self.keep == "content" and not standing:
            length = max(1, round((high - low) / abs(self.factor)))
        return _with(clip, begin, Speed.steady(self.factor), length)


@edit_kinds.register("ramp")
class Ramp(EditBase):
    """Speeds at points of a clip, counted from its start.

    With ``keep`` content, each point stays at the picture where it is now, and the stretches
    between become shorter or longer; the clip then has to go one way all the time.
    """

    kind: Literal["ramp"] = "ramp"
    clip: Id
    points: tuple[SpeedPoint, ...] = Field(min_length=1, max_length=100)
    soft: bool = True
    keep: Keep = "content"

    def label(self) -> str:
        return "Speed ramp"

    def apply(self, document: Document) -> Document:
        step = document.rate.exact.frame_ticks
        return _each(document, (self.clip,), lambda clip: self._run(clip, step))

    def _run(self, clip: Paced, step: int) -> Paced:
        inside = sorted((p for p in self.points if 0 <= p.at <= clip.length), key=lambda p: p.at)
        if not inside or len({point.at for point in inside}) < len(inside):
            raise EditRefused("The points of a ramp lie inside the clip, at different moments.")
        wanted = Speed(points=tuple(inside), soft=self.soft)
        if self.keep == "length":
            return _with(clip, clip.source_in, wanted, clip.length)
        return self._laid_out(clip, wanted.inside(clip.length), step)

    def _laid_out(self, clip: Paced, knots: tuple[SpeedPoint, ...], step: int) -> Paced:
        """Every knot where its picture comes at the new speeds; the last at a whole frame."""
        places = [clip.speed.offset(knot.at) for knot in knots]
        points, at = [knots[0].model_copy(update={"at": 0})], 0
        for index in range(1, len(knots)):
            mean = (knots[index - 1].speed + knots[index].speed) / 2
            way = places[index] - places[index - 1]
            if mean * way <= 0:
                raise EditRefused(
                    "A ramp that stops or turns round cannot keep its content.",
                    todo="Let the length stay.",
                )
            at += max(1, round(way / mean))
            points.append(knots[index].model_copy(update={"at": at}))
        whole = max(step, (at + step // 2) // step * step)
        if whole > points[-2].at:
            points[-1] = SpeedPoint(at=whole, speed=knots[-1].speed)
        return _with(clip, clip.source_in, Speed(points=tuple(points), soft=self.soft), whole)


@edit_kinds.register("fit")
class Fit(EditBase):
    """The same content in another length: all its speeds change by one factor."""

    kind: Literal["fit"] = "fit"
    clip: Id
    length: Length

    def label(self) -> str:
        return "Fit to a length"

    def apply(self, document: Document) -> Document:
        length = max(document.rate.exact.frame_ticks, document.rate.exact.nearest(self.length))
        return _each(document, (self.clip,), lambda clip: _fitted(clip, length))


def _fitted(clip: Paced, length: int) -> Paced:
    factor = clip.length / length
    if _fastest(clip) * factor > FASTEST:
        raise EditRefused(f"That would be faster than {FASTEST:g} ×.")
    return _with(clip, clip.source_in, clip.speed.scaled(factor), length)


@edit_kinds.register("reverse")
class Reverse(EditBase):
    """The same content from its end to its beginning."""

    kind: Literal["reverse"] = "reverse"
    clips: tuple[Id, ...]

    def label(self) -> str:
        return f"Reverse {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        return _each(document, self.clips, _turned_round)


def _turned_round(clip: Paced) -> Paced:
    begin = clip.source_at(clip.length)
    return _with(clip, begin, clip.speed.reversed(clip.length), clip.length)


@edit_kinds.register("freeze")
class Freeze(EditBase):
    """The picture at ``at`` stands still for ``length``; what comes after moves by that."""

    kind: Literal["freeze"] = "freeze"
    clip: Id
    at: Start
    length: Length

    def label(self) -> str:
        return "Freeze"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        rate = document.rate.exact
        at, length = rate.nearest(self.at), max(rate.frame_ticks, rate.nearest(self.length))
        if not isinstance(clip, Paced) or not clip.start <= at < clip.end:
            raise EditRefused(
                "There is no moving picture to freeze at the playhead.",
                todo="Take a video in hand and move the playhead onto it.",
            )
        frozen = _frozen(clip, at, length, rate.frame_ticks, self.seed)
        around = split_at(track.clips, at, self.seed)
        return document.with_track(settled(track, pushed_in(around, (frozen,), at)))


def _frozen(clip: Paced, at: int, length: int, step: int, seed: str) -> Paced:
    local = at - clip.start
    place = clip.shown_at(local, step)
    held = clip.trimmed(at, at + 1).model_copy(
        update={
            "source_in": min(place, clip.source_end),
            "speed": Speed.steady(0.0),
            "length": length,
            "transition": None,
            "markers": (),
        }
    )
    return renamed(held, f"{seed}/frozen")  # type: ignore[return-value]


def _with(clip: Paced, source_in: int, speed: Speed, length: int) -> Paced:
    update = {"source_in": source_in, "speed": speed, "length": length}
    return clip.model_copy(update=update)


Run = Callable[[Paced], Paced]


def _each(document: Document, ids: tuple[Id, ...], run: Run) -> Document:
    """With each clip that has a speed run anew, the length made whole frames, the track settled."""
    found = [clip for _, clip in open_clips(document, ids) if isinstance(clip, Paced)]
    if not found:
        raise EditRefused("A still has no speed.", todo="Take a video, a sound or a group in hand.")
    for one in found:
        # On a track that closes gaps, those before may have moved it.
        track, clip = document.find_clip(one.id)
        new = _on_frames(run(clip), document.rate.exact.frame_ticks)  # type: ignore[arg-type]
        _require_room(track, clip, new)
        document = document.with_track(settled(track, swapped(track.clips, new)))
    return document


def _on_frames(clip: Paced, step: int) -> Paced:
    """Whole frames, and within the source, which rounding may miss by up to a frame's content.

    Raises
    ------
    EditRefused
        If the source is too short by more than that.
    """
    length = max(step, (clip.length + step // 2) // step * step)
    clip = clip.model_copy(update={"length": length})
    over = _overrun(clip)
    if over and abs(over) <= step * (_fastest(clip) + 1):
        earlier = clip.model_copy(update={"source_in": clip.source_in - over})
        shorter = clip.model_copy(update={"length": max(step, length - step)})
        clip = shorter if _overrun(earlier) else earlier
        over = _overrun(clip)
    if over:
        raise EditRefused(
            f"There is too little footage: {seconds_label(abs(over))} more would be needed.",
            todo="Let the length follow the speed, or trim the clip first.",
        )
    return clip


def _overrun(clip: Paced) -> int:
    """Ticks by which the clip goes on after its source has ended; negative before its beginning."""
    low, high = clip.used
    return high - clip.source_end if high > clip.source_end else min(0, low)


def _fastest(clip: Paced) -> float:
    return max(abs(point.speed) for point in clip.speed.points)


def _require_room(track: Track, old: ClipBase, new: ClipBase) -> None:
    if track.closes_gaps:
        return
    _, later = neighbours(track.clips, old.id)
    if later is not None and new.end > later.start:
        over = seconds_label(new.end - later.start)
        raise EditRefused(
            f"The clip would be {over} too long for the room before the next one.",
            todo="Move the next clip, or keep the length.",
        )

"""Captions: texts on a track of their own, that all look alike."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Final, Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, TextClip, Track, derived_id
from kitecore.document.clips.text import MOST_LETTERS, SaidKeys
from kitecore.document.cues import Cue, cues_in_order
from kitecore.document.properties import Key
from kitecore.edits._base import EditBase, edit_kinds, open_clips, open_track
from kitecore.edits._lanes import settled
from kitecore.edits._tracks import with_new_track
from kitecore.edits.fresh import SHORT_SIDE
from kitecore.errors import EditRefused
from kitecore.model import Start, Tick
from kitecore.ticks import TICKS_PER_SECOND

MOST_CUES: Final = 5000
_NEW: Final = 2 * TICKS_PER_SECOND
_LOW: Final = 0.26
"""Of the canvas's height, from its middle down: above what destinations lay over the foot."""
_LOOK: Final[dict[str, Any]] = {
    "size": 54,
    "width": 860,
    "fill": {"kind": "plain", "colour": "#fffaf0"},
}
_PLATE: Final[dict[str, float]] = {"across": 26, "down": 12, "radius": 14}


def caption_track(document: Document, track_id: str) -> Track:
    """The track, if it may be changed and is one of captions."""
    track = open_track(document, track_id)
    if not track.captions:
        raise EditRefused(f"The track “{track.name}” does not hold captions.")
    return track


def _fresh(document: Document, like: TextClip | None) -> TextClip:
    """A caption that looks like another, or as captions of this canvas do at first."""
    if like is not None:
        return like
    canvas = document.canvas
    factor = min(canvas.width, canvas.height) / SHORT_SIDE
    scaled = {name: _LOOK[name] * factor for name in ("size", "width")}
    plate = {name: size * factor for name, size in _PLATE.items()}
    place = {"position": [0, round(canvas.height * _LOW)]}
    clip = {"id": "fresh", "length": _NEW, "place": place, "plate": plate}
    return TextClip.model_validate({**_LOOK, **scaled, **clip})


def _look_of(track: Track | None) -> TextClip | None:
    found = (clip for clip in (track.clips if track else ()) if isinstance(clip, TextClip))
    return next(found, None)


def _timed(clip: TextClip, start: int, length: int) -> TextClip:
    return clip.model_copy(update={"start": start, "length": length})


def _said(
    clip: TextClip, id: str, text: str, start: int, length: int, said: SaidKeys | None = None
) -> TextClip:
    name = " ".join(text.split())[:60]
    changes = {"id": id, "name": name, "text": text, "said": said}
    return _timed(clip.model_copy(update=changes), start, length)


def _laid(like: TextClip, cue: Cue, id: str, height: int) -> TextClip:
    """A cue as a caption that looks like another, where it is to lie."""
    clip = _said(like, id, cue.text, cue.at, cue.until - cue.at, cue.said())
    if cue.height is None:
        return clip
    across = like.place.position[0] if isinstance(like.place.position, tuple) else 0.0
    down = round((cue.height - 0.5) * height, 1)
    place = clip.place.model_copy(update={"position": (across, down)})
    return clip.model_copy(update={"place": place})


@edit_kinds.register("lay_captions")
class LayCaptions(EditBase):
    """Captions from cues: on a new track, or instead of those on a track of captions."""

    kind: Literal["lay_captions"] = "lay_captions"
    cues: Annotated[tuple[Cue, ...], Field(min_length=1, max_length=MOST_CUES)]
    track: Id | None = None

    def label(self) -> str:
        return f"Lay {len(self.cues)} captions"

    def apply(self, document: Document) -> Document:
        track = caption_track(document, self.track) if self.track else None
        like = _fresh(document, _look_of(track))
        clips = tuple(
            _laid(like, cue, derived_id(self.seed, number + 1), document.canvas.height)
            for number, cue in enumerate(cues_in_order(self.cues, document.rate.exact))
        )
        if track is not None:
            return document.with_track(track.with_clips(clips))
        return _with_caption_track(document, clips, derived_id(self.seed, 0))


def _with_caption_track(document: Document, clips: tuple[TextClip, ...], id: str) -> Document:
    made = with_new_track(document, "picture", clips, id)
    track = made.find_track(id)
    return made.with_track(track.model_copy(update={"captions": True, "name": "Captions"}))


@edit_kinds.register("add_caption")
class AddCaption(EditBase):
    """One more caption from a moment on, until the next; on the first such track, or a new one."""

    kind: Literal["add_caption"] = "add_caption"
    at: Start
    text: Annotated[str, Field(min_length=1, max_length=MOST_LETTERS)] = "…"
    track: Id | None = None

    def label(self) -> str:
        return "Add a caption"

    def apply(self, document: Document) -> Document:
        track = self._track(document)
        at = document.rate.exact.nearest(self.at)
        clips = track.clips if track else ()
        if any(clip.start <= at < clip.end for clip in clips):
            raise EditRefused(
                "There is a caption at this moment already.", todo="Split it, or go behind it."
            )
        free = min((clip.start - at for clip in clips if clip.start > at), default=_NEW)
        like = _fresh(document, _look_of(track))
        length = document.rate.exact.nearest(min(free, _NEW))
        clip = _said(like, derived_id(self.seed, 1), self.text, at, length)
        if track is None:
            return _with_caption_track(document, (clip,), derived_id(self.seed, 0))
        return document.with_track(settled(track, (*clips, clip)))

    def _track(self, document: Document) -> Track | None:
        if self.track:
            return caption_track(document, self.track)
        return next((one for one in document.tracks if one.captions and not one.locked), None)


def _caption(document: Document, clip_id: str) -> tuple[Track, TextClip, int]:
    """A caption, its track, and its number on it."""
    [(track, clip)] = open_clips(document, (clip_id,))
    if not isinstance(clip, TextClip) or not track.captions:
        raise EditRefused("This is no caption.")
    return track, clip, [one.id for one in track.clips].index(clip_id)


def _replaced(
    document: Document, track: Track, first: int, last: int, clips: Sequence[TextClip]
) -> Document:
    return document.with_track(
        track.with_clips((*track.clips[:first], *clips, *track.clips[last:]))
    )


@edit_kinds.register("time_caption")
class TimeCaption(EditBase):
    """Let a caption begin and end elsewhere, as far as those beside it leave room."""

    kind: Literal["time_caption"] = "time_caption"
    clip: Id
    at: Start
    until: Start

    def label(self) -> str:
        return "Time a caption"

    def apply(self, document: Document) -> Document:
        track, clip, number = _caption(document, self.clip)
        rate = document.rate.exact
        low = track.clips[number - 1].end if number else 0
        after, step = track.clips[number + 1 :], rate.frame_ticks
        begin = max(rate.nearest(self.at), low)
        high = after[0].start if after else max(rate.nearest(self.until), begin + step)
        at = min(begin, high - step)
        until = min(max(rate.nearest(self.until), at + step), high)
        if at < low:
            raise EditRefused("There is no room for this caption there.")
        said = _timed(clip, at, until - at)
        return _replaced(document, track, number, number + 1, (said,))


@edit_kinds.register("begin_caption")
class BeginCaption(EditBase):
    """Let a caption begin at a moment, as tapped while the film plays: what was said before ends
    there, and those that follow make room."""

    kind: Literal["begin_caption"] = "begin_caption"
    clip: Id
    at: Start

    def label(self) -> str:
        return "Tap a caption"

    def apply(self, document: Document) -> Document:
        track, clip, number = _caption(document, self.clip)
        rate = document.rate.exact
        at, before = rate.nearest(self.at), list(track.clips[:number])
        if before and before[-1].start >= at:
            raise EditRefused("The caption before this one begins later.", todo="Tap that first.")
        if before and before[-1].end > at:
            before[-1] = before[-1].model_copy(update={"length": at - before[-1].start})
        after = list[ClipBase]()
        for one in (clip, *track.clips[number + 1 :]):
            start = at if one is clip else max(one.start, after[-1].end)
            after.append(one.at(start))
        return document.with_track(track.with_clips((*before, *after)))


@edit_kinds.register("split_caption")
class SplitCaption(EditBase):
    """Two captions of one, at a letter; each gets as much time as it has letters."""

    kind: Literal["split_caption"] = "split_caption"
    clip: Id
    at_letter: int = Field(ge=1, le=MOST_LETTERS)

    def label(self) -> str:
        return "Split a caption"

    def apply(self, document: Document) -> Document:
        track, clip, number = _caption(document, self.clip)
        text = clip.first_words
        first, second = text[: self.at_letter].strip(), text[self.at_letter :].strip()
        rate = document.rate.exact
        if not first or not second or clip.length < 2 * rate.frame_ticks:
            raise EditRefused("There is nothing to split here.", todo="Split between two words.")
        share = len(first) / (len(first) + len(second))
        at = rate.nearest(clip.start + round(clip.length * share))
        at = min(max(at, clip.start + rate.frame_ticks), clip.end - rate.frame_ticks)
        halves = (
            _said(clip, clip.id, first, clip.start, at - clip.start),
            _said(clip, derived_id(self.seed, 0), second, at, clip.end - at),
        )
        return _replaced(document, track, number, number + 1, halves)


@edit_kinds.register("merge_captions")
class MergeCaptions(EditBase):
    """One caption of one and the next."""

    kind: Literal["merge_captions"] = "merge_captions"
    clip: Id

    def label(self) -> str:
        return "Merge two captions"

    def apply(self, document: Document) -> Document:
        track, clip, number = _caption(document, self.clip)
        after = track.clips[number + 1] if number + 1 < len(track.clips) else None
        if not isinstance(after, TextClip):
            raise EditRefused("No caption follows this one.")
        text = " ".join(said.words for one in (clip, after) for said in one.sayings)[:MOST_LETTERS]
        both = _said(clip, clip.id, text, clip.start, after.end - clip.start)
        return _replaced(document, track, number, number + 2, (both,))


@edit_kinds.register("retime_captions")
class RetimeCaptions(EditBase):
    """All captions of a track earlier or later, and closer or farther apart from a moment."""

    kind: Literal["retime_captions"] = "retime_captions"
    track: Id
    by: Tick = 0
    factor: float = Field(default=1.0, ge=0.1, le=10, allow_inf_nan=False)
    about: Start = 0

    def label(self) -> str:
        return "Retime captions"

    def apply(self, document: Document) -> Document:
        track = caption_track(document, self.track)
        texts = {clip.id: clip for clip in track.clips if isinstance(clip, TextClip)}
        rate, moved = document.rate.exact, list[TextClip]()
        for clip in texts.values():
            at, until = (rate.nearest(self._moved(tick)) for tick in (clip.start, clip.end))
            at = max(at, moved[-1].end if moved else 0)
            length = max(until - at, rate.frame_ticks)
            moved.append(_timed(self._spread(clip), at, length))
        if not moved:
            raise EditRefused("There are no captions on this track.")
        if self._moved(next(iter(texts.values())).start) < 0:
            raise EditRefused("The first caption would begin before the film.")
        return document.with_track(track.with_clips(tuple(moved)))

    def _spread(self, clip: TextClip) -> TextClip:
        """Its words as much closer or farther apart."""
        if self.factor == 1 or not isinstance(clip.said, SaidKeys):
            return clip
        at = {round(key.at * self.factor): key.value for key in clip.said.keys}
        keys = tuple(Key[int](at=tick, value=value) for tick, value in at.items())
        return clip.model_copy(update={"said": SaidKeys(keys=keys)})

    def _moved(self, tick: int) -> int:
        return round(self.about + (tick - self.about) * self.factor) + self.by

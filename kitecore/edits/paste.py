"""Several clips at once: pasting what was copied."""

from __future__ import annotations

from itertools import pairwise
from typing import Literal

from pydantic import Field

from kitecore.document import (
    Canvas,
    Clip,
    ClipBase,
    Document,
    GroupClip,
    Holding,
    Model,
    derived_id,
)
from kitecore.document.canvas import Side
from kitecore.edits._base import EditBase, edit_kinds, open_track
from kitecore.edits._fitting import fitted
from kitecore.edits._lanes import pushed_in, relinked, renamed, settled, split_at
from kitecore.edits._sources import within_source
from kitecore.edits._tracks import FreeKind, on_free_track
from kitecore.edits.canvas import retimed_within
from kitecore.errors import EditRefused
from kitecore.model import Start
from kitecore.ticks import Rate


class Copied(Model):
    """A clip, and the track it lay on: ``lane`` counts from the lowest of those copied."""

    clip: Clip
    lane: int = Field(ge=0, le=200)
    of: Literal["main", "picture", "sound"]


class Sheet(Model):
    """Width and height of a canvas, in pixels."""

    width: Side
    height: Side


@edit_kinds.register("paste")
class Paste(EditBase):
    """Put copies at ``at``, as far from each other as they were.

    What came from the main track is pushed into it; the rest goes to free tracks with room, or to
    new ones. From another project they come with their media; ``made_on`` is the canvas that they
    were made on, from which they are fitted to that of the document.
    """

    kind: Literal["paste"] = "paste"
    copies: tuple[Copied, ...] = Field(min_length=1, max_length=2000)
    at: Start
    made_on: Sheet | None = None

    def label(self) -> str:
        many = len(self.copies)
        return f"Paste “{self.copies[0].clip.name}”" if many == 1 else f"Paste {many} clips"

    def _factor(self, canvas: Canvas) -> float:
        """How much larger what was copied is here, so that all of it is there."""
        made_on = self.made_on or canvas
        return min(canvas.width / made_on.width, canvas.height / made_on.height)

    def _with_canvas(self, clip: ClipBase, canvas: Canvas) -> ClipBase:
        """A group keeps the canvas that it was made on where the new one has another shape.

        Otherwise what fills or fits the canvas within it would take that shape.
        """
        made_on = self.made_on or canvas
        same = made_on.width * canvas.height == made_on.height * canvas.width
        if same or not isinstance(clip, GroupClip) or clip.canvas is not None:
            return clip
        own = Canvas(width=made_on.width, height=made_on.height)
        # In a cell it goes on filling or fitting that; else all of it is to be there.
        place = clip.place if clip.cell else clip.place.model_copy(update={"fit": "whole"})
        return clip.model_copy(update={"canvas": own, "place": place})

    def apply(self, document: Document) -> Document:
        rate = document.rate.exact
        first = min(copied.clip.start for copied in self.copies)
        at = rate.nearest(self.at)
        if main := [c for c in self.copies if c.of == "main" and document.main.accepts(c.clip)]:
            # Others keep their distance to what is pushed in, so they start where that does.
            at = min(at, document.main.end) if document.main.closes_gaps else at
        factor = self._factor(document.canvas)
        among = {copied.clip.id: copied.clip for copied in self.copies}
        fresh = {
            copied.clip.id: _fresh(
                fitted(self._with_canvas(copied.clip, document.canvas), factor, among),
                rate,
                at - first,
                f"{self.seed}/{number}",
            )
            for number, copied in enumerate(self.copies)
        }
        ids = {old: clip.id for old, clip in fresh.items()}
        placed = {old: relinked(clip, ids) for old, clip in fresh.items()}
        if main:
            document = _onto_main(document, [placed[c.clip.id] for c in main], self.seed)
        lanes: dict[tuple[bool, int], list[ClipBase]] = {}
        for copied in self.copies:
            if copied not in main:
                sound = not document.main.accepts(copied.clip) or copied.of == "sound"
                lanes.setdefault((sound, copied.lane), []).append(placed[copied.clip.id])
        for (sound, lane), clips in sorted(lanes.items()):
            seed = derived_id(self.seed, 10_000 + lane + sound)
            document = _onto_lane(document, "sound" if sound else "picture", clips, seed)
        return document


def _fresh(clip: ClipBase, rate: Rate, by: int, seed: str) -> ClipBase:
    """The copy, on the frames of a rate, and so what it holds."""
    frame = rate.frame_ticks
    if isinstance(clip, Holding):
        clip = retimed_within(clip, rate)
        clip = within_source(clip, frame) if min(clip.reach) < 0 else clip
    length = max(frame, clip.length // frame * frame)
    start = max(0, rate.nearest(clip.start + by))
    return renamed(clip.model_copy(update={"length": length}), seed).at(start)


def _onto_main(document: Document, clips: list[ClipBase], seed: str) -> Document:
    main = open_track(document, document.main.id)
    clips = sorted(clips, key=lambda clip: clip.start)
    at = min(clips[0].start, main.end) if main.closes_gaps else clips[0].start
    row, place = [], at
    for clip in clips:
        row.append(clip.at(place))
        place += clip.length
    around = split_at(main.clips, at, seed + "/main")
    return document.with_track(settled(main, pushed_in(around, tuple(row), at)))


def _onto_lane(document: Document, kind: FreeKind, clips: list[ClipBase], new: str) -> Document:
    clips = sorted(clips, key=lambda clip: clip.start)
    if any(first.end > second.start for first, second in pairwise(clips)):
        raise EditRefused("Copies of one track would overlap.")
    return on_free_track(document, kind, tuple(clips), new)

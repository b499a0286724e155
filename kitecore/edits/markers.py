"""Named moments on the timeline and on clips."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from kitecore.document import Document, Id, Marker, Tag, derived_id
from kitecore.document.marker import MOST_MARKERS
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.errors import EditRefused, NotThere
from kitecore.model import Name, Start

Markers = tuple[Marker, ...]
Change = Callable[[Markers, int], Markers]


@edit_kinds.register("add_marker")
class AddMarker(EditBase):
    """A marker at a moment of the timeline; with ``clip``, on that clip, to travel with it."""

    kind: Literal["add_marker"] = "add_marker"
    at: Start
    clip: Id | None = None
    name: Name = ""
    tag: Tag = ""

    def label(self) -> str:
        return f"Mark “{self.name}”" if self.name else "Mark"

    def apply(self, document: Document) -> Document:
        at = document.rate.exact.nearest(self.at)
        marker = Marker(id=derived_id(self.seed, 0), at=at, name=self.name, tag=self.tag)
        if self.clip is None:
            return document.model_copy(update={"markers": _sorted((*document.markers, marker))})
        [(_, clip)] = open_clips(document, (self.clip,))
        if not clip.start <= at < clip.end:
            raise EditRefused(
                "The playhead is not inside the clip in hand.",
                todo="Move the playhead onto the clip, or put the clip down to mark the timeline.",
            )
        mine = marker.model_copy(update={"at": at - clip.start})
        new = clip.model_copy(update={"markers": _sorted((*clip.markers, mine))})
        return document.with_clip(new)


@edit_kinds.register("mark_beats")
class MarkBeats(EditBase):
    """Beats of a clip as markers on it, in place of those it had; none takes them away.

    ``at`` are ticks of the timeline; every ``bar``-th from the ``first`` on begins a bar, with 0 none.
    """

    kind: Literal["mark_beats"] = "mark_beats"
    clip: Id
    at: Annotated[tuple[Start, ...], Field(max_length=MOST_MARKERS)]
    first: int = Field(default=0, ge=0, le=64)
    bar: int = Field(default=4, ge=0, le=32)

    def label(self) -> str:
        return "Mark the beats" if self.at else "Take the beats away"

    def apply(self, document: Document) -> Document:
        [(_, clip)] = open_clips(document, (self.clip,))
        own = tuple(marker for marker in clip.markers if not marker.beat)
        beats = tuple(
            Marker(
                id=derived_id(self.seed, number),
                at=at - clip.start,
                beat="bar" if self._begins_bar(number) else "beat",
            )
            for number, at in enumerate(sorted(set(self.at)))
            if clip.start <= at < clip.end
        )
        return document.with_clip(clip.model_copy(update={"markers": _sorted((*own, *beats))}))

    def _begins_bar(self, number: int) -> bool:
        return self.bar > 0 and number % self.bar == self.first % self.bar


@edit_kinds.register("mark_places")
class MarkPlaces(EditBase):
    """Moments of the timeline as markers of one name on a clip, in place of those of that name that it had."""

    kind: Literal["mark_places"] = "mark_places"
    clip: Id
    at: Annotated[tuple[Start, ...], Field(max_length=MOST_MARKERS)]
    name: Name = Field(min_length=1)
    tag: Tag = ""

    def label(self) -> str:
        return f"Mark “{self.name}”" if self.at else f"Take “{self.name}” away"

    def apply(self, document: Document) -> Document:
        [(_, clip)] = open_clips(document, (self.clip,))
        places = sorted({document.rate.exact.nearest(at) for at in self.at})
        fresh = tuple(
            Marker(
                id=derived_id(self.seed, number), at=at - clip.start, name=self.name, tag=self.tag
            )
            for number, at in enumerate(places)
            if clip.start <= at < clip.end
        )
        others = tuple(marker for marker in clip.markers if marker.name != self.name)
        if len(others) + len(fresh) > MOST_MARKERS:
            raise EditRefused(f"At most {MOST_MARKERS} markers are on one clip.")
        return document.with_clip(clip.model_copy(update={"markers": _sorted((*others, *fresh))}))


@edit_kinds.register("set_marker")
class SetMarker(EditBase):
    """Name, colour or moment of a marker (``at`` on the timeline); what is not given stays."""

    kind: Literal["set_marker"] = "set_marker"
    marker: Id
    name: Name | None = None
    tag: Tag | None = None
    at: Start | None = None

    def label(self) -> str:
        return "Change a marker"

    def apply(self, document: Document) -> Document:
        at = None if self.at is None else document.rate.exact.nearest(self.at)

        def changed(markers: Markers, base: int) -> Markers:
            return _sorted(tuple(self._changed(m, at, base) for m in markers))

        return _everywhere(document, self.marker, changed)

    def _changed(self, marker: Marker, at: int | None, base: int) -> Marker:
        if marker.id != self.marker:
            return marker
        given = {"name": self.name, "tag": self.tag, "at": None if at is None else at - base}
        update = {key: value for key, value in given.items() if value is not None}
        return marker.model_copy(update=update)


@edit_kinds.register("remove_marker")
class RemoveMarker(EditBase):
    kind: Literal["remove_marker"] = "remove_marker"
    marker: Id

    def label(self) -> str:
        return "Delete a marker"

    def apply(self, document: Document) -> Document:
        return _everywhere(
            document,
            self.marker,
            lambda markers, base: tuple(m for m in markers if m.id != self.marker),
        )


def _sorted(markers: Markers) -> Markers:
    return tuple(sorted(markers, key=lambda marker: marker.at))


def _everywhere(document: Document, marker: str, change: Change) -> Document:
    """Change the markers of the timeline or of the clip that has this one."""
    if any(m.id == marker for m in document.markers):
        return document.model_copy(update={"markers": change(document.markers, 0)})
    found = False
    for _, clip in document.clips():
        if any(m.id == marker for m in clip.markers):
            found = True
            new = clip.model_copy(update={"markers": change(clip.markers, clip.start)})
            document = document.with_clip(new)
    if not found:
        raise NotThere("That marker is not there any more.")
    return document

from __future__ import annotations

from typing import Literal, Self

from pydantic import Field

from kitecore.document import Canvas, Document, FrameRate, Marker, Track
from kitecore.document.marker import MOST_MARKERS
from kitecore.document.strips import FilmStrip
from kitecore.document.track import MOST_TRACKS
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.errors import EditRefused
from kitecore.model import Name


@edit_kinds.register("take_over")
class TakeOver(EditBase):
    """Another timeline in place of all that is there, as it was read from a file."""

    kind: Literal["take_over"] = "take_over"
    title: Name = ""
    canvas: Canvas = Canvas()
    rate: FrameRate = FrameRate()
    tracks: tuple[Track, ...] = Field(min_length=1, max_length=MOST_TRACKS)
    markers: tuple[Marker, ...] = Field(default=(), max_length=MOST_MARKERS)
    strip: FilmStrip = FilmStrip()

    @classmethod
    def of(cls, document: Document, title: str) -> Self:
        """The film of a document in place of what is there."""
        return cls(
            title=title,
            canvas=document.canvas,
            rate=document.rate,
            tracks=document.tracks,
            markers=document.markers,
            strip=document.strip,
        )

    def label(self) -> str:
        return f"Take over “{self.title}”" if self.title else "Take over a timeline"

    def apply(self, document: Document) -> Document:
        if [track.kind for track in self.tracks].count("main") != 1:
            raise EditRefused("A film has one main track.")
        return Document(
            canvas=self.canvas,
            rate=self.rate,
            tracks=self.tracks,
            markers=self.markers,
            strip=self.strip,
        )

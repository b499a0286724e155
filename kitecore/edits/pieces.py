"""Pieces of a still as layers of their own, and all of them in one group."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document import Document, Id, StillClip, Track, derived_id
from kitecore.document.cutouts import MOST_PIECES, Piece
from kitecore.document.properties import Vector
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._tracks import with_track_beside
from kitecore.edits.groups import Group
from kitecore.errors import EditRefused
from kitecore.model import Name


@edit_kinds.register("take_off")
class TakeOff(EditBase):
    """What is cut out of a still becomes a layer right above it; what lay behind it is filled.

    ``pivot`` is the point that the piece turns about, in canvas pixels from the middle of the picture.
    """

    kind: Literal["take_off"] = "take_off"
    clip: Id
    name: Name = Field(default="Piece", min_length=1)
    pivot: Vector = (0.0, 0.0)

    def label(self) -> str:
        return f"Take “{self.name}” off"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        if not isinstance(clip, StillClip) or clip.cutout is None or not clip.cutout.finds:
            raise EditRefused(
                "Nothing is marked that could be taken off.", todo="Mark it with a stroke first."
            )
        if len(clip.taken_off) >= MOST_PIECES:
            raise EditRefused(f"At most {MOST_PIECES} pieces are taken off one still.")
        cutout = clip.cutout
        piece = clip.model_copy(
            update={
                "id": derived_id(self.seed, 0),
                "name": self.name,
                "transition": None,
                "rides": None,
                "markers": (),
                "taken_off": (),
                "place": clip.place.model_copy(update={"pivot": self.pivot}),
                "cutout": cutout.model_copy(update={"on": True, "invert": False}),
            }
        )
        taken = Piece(name=self.name, **dict(cutout.wanted))
        rest = clip.model_copy(update={"cutout": None, "taken_off": (*clip.taken_off, taken)})
        document = document.with_clip(rest)
        row = Track(id=derived_id(self.seed, 1), kind="picture", name=self.name)
        return with_track_beside(document, track.id, row.with_clips((piece,)))


@edit_kinds.register("gather_pieces")
class GatherPieces(EditBase):
    """A still and the pieces that were taken off it become one group, where the still lies."""

    kind: Literal["gather_pieces"] = "gather_pieces"
    clip: Id

    def label(self) -> str:
        return "Gather the pieces in a group"

    def apply(self, document: Document) -> Document:
        [(_, clip)] = open_clips(document, (self.clip,))
        pieces = _pieces_of(document, clip) if isinstance(clip, StillClip) else ()
        if not pieces:
            raise EditRefused(
                "There are no pieces that go with it.", todo="Take a piece off it first."
            )
        clips = (self.clip, *(piece.id for piece in pieces))
        return Group(clips=clips, name=clip.name or "Pieces", seed=self.seed).apply(document)


def _pieces_of(document: Document, still: StillClip) -> tuple[StillClip, ...]:
    """Layers beside a still that show what was taken off it, while it is seen."""
    taken = [piece.wanted for piece in still.taken_off]
    return tuple(
        one
        for track in document.tracks
        for one in track.clips
        if isinstance(one, StillClip)
        and one.id != still.id
        and one.media == still.media
        and one.cutout is not None
        and one.cutout.wanted in taken
        and one.span.overlaps(still.span)
    )

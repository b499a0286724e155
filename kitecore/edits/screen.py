"""Split screen: clips that share the canvas in cells."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from kitecore.document import Cell, Document, Id, Pictured, derived_id
from kitecore.document.cell import MOST_CELLS
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._lanes import settled, without
from kitecore.edits._tracks import on_free_track
from kitecore.errors import EditRefused, NotThere

Rows = tuple[Annotated[int, Field(ge=1, le=MOST_CELLS)], ...]


@edit_kinds.register("split_screen")
class SplitScreen(EditBase):
    """Show clips side by side, in their order; they begin together, each on a track of its own.

    Each picture fills its cell to begin with; all its other properties stay.
    """

    kind: Literal["split_screen"] = "split_screen"
    clips: tuple[Id, ...] = Field(min_length=1, max_length=MOST_CELLS)
    rows: Rows
    upright: bool = False

    def label(self) -> str:
        return f"Split screen of {sum(self.rows)}"

    def apply(self, document: Document) -> Document:
        found = {clip.id: clip for _, clip in open_clips(document, self.clips)}
        if len(self.clips) > sum(self.rows):
            raise EditRefused("The layout has fewer cells than there are clips in hand.")
        begin = min(clip.start for clip in found.values())
        for number, clip_id in enumerate(self.clips):
            cell = Cell(screen=self.seed, rows=self.rows, upright=self.upright, place=number)
            document = _in_cell(document, clip_id, cell, begin, derived_id(self.seed, number))
        return document


def _in_cell(document: Document, clip_id: str, cell: Cell, begin: int, new: str) -> Document:
    track, clip = document.find_clip(clip_id)
    if not isinstance(clip, Pictured):
        raise EditRefused(f"“{clip.name}” has no picture.")
    place = clip.place.model_copy(
        update={"fit": "fill", "position": (0.0, 0.0), "size": (1.0, 1.0)}
    )
    shown = clip.model_copy(update={"cell": cell, "place": place, "transition": None})
    if clip.start == begin:
        return document.with_clip(shown)
    document = document.with_track(settled(track, without(track.clips, clip.id)))
    return on_free_track(document, "picture", (shown.at(begin),), new)


@edit_kinds.register("join_screen")
class JoinScreen(EditBase):
    """Clips come into the empty cells of a split screen; where there are too few, it gets more.

    They begin with the others, each on a track of its own. Gap, margin and the like stay.
    """

    kind: Literal["join_screen"] = "join_screen"
    screen: Id
    clips: tuple[Id, ...] = Field(min_length=1, max_length=MOST_CELLS)

    def label(self) -> str:
        return f"Put {count(self.clips)} into the split screen"

    def apply(self, document: Document) -> Document:
        members = _members(document, self.screen)
        found = {clip.id: clip for _, clip in open_clips(document, self.clips)}
        if any(clip_id in found for clip_id, _ in members):
            raise EditRefused("A clip in hand is in this split screen already.")
        wanted = len(members) + len(found)
        first = members[0][1]
        if wanted > sum(first.rows):
            if wanted > MOST_CELLS:
                raise EditRefused(f"A split screen has at most {MOST_CELLS} cells.")
            first = _changed(first, {"rows": _with_more(first.rows, wanted)})
            document = _with_all(document, members, {"rows": first.rows})
        taken = {cell.place for _, cell in members}
        empty = [place for place in range(sum(first.rows)) if place not in taken]
        begin = min(document.find_clip(clip_id)[1].start for clip_id, _ in members)
        for number, (clip_id, place) in enumerate(zip(found, empty, strict=False)):
            cell = _changed(first, {"place": place})
            document = _in_cell(document, clip_id, cell, begin, derived_id(self.seed, number))
        return document


def _with_more(rows: Rows, wanted: int) -> Rows:
    """Rows with more cells, one at a time in the shortest row, the last of those."""
    grown = list(rows)
    while sum(grown) < wanted:
        shortest = min(range(len(grown)), key=lambda row: (grown[row], -row))
        grown[shortest] += 1
    return tuple(grown)


@edit_kinds.register("set_screen")
class SetScreen(EditBase):
    """Layout and measures of a split screen, in all its cells; what is not given stays."""

    kind: Literal["set_screen"] = "set_screen"
    screen: Id
    rows: Rows | None = None
    upright: bool | None = None
    gap: float | None = None
    margin: float | None = None
    radius: float | None = None
    slant: float | None = None

    def label(self) -> str:
        return "Set the split screen"

    def apply(self, document: Document) -> Document:
        names = ("rows", "upright", "gap", "margin", "radius", "slant")
        given = {n: getattr(self, n) for n in names if getattr(self, n) is not None}
        return _with_all(document, _members(document, self.screen), given)


@edit_kinds.register("size_cell")
class SizeCell(EditBase):
    """A cell's share of the width or the height, in percent; those beside it share the rest as before."""

    kind: Literal["size_cell"] = "size_cell"
    screen: Id
    place: int
    way: Literal["across", "down"]
    percent: float = Field(ge=2, le=98)

    def label(self) -> str:
        return f"{'Width' if self.way == 'across' else 'Height'} of a cell"

    def apply(self, document: Document) -> Document:
        members = _members(document, self.screen)
        given = self._shares(_changed(members[0][1], {"place": self.place}))
        return _with_all(document, members, given)

    def _shares(self, cell: Cell) -> dict[str, Any]:
        row, column = cell.row_and_column
        if (self.way == "across") == cell.upright:
            shares = cell.row_shares or (1.0,) * len(cell.rows)
            return {"row_shares": _shared(shares, row, self.percent)}
        every = cell.cell_shares or tuple((1.0,) * many for many in cell.rows)
        here = _shared(every[row], column, self.percent)
        return {"cell_shares": (*every[:row], here, *every[row + 1 :])}


def _shared(shares: tuple[float, ...], index: int, percent: float) -> tuple[float, ...]:
    """Shares in percent, one of them given."""
    if len(shares) < 2:
        raise EditRefused("That cell has no other beside it to share with.")
    others = sum(shares) - shares[index]
    return tuple(
        percent if place == index else round((100 - percent) * one / others, 6)
        for place, one in enumerate(shares)
    )


@edit_kinds.register("swap_cells")
class SwapCells(EditBase):
    """Two clips of a split screen change places."""

    kind: Literal["swap_cells"] = "swap_cells"
    first: Id
    second: Id

    def label(self) -> str:
        return "Swap cells"

    def apply(self, document: Document) -> Document:
        clips = [clip for _, clip in open_clips(document, (self.first, self.second))]
        cells = [clip.cell for clip in clips if isinstance(clip, Pictured) and clip.cell]
        if len(cells) != 2 or cells[0].screen != cells[1].screen:
            raise EditRefused("Swap two clips of the same split screen.")
        for clip, cell in zip(clips, reversed(cells), strict=True):
            document = _with_cell(document, clip.id, cell)
        return document


@edit_kinds.register("to_cell")
class ToCell(EditBase):
    """Put a clip into another cell of its split screen; who was there takes its old one."""

    kind: Literal["to_cell"] = "to_cell"
    clip: Id
    place: int

    def label(self) -> str:
        return "Move to another cell"

    def apply(self, document: Document) -> Document:
        [(_, clip)] = open_clips(document, (self.clip,))
        if not isinstance(clip, Pictured) or clip.cell is None:
            raise EditRefused("This clip is not part of a split screen.")
        old = clip.cell
        for other, cell in _cells(document, old.screen):
            if cell.place == self.place:
                document = _with_cell(document, other, _changed(cell, {"place": old.place}))
        return _with_cell(document, clip.id, _changed(old, {"place": self.place}))


@edit_kinds.register("leave_screen")
class LeaveScreen(EditBase):
    """Show clips on the whole canvas again."""

    kind: Literal["leave_screen"] = "leave_screen"
    clips: tuple[Id, ...]

    def label(self) -> str:
        return f"Take {count(self.clips)} out of the split screen"

    def apply(self, document: Document) -> Document:
        for _, clip in open_clips(document, self.clips):
            document = _with_cell(document, clip.id, None)
        return document


def _changed(cell: Cell, given: dict[str, Any]) -> Cell:
    """A cell with other fields; in another layout all share alike again."""
    relaid = (
        {"row_shares": (), "cell_shares": ()} if given.get("rows", cell.rows) != cell.rows else {}
    )
    try:
        return Cell.model_validate(cell.model_dump() | relaid | given)
    except ValidationError as error:
        reason = error.errors()[0]["msg"].removeprefix("Value error, ")
        raise EditRefused(f"That does not fit: {reason}.") from error


def _with_cell(document: Document, clip_id: str, cell: Cell | None) -> Document:
    _, clip = document.find_clip(clip_id)
    if not isinstance(clip, Pictured):
        return document
    return document.with_clip(clip.model_copy(update={"cell": cell}))


Members = list[tuple[str, Cell]]


def _with_all(document: Document, members: Members, given: dict[str, Any]) -> Document:
    """With other fields in all cells of a split screen."""
    for clip_id, cell in members:
        document = _with_cell(document, clip_id, _changed(cell, given))
    return document


def _members(document: Document, screen: str) -> Members:
    """As `_cells`, of a split screen that has some."""
    found = _cells(document, screen)
    if not found:
        raise NotThere("That split screen is not there any more.")
    return found


def _cells(document: Document, screen: str) -> Members:
    """Ids of the clips of a split screen, and their cells."""
    return [
        (clip.id, clip.cell)
        for _, clip in document.clips()
        if isinstance(clip, Pictured) and clip.cell and clip.cell.screen == screen
    ]

"""One item of a list within clips: stops of a fill, strokes of a mask, masks of a zone.

A step names what it adds or takes away and leaves the rest of the list alone, so that two people
(or one with a slow line) never overwrite each other's items.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any, Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, derived_id
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import has, with_item, without_item
from kitecore.errors import EditRefused

ItemPath = Annotated[str, Field(min_length=1, max_length=200)]


def _named(path: str) -> str:
    """What the items of a list are called: its name without the plural."""
    return path.rsplit("/", 1)[-1].removesuffix("s")


def _each(
    document: Document, clips: tuple[str, ...], path: str, change: Callable[[ClipBase], ClipBase]
) -> Document:
    """With the clips changed that have such a list; some of them must."""
    found = [clip for _, clip in open_clips(document, clips) if has(clip, path)]
    if not found:
        raise EditRefused("A part of this step is not there any more.")
    for clip in found:
        document = document.with_clip(change(clip))
    return document


@edit_kinds.register("add_item")
class AddItem(EditBase):
    """Add an item to the list at a path, e.g. ``fill/stops`` or ``masks/ID/strokes``.

    ``at`` is the index it gets; without it, it comes last.
    """

    kind: Literal["add_item"] = "add_item"
    clips: tuple[Id, ...]
    list: ItemPath
    item: Any
    at: int | None = Field(default=None, ge=0)

    def label(self) -> str:
        return f"Add a {_named(self.list)} to {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        return _each(
            document,
            self.clips,
            self.list,
            lambda clip: with_item(clip, self.list, self.item, derived_id(self.seed, 0), self.at),
        )


@edit_kinds.register("remove_item")
class RemoveItem(EditBase):
    """Take an item out of its list, named by its id or its number: ``masks/ID/strokes/3``."""

    kind: Literal["remove_item"] = "remove_item"
    clips: tuple[Id, ...]
    item: ItemPath

    def label(self) -> str:
        return f"Remove a {_named(self.item.rpartition('/')[0])}"

    def apply(self, document: Document) -> Document:
        return _each(document, self.clips, self.item, lambda clip: without_item(clip, self.item))

"""Strips: how the sound of a track, or of the whole film, is passed on."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Annotated, Any, Final, Literal

from pydantic import Field

from kitecore.document import Document, Id
from kitecore.document.inserts import MOST_INSERTS, Insert, InsertBase
from kitecore.document.strips import Strip, TrackStrip
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._properties import has, with_values
from kitecore.edits._rows import reordered, with_fresh_ids, without_part
from kitecore.errors import EditRefused, NotThere

if TYPE_CHECKING:
    Inserts = tuple[InsertBase, ...]
else:
    Inserts = Annotated[tuple[Insert, ...], Field(max_length=MOST_INSERTS)]

_FIXED: Final = ("kind", "id")


class StripEdit(EditBase):
    """Of a track; without one, of the film."""

    track: Id | None = None

    def _named(self, document: Document) -> Strip:
        return document.strip_of(self.track)

    def _whose(self) -> str:
        return "of a track" if self.track else "of the film"


@edit_kinds.register("set_strip")
class SetStrip(StripEdit):
    """Set values by path: ``{"gain": -6}``, ``{"chain/ID/threshold": -30}``, ``{"under": null}``."""

    kind: Literal["set_strip"] = "set_strip"
    values: dict[str, Any] = Field(min_length=1)

    def label(self) -> str:
        words = ", ".join(sorted(path.rsplit("/", 1)[-1] for path in self.values))
        return f"Set {words.replace('_', ' ')} {self._whose()}"

    def apply(self, document: Document) -> Document:
        strip = self._named(document)
        for path in self.values:
            last = path.rsplit("/", 1)[-1]
            if last in _FIXED or not (has(strip, path) or path.startswith("under/")):
                raise EditRefused(f"There is no “{path}” to be set.")
        strip = with_values(strip, self.values)
        under = strip.under if isinstance(strip, TrackStrip) else None
        if under and self.track in under.tracks:
            raise EditRefused("A track cannot step back under itself.")
        return document.with_strip(self.track, strip)


@edit_kinds.register("add_inserts")
class AddInserts(StripEdit):
    """Inserts at the end of a strip's chain; with ``instead`` in place of it."""

    kind: Literal["add_inserts"] = "add_inserts"
    inserts: Inserts
    instead: bool = False
    name: str = Field(default="", max_length=200)

    def label(self) -> str:
        kinds = ", ".join(one.kind.replace("_", " ") for one in self.inserts) or "nothing"
        return f"Add “{self.name}”" if self.name else f"Add {kinds} to the chain {self._whose()}"

    def apply(self, document: Document) -> Document:
        strip = self._named(document)
        new = with_fresh_ids(self.inserts, self.seed)
        chain = new if self.instead else (*strip.chain, *new)
        if len(chain) > MOST_INSERTS:
            raise EditRefused(f"A chain holds at most {MOST_INSERTS} inserts.")
        return document.with_strip(self.track, strip.model_copy(update={"chain": chain}))


class InsertEdit(StripEdit):
    insert: Id

    def _with(self, document: Document, change: Callable[[Inserts], Inserts]) -> Document:
        strip = self._named(document)
        if all(one.id != self.insert for one in strip.chain):
            raise NotThere("That insert is not there any more.")
        changed = strip.model_copy(update={"chain": change(strip.chain)})
        return document.with_strip(self.track, changed)


@edit_kinds.register("remove_insert")
class RemoveInsert(InsertEdit):
    kind: Literal["remove_insert"] = "remove_insert"

    def label(self) -> str:
        return f"Delete an insert {self._whose()}"

    def apply(self, document: Document) -> Document:
        return self._with(document, lambda chain: without_part(chain, self.insert))


@edit_kinds.register("order_insert")
class OrderInsert(InsertEdit):
    """Move an insert to another place in its chain."""

    kind: Literal["order_insert"] = "order_insert"
    to: int = Field(ge=0)

    def label(self) -> str:
        return f"Order the chain {self._whose()}"

    def apply(self, document: Document) -> Document:
        return self._with(document, lambda chain: reordered(chain, self.insert, self.to))

"""Parts of clips that come in lists: masks and effects of layers, strokes on takes, inserts of sounds."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Any, Final, Literal, Union

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, Model, Pictured, Sounding
from kitecore.document.clips import MOST_EFFECTS, MOST_MASKS, Retouchable
from kitecore.document.effects import EffectBase, effect_kinds
from kitecore.document.inserts import MOST_INSERTS, InsertBase, insert_kinds
from kitecore.document.masks import MASKS, MaskBase
from kitecore.document.strokes import MOST_STROKES, STROKES, StrokeBase
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import with_values
from kitecore.edits._rows import reordered, with_fresh_ids, without_part
from kitecore.errors import EditRefused, NotThere

List = Literal["masks", "effects", "strokes", "chain"]
if TYPE_CHECKING:
    Part = EffectBase | MaskBase | StrokeBase | InsertBase
else:
    Part = Annotated[
        Union[
            (
                *effect_kinds.values(),
                *MASKS.values(),
                *STROKES.values(),
                *insert_kinds.values(),
            )
        ],
        Field(discriminator="kind"),
    ]
Parts = tuple[Any, ...]


@dataclass(frozen=True)
class _Row:
    """Of one list: what its parts are called, how many there may be, whose and which they are."""

    one: str
    many: str
    most: int
    holder: type[ClipBase]
    kinds: tuple[type[Model], ...]


_ROWS: Final[dict[str, _Row]] = {
    "masks": _Row("a mask", "masks", MOST_MASKS, Pictured, tuple(MASKS.values())),
    "effects": _Row("an effect", "effects", MOST_EFFECTS, Pictured, tuple(effect_kinds.values())),
    "strokes": _Row("a stroke", "strokes", MOST_STROKES, Retouchable, tuple(STROKES.values())),
    "chain": _Row("an insert", "inserts", MOST_INSERTS, Sounding, tuple(insert_kinds.values())),
}
_REFUSED: Final[dict[type[ClipBase], tuple[str, str]]] = {
    Sounding: ("What is in hand has no sound.", "Take a sound in hand."),
    Pictured: ("What is in hand has no picture.", "Take a picture in hand."),
    Retouchable: ("What is in hand is no picture of a take.", "Take a video or a still in hand."),
}


def _kind(part: Model) -> str:
    return str(part.kind).replace("_", " ")  # type: ignore[attr-defined]


class PartsEdit(EditBase):
    """Clips that have no such list stay as they are, as long as one has one."""

    clips: tuple[Id, ...]
    list: List

    @property
    def _row(self) -> _Row:
        return _ROWS[self.list]

    def _changed(self, document: Document, change: Callable[[Parts], Parts]) -> Document:
        row = self._row
        found = [c for _, c in open_clips(document, self.clips) if isinstance(c, row.holder)]
        if not found:
            why, todo = _REFUSED[row.holder]
            raise EditRefused(why, todo=todo)
        known = not hasattr(self, "part")
        for clip in found:
            before = getattr(clip, self.list)
            wanted = getattr(self, "part", None)
            if wanted and all(part.id != wanted for part in before):
                continue
            known = True
            parts = change(before)
            if len(parts) > row.most:
                raise EditRefused(f"There are at most {row.most} {row.many}.")
            document = document.with_clip(clip.model_copy(update={self.list: parts}))
        if not known:
            raise NotThere(f"That {row.one.partition(' ')[2]} is not there any more.")
        return document


@edit_kinds.register("add_parts")
class AddParts(PartsEdit):
    """Masks, effects, strokes or inserts at the end of a clip's own; with ``instead`` in place of them.

    On several clips they get the same ids, so that they are set together.
    """

    kind: Literal["add_parts"] = "add_parts"
    parts: tuple[Part, ...] = Field(max_length=MOST_EFFECTS)
    instead: bool = False
    name: str = Field(default="", max_length=200)

    def label(self) -> str:
        if self.name:
            return f"Add “{self.name}”"
        kinds = ", ".join(_kind(part) for part in self.parts)
        return f"Add {kinds or 'nothing'} to {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        if not all(isinstance(part, self._row.kinds) for part in self.parts):
            raise EditRefused(f"That is not {self._row.one}.")
        new = with_fresh_ids(self.parts, self.seed)
        return self._changed(document, lambda parts: new if self.instead else (*parts, *new))


@edit_kinds.register("set_part")
class SetPart(PartsEdit):
    """Set fields of one part, by its id."""

    kind: Literal["set_part"] = "set_part"
    part: Id
    values: dict[str, Any]

    def label(self) -> str:
        words = ", ".join(sorted(name.replace("_", " ") for name in self.values))
        return f"Set {words} of {self._row.one}"

    def apply(self, document: Document) -> Document:
        def change(parts: Parts) -> Parts:
            return tuple(self._set(part) if part.id == self.part else part for part in parts)

        return self._changed(document, change)

    def _set(self, part: Model) -> Model:
        if {"kind", "id"} & set(self.values):
            raise EditRefused("A part keeps its kind.")
        return with_values(part, self.values)


@edit_kinds.register("remove_part")
class RemovePart(PartsEdit):
    kind: Literal["remove_part"] = "remove_part"
    part: Id

    def label(self) -> str:
        return f"Delete {self._row.one}"

    def apply(self, document: Document) -> Document:
        return self._changed(document, lambda parts: without_part(parts, self.part))


@edit_kinds.register("order_part")
class OrderPart(PartsEdit):
    """Move a part to another place in its row."""

    kind: Literal["order_part"] = "order_part"
    part: Id
    to: int = Field(ge=0)

    def label(self) -> str:
        return f"Order {self._row.many}"

    def apply(self, document: Document) -> Document:
        return self._changed(document, lambda parts: reordered(parts, self.part, self.to))

"""Keys that were copied, put onto other clips."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from kitecore.document import Document, Id, Model
from kitecore.document.ease import Ease
from kitecore.document.properties import Keys, Vector
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import adjusted, has, read
from kitecore.edits._relative import about
from kitecore.edits.keys import MOST_KEYS, PropertyPath
from kitecore.errors import EditRefused
from kitecore.model import Tick
from kitecore.motion import value_at
from kitecore.motion.axes import together


class CopiedKey(Model):
    """A key on its own; ``at`` counts from the first of all that were copied."""

    at: Tick
    value: Any
    ease: Ease | None = None
    before: Vector | None = None
    after: Vector | None = None


class CopiedKeys(Model):
    path: PropertyPath
    keys: tuple[CopiedKey, ...] = Field(min_length=1, max_length=MOST_KEYS)


@edit_kinds.register("paste_keys")
class PasteKeys(EditBase):
    """Copied keys at a tick of the timeline, onto every clip that has their properties.

    On a clip that begins later they begin with it; one that is over by then gets none. ``relative``:
    they go on from where each clip is, instead of from where they were copied.
    """

    kind: Literal["paste_keys"] = "paste_keys"
    clips: tuple[Id, ...] = Field(min_length=1)
    at: Tick
    copied: tuple[CopiedKeys, ...] = Field(min_length=1, max_length=200)
    relative: bool = False

    def label(self) -> str:
        number = sum(len(one.keys) for one in self.copied)
        return f"Paste {number} key{'s' if number > 1 else ''} onto {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        done, step = False, document.rate.exact.frame_ticks
        clips = [clip for _, clip in open_clips(document, self.clips)]
        there = [clip for clip in clips if self.at < clip.end]
        if not there:
            raise EditRefused(
                "What is in hand is over at the playhead.", todo="Move the playhead onto it."
            )
        for clip in there:
            begin = max(self.at - clip.start, 0)
            values = {
                one.path: self._pasted(one, together(read(clip, one.path), step), begin)
                for one in self.copied
                if has(clip, one.path)
            }
            done = done or bool(values)
            document = document.with_clip(adjusted(clip, values))
        if not done:
            raise EditRefused("What is in hand has none of the properties of these keys.")
        return document

    def _pasted(self, one: CopiedKeys, prop: Any, begin: int) -> dict[str, Any]:
        keys = one.keys
        if self.relative:
            first, now = keys[0].value, value_at(prop, begin + keys[0].at)
            values = (about(one.path, key.value, first, now) for key in keys)
            keys = tuple(
                key.model_copy(update={"value": value})
                for key, value in zip(keys, values, strict=True)
            )
        return with_copied(prop, keys, begin)


def with_copied(prop: Any, copied: tuple[CopiedKey, ...], begin: int) -> dict[str, Any]:
    """A property's keys as plain data, with copied ones put over them."""
    old = prop.keys if isinstance(prop, Keys) else ()
    by_time = {key.at: key.model_dump(mode="json") for key in old}
    for key in copied:
        by_time[begin + key.at] = key.model_dump(mode="json", exclude_none=True) | {
            "at": begin + key.at
        }
    return {"keys": [by_time[at] for at in sorted(by_time)]}

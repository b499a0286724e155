"""Motions from the Kit, fitted to the length of what they are put on."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, Model, Pictured
from kitecore.document.moves import Entrance, Meanwhile
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import adjusted, has, read
from kitecore.edits._relative import about
from kitecore.edits.copied_keys import CopiedKeys
from kitecore.errors import EditRefused
from kitecore.model import Length
from kitecore.motion import value_at


class KeptMotion(Model):
    """What moves a clip of a ``length``: keys, how it comes and goes, what goes on, its blur."""

    length: Length
    properties: tuple[CopiedKeys, ...] = Field(default=(), max_length=100)
    comes: Entrance | None = None
    goes: Entrance | None = None
    meanwhile: tuple[Meanwhile, ...] = Field(default=(), max_length=8)
    along: bool = False
    shutter: float = Field(default=0.0, ge=0, le=360)


@edit_kinds.register("apply_motion")
class ApplyMotion(EditBase):
    """Give clips a motion; its times are stretched to their lengths.

    ``relative``: it begins where they are, else where it was kept.
    """

    kind: Literal["apply_motion"] = "apply_motion"
    clips: tuple[Id, ...]
    motion: KeptMotion
    name: str = Field(default="", max_length=200)
    relative: bool = True

    def label(self) -> str:
        return f"Move {count(self.clips)} as “{self.name}”" if self.name else "Give a motion"

    def apply(self, document: Document) -> Document:
        step, done = document.rate.exact.frame_ticks, False
        for _, clip in open_clips(document, self.clips):
            if isinstance(clip, Pictured):
                done = True
                document = document.with_clip(self._moved(clip, step))
        if not done:
            raise EditRefused("What is in hand has no picture.", todo="Take a picture in hand.")
        return document

    def _moved(self, clip: Pictured, step: int) -> ClipBase:
        motion, factor = self.motion, clip.length / self.motion.length
        values = {
            one.path: {"keys": self._fitted(one, clip, factor, step)}
            for one in motion.properties
            if has(clip, one.path)
        }
        moves = clip.moves.model_copy(
            update={
                "comes": _stretched(motion.comes, factor, step),
                "goes": _stretched(motion.goes, factor, step),
                "meanwhile": motion.meanwhile,
                "along": motion.along,
                "shutter": motion.shutter,
            }
        )
        return adjusted(clip.model_copy(update={"moves": moves}), values)

    def _fitted(
        self, one: CopiedKeys, clip: Pictured, factor: float, step: int
    ) -> list[dict[str, Any]]:
        """Keys at times that fit the clip; ``relative``, about the value that it has there now."""
        first, now = one.keys[0].value, value_at(read(clip, one.path), 0)
        by_time: dict[int, dict[str, Any]] = {}
        for key in one.keys:
            at = round(key.at * factor / step) * step
            data = key.model_dump(mode="json", exclude_none=True) | {"at": at}
            if self.relative:
                data["value"] = about(one.path, key.value, first, now)
            by_time[at] = data
        return [by_time[at] for at in sorted(by_time)]


def _stretched(entrance: Entrance | None, factor: float, step: int) -> Entrance | None:
    if entrance is None:
        return None
    length = max(step, round(entrance.length * factor / step) * step)
    return entrance.model_copy(update={"length": length})

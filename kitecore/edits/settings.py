"""Chosen settings of one clip on others."""

from __future__ import annotations

from typing import Any, Final, Literal

from pydantic import Field

from kitecore.document import Clip, ClipBase, Document, Id, Paced, Pictured, Sounding
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import adjusted, read
from kitecore.edits.speed import Ramp, SetSpeed
from kitecore.errors import EditRefused

Group = Literal[
    "position",
    "size",
    "opacity",
    "blend",
    "clipping",
    "speed",
    "grade",
    "key",
    "masks",
    "effects",
    "moves",
    "sound",
]

_SIZE: Final = ("size", "turn", "lean", "pivot", "fit", "mirrored", "upside_down")
_SOUND: Final = (
    "gain",
    "pan",
    "pitch",
    "channels",
    "muted",
    "keep_pitch",
    "silent_below",
    "fade_in_shape",
    "fade_out_shape",
    "chain",
)
_FIELDS: Final[dict[str, tuple[type[ClipBase], tuple[str, ...]]]] = {
    "position": (Pictured, ("place/position",)),
    "size": (Pictured, tuple(f"place/{name}" for name in _SIZE)),
    "opacity": (Pictured, ("opacity",)),
    "blend": (Pictured, ("blend",)),
    "clipping": (Pictured, ("clipped",)),
    "grade": (Pictured, ("grade",)),
    "key": (Pictured, ("key",)),
    "masks": (Pictured, ("masks", "crop")),
    "effects": (Pictured, ("effects",)),
    "moves": (Pictured, ("moves", "warp")),
    "sound": (Sounding, _SOUND),
}
"""Of each group: the kinds of clip that have it, and the paths of what belongs to it."""


@edit_kinds.register("apply_settings")
class ApplySettings(EditBase):
    """Give clips the settings of ``source`` (which may come from another project), by groups.

    A clip that has no such settings stays as it is, as long as one of them has.
    """

    kind: Literal["apply_settings"] = "apply_settings"
    clips: tuple[Id, ...]
    source: Clip
    groups: tuple[Group, ...] = Field(min_length=1)

    def label(self) -> str:
        return f"Copy {', '.join(self.groups)} to {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        before = document
        for _, clip in open_clips(document, self.clips):
            given = self._given(clip)
            if given:
                document = document.with_clip(adjusted(clip, given))
        if "speed" in self.groups and isinstance(self.source, Paced):
            document = self._paced(document)
        if document is before:
            raise EditRefused("What is in hand has none of these settings.")
        return document

    def _given(self, clip: ClipBase) -> dict[str, Any]:
        given: dict[str, Any] = {}
        for group in self.groups:
            kind, names = _FIELDS.get(group, (Paced, ()))
            if names and isinstance(clip, kind) and isinstance(self.source, kind):
                given |= {name: read(self.source, name) for name in names}
        if isinstance(clip, Sounding) and "gain" in given:
            fades = (min(getattr(self.source, f"fade_{end}"), clip.length) for end in ("in", "out"))
            given["fade_in"], given["fade_out"] = fades
        return given

    def _paced(self, document: Document) -> Document:
        for _, clip in open_clips(document, self.clips):
            if isinstance(clip, Paced):
                document = self._run(clip.id).apply(document)
        return document

    def _run(self, clip: str) -> EditBase:
        assert isinstance(self.source, Paced)
        speed = self.source.speed
        if len(speed.points) == 1:
            return SetSpeed(clips=(clip,), factor=speed.points[0].speed)
        return Ramp(clip=clip, points=speed.points, soft=speed.soft)

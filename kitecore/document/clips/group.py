from __future__ import annotations

from typing import TYPE_CHECKING, Literal

from pydantic import Field

from kitecore.document.clips._base import Between, Paced, Pictured, Sounding, clip_kinds
from kitecore.document.properties import map_keys

if TYPE_CHECKING:
    from kitecore.document.track import Track

DEEPEST = 8
"""Groups within groups."""


@clip_kinds.register("group")
class GroupClip(Paced, Pictured, Sounding):
    """Several clips that behave as one; its tracks have a time of their own."""

    kind: Literal["group"] = "group"
    tracks: tuple["Track", ...] = Field(max_length=500)  # noqa: UP037
    between: Between = "nearest"

    @property
    def source_end(self) -> int:
        return max((track.end for track in self.tracks), default=0)

    @property
    def whole(self) -> bool:
        """Whether it shows all that is in it, as it is."""
        return self.source_in == 0 and self.speed.plain and self.length == self.source_end

    def with_keys_moved(self, by: int) -> GroupClip:
        # What is inside has a time of its own.
        return map_keys(self, lambda keys: keys.moved(by), but=frozenset({"tracks"}))

    def uses(self) -> frozenset[str]:
        return frozenset().union(*(c.uses() for track in self.tracks for c in track.clips))

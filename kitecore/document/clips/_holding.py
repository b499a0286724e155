from __future__ import annotations

from typing import TYPE_CHECKING, TypeVar

from pydantic import Field

from kitecore.document.canvas import Canvas
from kitecore.document.clips._base import Between, Paced, Pictured, Sounding
from kitecore.document.properties import map_keys

if TYPE_CHECKING:
    from kitecore.document.track import Track

H = TypeVar("H", bound="Holding")

DEEPEST = 8
"""Clips that hold tracks within each other."""


class Holding(Paced, Pictured, Sounding):
    """Holds tracks, which have a time of their own, and behaves as one clip.

    Its keys are of the timeline around it; those of what it holds are of its own.
    """

    tracks: tuple["Track", ...] = Field(max_length=500)  # noqa: UP037
    between: Between = "nearest"

    @property
    def own_canvas(self) -> Canvas | None:
        """What it is drawn on, where that is not what it lies on."""
        return None

    @property
    def source_end(self) -> int:
        return max((track.end for track in self.tracks), default=0)

    @property
    def whole(self) -> bool:
        """Whether it shows all that is in it, as it is."""
        return self.source_in == 0 and self.speed.plain and self.length == self.source_end

    def seen(self, low: int, high: int) -> tuple[Track, ...]:
        """The tracks that are drawn between two ticks of its own time."""
        return self.tracks

    def heard(self, low: int, high: int) -> tuple[Track, ...]:
        """The tracks that are mixed between two ticks of its own time."""
        return self.tracks

    def with_keys_moved(self: H, by: int) -> H:
        return map_keys(self, lambda keys: keys.moved(by), but=frozenset({"tracks"}))

    def uses(self) -> frozenset[str]:
        return frozenset().union(*(c.uses() for track in self.tracks for c in track.clips))

from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document.clips._base import Between, Retouchable, Sounding, Sourced, clip_kinds
from kitecore.document.cutouts import MovingCutOut
from kitecore.document.trackers import MOST_TRACKERS, Steadied, Tracker


@clip_kinds.register("video")
class VideoClip(Sourced, Retouchable, Sounding):
    """Moving picture, with its sound if it has one."""

    kind: Literal["video"] = "video"
    between: Between = "nearest"
    trackers: tuple[Tracker, ...] = Field(default=(), max_length=MOST_TRACKERS)
    steady: Steadied | None = None
    cutout: MovingCutOut | None = None

    def media_at(self, local: int) -> str:
        return self.media

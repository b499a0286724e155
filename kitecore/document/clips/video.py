from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Between, Pictured, Sounding, Sourced, clip_kinds


@clip_kinds.register("video")
class VideoClip(Sourced, Pictured, Sounding):
    """Moving picture, with its sound if it has one."""

    kind: Literal["video"] = "video"
    between: Between = "nearest"

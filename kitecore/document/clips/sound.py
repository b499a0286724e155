from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Sounding, Sourced, clip_kinds


@clip_kinds.register("sound")
class SoundClip(Sourced, Sounding):
    """Sound of a sound file, or of a video on its own."""

    kind: Literal["sound"] = "sound"

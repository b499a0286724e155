from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Retouchable, clip_kinds
from kitecore.document.references import TakeId


@clip_kinds.register("still")
class StillClip(Retouchable):
    """A picture that does not move; as long as one likes."""

    kind: Literal["still"] = "still"
    media: TakeId

    def media_at(self, local: int) -> str:
        return self.media

    def uses(self) -> frozenset[str]:
        return frozenset((self.media,))

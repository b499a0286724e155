from __future__ import annotations

from typing import Literal

from kitecore.document.clips._base import Pictured, clip_kinds
from kitecore.document.references import TakeId


@clip_kinds.register("still")
class StillClip(Pictured):
    """A picture that does not move; as long as one likes."""

    kind: Literal["still"] = "still"
    media: TakeId

    def uses(self) -> frozenset[str]:
        return frozenset((self.media,))

from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document.clips._base import Retouchable, clip_kinds
from kitecore.document.cutouts import MOST_PIECES, CutOut, Piece
from kitecore.document.references import TakeId


@clip_kinds.register("still")
class StillClip(Retouchable):
    """A picture that does not move; as long as one likes.

    Pieces that were ``taken_off`` are not seen, what lay behind them is filled; the ``cutout`` is all
    that is seen of the rest.
    """

    kind: Literal["still"] = "still"
    media: TakeId
    cutout: CutOut | None = None
    taken_off: tuple[Piece, ...] = Field(default=(), max_length=MOST_PIECES)

    def media_at(self, local: int) -> str:
        return self.media

    def uses(self) -> frozenset[str]:
        return frozenset((self.media,))

"""What is to be made, worked out: all that the makers of files need to know."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from kitecore.arrays import Size
from kitecore.document import Document
from kitecore.render.making.framing import Framing
from kitecore.ticks import Rate

Quality = Literal["small", "good", "best"]
Progress = Callable[[int], None]
"""Hears the number of each finished frame, and may raise to stop."""
Share = Callable[[float], None]
"""Hears how much is done, 0 to 1, and may raise to stop."""


def unheard(_: float) -> None:
    """For those who do not want to hear of it."""


@dataclass(frozen=True)
class Work:
    """A document on its way to a file.

    Attributes
    ----------
    rate, numbers
        Frames a second of the file, and the numbers of those to make, counted at that rate from the
        start of the timeline.
    framing
        How the canvas lies in the file's picture.
    clear
        Whether it stays see-through where nothing lies.
    crf
        How coarse an encoder may be, instead of what goes with ``quality``; None for that.
    captioned
        Whether captions go into a track of the file.
    cover
        The tick whose picture is the file's cover, if it has one.
    """

    document: Document
    rate: Rate
    numbers: range
    framing: Framing
    quality: Quality = "good"
    clear: bool = False
    crf: int | None = None
    captioned: bool = False
    cover: int | None = None

    @property
    def size(self) -> Size:
        return self.framing.size

    def own_number(self, number: int) -> int:
        """The project's frame that a frame of the file shows."""
        return self.document.rate.exact.frame_at(self.rate.start_of(number))

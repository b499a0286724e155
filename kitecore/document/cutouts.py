"""What is cut out of a still or a video: marks say what belongs to it, the program finds its edge."""

from __future__ import annotations

from typing import Final, Self

from pydantic import Field, model_validator

from kitecore.document.brushes import Brushed
from kitecore.document.properties import Number, Vector
from kitecore.document.views import require_within
from kitecore.model import Model, Name, Start, param

MOST_PIECES: Final = 24
"""Taken off one still."""
MOST_PERSONS: Final = 20
MOST_VIEWS: Final = 100


class CutStroke(Brushed):
    """Says what is kept, or, with ``drop``, what is not, or, with ``hair``, where the picture tells how much is."""

    softness: float = Field(default=0.0, ge=0, le=1)
    drop: bool = False
    hair: bool = False

    @property
    def keeps(self) -> bool:
        return not self.drop and not self.hair

    @model_validator(mode="after")
    def _one_of_them(self) -> Self:
        if self.drop and self.hair:
            raise ValueError("a stroke says one thing")
        return self


class Marks(Model):
    """What a person said of a picture. Coordinates are heights of the picture from its middle.

    ``around`` is a line about what is kept, closed by itself, or two opposite corners; what lies beyond is
    none of it. ``persons`` are places on persons that are kept whole, as they are found. Without a line,
    without a person and without strokes that keep nothing is found.
    """

    strokes: tuple[CutStroke, ...] = Field(default=(), max_length=400)
    around: tuple[Vector, ...] = Field(default=(), max_length=400)
    persons: tuple[Vector, ...] = Field(default=(), max_length=MOST_PERSONS)

    @property
    def finds(self) -> bool:
        """Whether anything is marked to be kept."""
        kept = any(one.keeps for one in self.strokes)
        return len(self.around) > 1 or bool(self.persons) or kept


class Cut(Marks):
    """What is found. ``edge`` is how far around the edge hair and soft parts are looked for."""

    edge: float = param(
        0.02, help="How wide hair and soft edges are", low=0, high=0.1, step=0.005, ge=0, le=0.2
    )

    @property
    def wanted(self) -> Cut:
        """That alone."""
        return Cut(**{name: getattr(self, name) for name in Cut.model_fields})


class Edged(Model):
    """How what was cut out is shown: without what lies around, or, with ``invert``, without itself.

    Lengths are heights of the picture. ``clean`` takes the colours of what lay behind out of soft
    edges.
    """

    on: bool = True
    invert: bool = False
    grow: Number = param(0.0, help="Larger or smaller", low=-0.05, high=0.05, step=0.001)
    soft: Number = param(0.0, help="Softer edge", low=0, high=0.1, step=0.001, ge=0, le=1)
    rest: Number = param(
        0.0, help="How much is left of what is not kept", low=0, high=1, step=0.05, ge=0, le=1
    )
    clean: Number = param(
        1.0,
        help="Takes colours of the ground out of the edge",
        low=0,
        high=1,
        step=0.05,
        ge=0,
        le=1,
    )


class CutOut(Edged, Cut):
    """What is cut out of a still."""

    @property
    def cuts(self) -> bool:
        return self.on and self.finds


class CutView(Marks):
    """What was marked on the frame at a tick of the file."""

    at: Start


class CutThrough(Model):
    """What is carried through a take: from the first view both ways, from each other one up to the next.

    ``first`` and ``last`` are ticks of the file.
    """

    views: tuple[CutView, ...] = Field(min_length=1, max_length=MOST_VIEWS)
    edge: float = Field(default=0.02, ge=0, le=0.2)
    first: Start
    last: Start

    @model_validator(mode="after")
    def _within(self) -> Self:
        require_within(self.views, self.first, self.last)
        return self

    @property
    def begins(self) -> CutView | None:
        """The earliest view by which anything is kept; none if nothing is."""
        return min((one for one in self.views if one.finds), key=lambda one: one.at, default=None)


class MovingCutOut(Edged):
    """What is cut out of a video: what is marked, and ``through``, as what of that was last found.

    Until it is found through the take the frames are cut out on which it is marked, no others.
    """

    views: tuple[CutView, ...] = Field(default=(), max_length=MOST_VIEWS)
    edge: float = param(
        0.02, help="How wide hair and soft edges are", low=0, high=0.1, step=0.005, ge=0, le=0.2
    )
    through: CutThrough | None = None

    @property
    def cuts(self) -> bool:
        return self.on and (self.through is not None or any(view.finds for view in self.views))


class Piece(Cut):
    """What was taken off a still: what lay behind it is filled from around."""

    name: Name = ""

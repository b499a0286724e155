"""What is cut out of a still: strokes say what belongs to it, the program finds its edge."""

from __future__ import annotations

from typing import Final

from pydantic import Field

from kitecore.document.brushes import Brushed
from kitecore.document.model import Model, Name, param
from kitecore.document.properties import Number, Vector

MOST_PIECES: Final = 24
"""Taken off one still."""


class CutStroke(Brushed):
    """Says what is kept, or, with ``drop``, what is not."""

    softness: float = Field(default=0.0, ge=0, le=1)
    drop: bool = False


class Cut(Model):
    """What is found. ``edge`` is how far around the edge hair and soft parts are looked for.

    ``around`` is a line about it, closed by itself, or two opposite corners; what lies beyond is none
    of it. Coordinates are heights of the picture from its middle. Without a line and without strokes
    that keep nothing is found.
    """

    strokes: tuple[CutStroke, ...] = Field(default=(), max_length=400)
    around: tuple[Vector, ...] = Field(default=(), max_length=400)
    edge: float = param(
        0.02, help="How wide hair and soft edges are", low=0, high=0.1, step=0.005, ge=0, le=0.2
    )

    @property
    def wanted(self) -> Cut:
        """That alone."""
        return Cut(strokes=self.strokes, around=self.around, edge=self.edge)

    @property
    def finds(self) -> bool:
        """Whether anything is marked to be kept."""
        return len(self.around) > 1 or any(not one.drop for one in self.strokes)


class CutOut(Cut):
    """A still without what lies around, or, with ``invert``, without what was marked.

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


class Piece(Cut):
    """What was taken off a still: what lay behind it is filled from around."""

    name: Name = ""

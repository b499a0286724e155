"""What is followed through a take. Where it is, is found by the analysis of that name.

Places count in heights of the picture, from its middle, right and down positive; times are ticks of
the file: so speed, trim, cuts and size of a clip change nothing.
"""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Final, Literal, Self

from pydantic import Field, field_validator, model_validator

from kitecore.document.properties import Vector
from kitecore.document.views import require_within
from kitecore.model import Id, Model, Name, Start, new_id, param

MOST_TRACKERS: Final = 24
"""Of one clip."""
MOST_VIEWS: Final = 200
MOST_SPOTS: Final = 8
LEAST_SPOTS: Final = {"moves": 1, "turns": 2, "leans": 4}
"""How many it takes to tell what may change."""

MOST_CLOSER: Final = 2.0
"""By how much a picture is made larger at most that is held steady."""

Taken = Literal["position", "turn", "size"]
Corners = tuple[Vector, Vector, Vector, Vector]
Share = Annotated[float, Field(ge=0, le=1)]


class View(Model):
    """Where the thing is at one moment, as a person said: corners in order around it, clockwise."""

    at: Start
    corners: Corners

    @field_validator("corners")
    @classmethod
    def _convex(cls, corners: Corners) -> Corners:
        sides = [(b[0] - a[0], b[1] - a[1]) for a, b in pairwise((*corners, *corners[:2]))]
        if any(a[0] * b[1] - a[1] * b[0] < 1e-7 for a, b in pairwise(sides)):
            raise ValueError("the corners of what is followed go around it, clockwise")
        return corners


class Tracked(Model):
    """``change`` is what may change of it: its place; that, size and turn; or all its corners.

    Each view is where it was seen to be: it is followed from there both ways, up to the next view,
    within ``first`` and ``last``. ``spots``, shares across and down within its corners, are what alone
    counts of it, if there are any: each is followed by itself. Of a ``face`` what is found there by
    itself counts, too, where it reaches farther.
    """

    change: Literal["moves", "turns", "leans"] = "turns"
    views: tuple[View, ...] = Field(min_length=1, max_length=MOST_VIEWS)
    first: Start
    last: Start
    # Left out where they say nothing: what was found before there were any keeps its name.
    spots: tuple[tuple[Share, Share], ...] = Field(
        default=(), max_length=MOST_SPOTS, exclude_if=lambda spots: not spots
    )
    face: bool = Field(default=False, exclude_if=lambda face: not face)

    @model_validator(mode="after")
    def _within(self) -> Self:
        require_within(self.views, self.first, self.last)
        if self.spots and len(set(self.spots)) < LEAST_SPOTS[self.change]:
            raise ValueError("there are too few spots to tell that from them")
        return self


class Tracker(Tracked):
    """``smooth`` are the seconds over which its ways are evened out. ``aside`` is how far from what is
    followed what goes along lies, right and down, in heights of the picture.

    Before ``begins`` and after ``ends``, ticks of the file, it stays where it is there.
    """

    id: Id = Field(default_factory=new_id)
    name: Name = ""
    smooth: float = param(0.0, help="Evens out what trembles", unit="s", low=0, high=2, step=0.05)
    begins: Start | None = None
    ends: Start | None = None
    aside: Vector = (0.0, 0.0)

    @property
    def counts(self) -> tuple[int, int]:
        """From when until when, in ticks of the file, its thing is followed."""
        begins = self.first if self.begins is None else max(self.begins, self.first)
        ends = self.last if self.ends is None else min(self.ends, self.last)
        return begins, ends

    @property
    def wanted(self) -> Tracked:
        """What has to be found for it."""
        return Tracked(
            change=self.change,
            views=self.views,
            first=self.first,
            last=self.last,
            spots=self.spots,
            face=self.face,
        )


class Steadied(Model):
    """A picture held so that what a tracker follows stays where it was at ``since``, a tick of the file.

    ``takes`` is what of its way is taken back; ``closer``: the picture is as much larger as keeps its
    edges out of sight, as far as `MOST_CLOSER` goes.
    """

    tracker: Id
    since: Start = 0
    takes: tuple[Taken, ...] = Field(default=("position", "turn", "size"), max_length=3)
    closer: bool = True

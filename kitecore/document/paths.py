"""Pen paths: contours of cubic Béziers, each point with its own two handles."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document.properties import Keys, Vector
from kitecore.model import Id, Model, Start

MOST_NODES = 4000


class Node(Model):
    """A point of a contour; its handles ``before`` and ``after`` count from it.

    ``join`` tells a bench how they go together: corner (none), smooth (in one line) or broken.

    Of a mask a point may go along by itself with a ``tracker`` of its clip, from where it is at
    ``since``, a tick of the file, whatever the rest of the mask does.
    """

    at: Vector
    before: Vector = (0.0, 0.0)
    after: Vector = (0.0, 0.0)
    join: Literal["corner", "smooth", "broken"] = "corner"
    tracker: Id | None = None
    since: Start = 0


class Contour(Model):
    nodes: tuple[Node, ...] = Field(min_length=1, max_length=MOST_NODES)
    closed: bool = True


Contours = Annotated[tuple[Contour, ...], Field(max_length=400)]


class PathKeys(Keys[Contours]):
    pass


Path = Contours | PathKeys


def polygon(points: tuple[Vector, ...], *, closed: bool = True) -> Contour:
    """Straight lines from point to point."""
    return Contour(nodes=tuple(Node(at=point) for point in points), closed=closed)

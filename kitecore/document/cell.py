"""Cells of a split screen: where on the canvas a layer is let through."""

from __future__ import annotations

import math
from itertools import accumulate
from typing import Annotated, Self

from pydantic import Field, model_validator

from kitecore.model import Id, Model, param

Corner = tuple[float, float]
Corners = tuple[Corner, ...]
MOST_CELLS = 9
Shares = Annotated[tuple[Annotated[float, Field(gt=0, le=1000)], ...], Field(max_length=MOST_CELLS)]


class Cell(Model):
    """One cell of a layout. All cells of one split screen share all but ``place``.

    ``rows`` tells how many cells stand in each row, from the top (in each column, from the left,
    with ``upright``). ``row_shares`` are how much of the room each row has, ``cell_shares`` how much
    of its row each cell has, both in any measure; without any, all have the same. Lengths are canvas
    pixels, ``slant`` is the angle in degrees of the lines between cells of a row, or between rows of
    one cell each.
    """

    screen: Id
    rows: tuple[Annotated[int, Field(ge=1, le=MOST_CELLS)], ...] = Field(
        min_length=1, max_length=MOST_CELLS
    )
    upright: bool = False
    row_shares: Shares = ()
    cell_shares: tuple[Shares, ...] = Field(default=(), max_length=MOST_CELLS)
    place: int = Field(ge=0, lt=MOST_CELLS)
    gap: float = param(12.0, help="Gap between cells", unit="px", low=0, high=120, step=1)
    margin: float = param(0.0, help="Margin around all", unit="px", low=0, high=200, step=1)
    radius: float = param(0.0, help="Round corners", unit="px", low=0, high=300, step=1)
    slant: float = param(0.0, help="Slant of the lines", unit="°", low=-45, high=45, step=0.5)

    @model_validator(mode="after")
    def _fits(self) -> Self:
        if not 2 <= sum(self.rows) <= MOST_CELLS:
            raise ValueError(f"a split screen has from 2 to {MOST_CELLS} cells")
        if self.place >= sum(self.rows):
            raise ValueError("there is no such cell in this layout")
        if self.row_shares and len(self.row_shares) != len(self.rows):
            raise ValueError("each row has one share of the height, or none has")
        if self.cell_shares and tuple(map(len, self.cell_shares)) != self.rows:
            raise ValueError("each cell has one share of its row, or none has")
        if not (abs(self.slant) <= 60 and self.gap >= 0 and self.margin >= 0 and self.radius >= 0):
            raise ValueError("slant is at most 60°, gap, margin and radius are not negative")
        return self

    def corners(self, width: float, height: float, under: float = 0.0) -> Corners:
        """Of the convex shape, clockwise (y points down), in canvas pixels from its corner.

        Three to six; none if the lines between cells leave nothing of it.

        Parameters
        ----------
        width, height
            Of the canvas, in pixels.
        under
            How far it reaches under the cells after it, where no gap is between them: of two soft
            edges on one line a seam would be left.
        """
        if self.slant and len(self.rows) > 1 and max(self.rows) == 1:
            # Of cells one above the other the lines between them lean.
            as_row = {
                "rows": (len(self.rows),),
                "cell_shares": (self.row_shares,) if self.row_shares else (),
                "row_shares": (),
                "upright": not self.upright,
            }
            return self.model_copy(update=as_row).corners(width, height, under)
        if self.upright:
            lying = self.model_copy(update={"upright": False})
            return tuple((y, x) for x, y in reversed(lying.corners(height, width, under)))
        under = 0.0 if self.gap else under
        row, column = self.row_and_column
        room = height - 2 * self.margin - self.gap * (len(self.rows) - 1)
        borders = _borders(self.row_shares, len(self.rows))
        top = self.margin + room * borders[row] + row * self.gap
        deep = room * (borders[row + 1] - borders[row])
        left, right = self.margin, width - self.margin
        bottom = top + deep + (under if row + 1 < len(self.rows) else 0.0)
        shape: Corners = ((left, top), (right, top), (right, bottom), (left, bottom))
        lean = math.tan(math.radians(self.slant))
        half_gap, under = (
            one / math.cos(math.radians(self.slant)) for one in (self.gap / 2, under)
        )
        many = self.rows[row]
        borders = _borders(self.cell_shares[row] if self.cell_shares else (), many)
        room = right - left - self.gap * (many - 1)
        for line, side, more in ((column, 1.0, 0.0), (column + 1, -1.0, under)):
            if 0 < line < many:
                middle = left + room * borders[line] + self.gap * (line - 0.5)
                at = middle + side * half_gap + more
                # Kept is what lies on this cell's side of x + lean * y = at + lean * middle.
                border = at + lean * (top + deep / 2)
                shape = clipped(shape, -side, -side * lean, -side * border)
        return shape

    @property
    def row_and_column(self) -> tuple[int, int]:
        """Its row, from the top (its column, with ``upright``), and its place in that."""
        left = self.place
        for row, many in enumerate(self.rows):
            if left < many:
                return row, left
            left -= many
        raise AssertionError("the validator keeps places inside")

    def box(self, width: float, height: float) -> tuple[float, float, float, float]:
        """Left, top, width and height of the rectangle around the cell."""
        corners = self.corners(width, height) or ((0.0, 0.0),)
        xs, ys = [x for x, _ in corners], [y for _, y in corners]
        return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)


def _borders(shares: Shares, count: int) -> list[float]:
    """From 0 to 1, where each of ``count`` parts begins and the last one ends."""
    whole = sum(shares or (1.0,) * count)
    return [0.0, *(one / whole for one in accumulate(shares or (1.0,) * count))]


def clipped(shape: Corners, a: float, b: float, most: float) -> Corners:
    """The part of a convex shape where ``a * x + b * y <= most`` (Sutherland, Hodgman 1974)."""
    kept: list[Corner] = []
    for index, (x, y) in enumerate(shape):
        px, py = shape[index - 1]
        before, here = a * px + b * py - most, a * x + b * y - most
        if (before <= 0) != (here <= 0):
            share = before / (before - here)
            kept.append((px + (x - px) * share, py + (y - py) * share))
        if here <= 0:
            kept.append((x, y))
    apart = [c for i, c in enumerate(kept) if math.dist(c, kept[i - 1]) > 1e-6]
    return tuple(apart) if len(apart) > 2 else ()

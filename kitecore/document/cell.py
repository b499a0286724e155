"""Cells of a split screen: where on the canvas a layer is let through."""

from __future__ import annotations

import math
from typing import Annotated, Self

from pydantic import Field, model_validator

from kitecore.document.model import Id, Model, param

Corner = tuple[float, float]
Corners = tuple[Corner, Corner, Corner, Corner]
MOST_CELLS = 9


class Cell(Model):
    """One cell of a layout. All cells of one split screen share all but ``place``.

    ``rows`` tells how many cells stand in each row, from the top (in each column, from the left,
    with ``upright``). Lengths are canvas pixels, ``slant`` is the angle of the lines between cells
    of a row, in degrees.
    """

    screen: Id
    rows: tuple[Annotated[int, Field(ge=1, le=MOST_CELLS)], ...] = Field(
        min_length=1, max_length=MOST_CELLS
    )
    upright: bool = False
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
        if not (abs(self.slant) <= 60 and self.gap >= 0 and self.margin >= 0 and self.radius >= 0):
            raise ValueError("slant is at most 60°, gap, margin and radius are not negative")
        return self

    def corners(self, width: float, height: float) -> Corners:
        """Top left, top right, bottom right, bottom left, in canvas pixels from its corner.

        Parameters
        ----------
        width, height
            Of the canvas, in pixels.
        """
        if self.upright:
            turned = self.model_copy(update={"upright": False})
            a, b, c, d = turned.corners(height, width)
            return tuple((y, x) for x, y in (a, d, c, b))  # type: ignore[return-value]
        row, column = self._row_and_column()
        inner_width, inner_height = width - 2 * self.margin, height - 2 * self.margin
        deep = (inner_height - self.gap * (len(self.rows) - 1)) / len(self.rows)
        top = self.margin + row * (deep + self.gap)
        many = self.rows[row]
        across = math.tan(math.radians(self.slant)) * deep / 2
        half_gap = self.gap / 2 / math.cos(math.radians(self.slant))

        def edge(line: int) -> tuple[float, float]:
            """The dividing line at the top and at the bottom of the row."""
            if line in (0, many):
                x = self.margin if line == 0 else width - self.margin
                return x, x
            x = self.margin + inner_width * line / many
            side = half_gap if line == column else -half_gap
            return x + across + side, x - across + side

        (left_top, left_bottom), (right_top, right_bottom) = edge(column), edge(column + 1)
        bottom = top + deep
        return ((left_top, top), (right_top, top), (right_bottom, bottom), (left_bottom, bottom))

    def _row_and_column(self) -> tuple[int, int]:
        left = self.place
        for row, many in enumerate(self.rows):
            if left < many:
                return row, left
            left -= many
        raise AssertionError("the validator keeps places inside")

    def box(self, width: float, height: float) -> tuple[float, float, float, float]:
        """Left, top, width and height of the rectangle around the cell."""
        corners = self.corners(width, height)
        xs, ys = [x for x, _ in corners], [y for _, y in corners]
        return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)

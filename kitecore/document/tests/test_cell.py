"""Cells of a split screen share the canvas between them, whatever the layout."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from kitecore.document import Cell
from kitecore.picture.cells import cell_mask

layouts = st.lists(st.integers(1, 3), min_size=1, max_size=3).filter(lambda rows: sum(rows) >= 2)


def area(corners: tuple[tuple[float, float], ...]) -> float:
    """By the shoelace formula, positive clockwise as y points down."""
    points = np.array(corners)
    x, y = points[:, 0], points[:, 1]
    return float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y) / 2)


def cells(rows: list[int], **more: object) -> list[Cell]:
    return [Cell(screen="s", rows=tuple(rows), place=n, **more) for n in range(sum(rows))]


parts = st.floats(0.5, 4)


class CellTest(TestCase):
    @given(layouts, st.booleans(), st.floats(-30, 30), st.data())
    def test_without_gaps_they_cover_all_of_the_canvas(
        self, rows: list[int], upright: bool, slant: float, data: st.DataObject
    ) -> None:
        some = data.draw(st.booleans())
        shares = {
            "row_shares": [data.draw(parts) for _ in rows] if some else [],
            "cell_shares": [[data.draw(parts) for _ in range(n)] for n in rows] if some else [],
        }
        made = cells(rows, gap=0, upright=upright, slant=slant, **shares)
        areas = [area(cell.corners(1080, 1920)) for cell in made]
        self.assertAlmostEqual(1080 * 1920, sum(areas), places=3)

    @given(layouts, st.booleans(), st.floats(-30, 30), st.floats(0, 40), st.floats(0, 60))
    def test_gaps_and_margins_are_as_wide_as_they_say(
        self, rows: list[int], upright: bool, slant: float, gap: float, margin: float
    ) -> None:
        for cell in cells(rows, gap=gap, margin=margin, upright=upright, slant=slant):
            xs, ys = zip(*cell.corners(1080, 1920), strict=True)
            self.assertGreaterEqual(min(*xs, *ys), margin - 1e-6)
            self.assertLessEqual(max(xs), 1080 - margin + 1e-6)
            self.assertLessEqual(max(ys), 1920 - margin + 1e-6)

    def test_the_gap_is_measured_across_the_slanted_line(self) -> None:
        left, right = cells([2], gap=20, slant=30)
        one = np.array([c for c in left.corners(400, 300) if c[0] > 1])
        other = np.array([c for c in right.corners(400, 300) if c[0] < 399])
        along = one[1] - one[0]
        normal = np.array([-along[1], along[0]]) / np.hypot(*along)
        for corner in other:
            self.assertAlmostEqual(20, abs(float((corner - one[0]) @ normal)), places=6)

    def test_shares_are_those_of_the_room_without_gaps(self) -> None:
        some = {"gap": 20, "margin": 10, "row_shares": [3, 1], "cell_shares": [[1, 4], [1]]}
        boxes = [cell.box(420, 240) for cell in cells([2, 1], **some)]
        lefts = [[round(one, 6) for one in box] for box in boxes]
        self.assertEqual([[10, 10, 76, 150], [106, 10, 304, 150], [10, 180, 400, 50]], lefts)
        with self.assertRaisesRegex(ValidationError, "one share of its row"):
            cells([2, 1], cell_shares=[[1, 4]])

    def test_cells_of_a_row_are_equally_wide(self) -> None:
        widths = [cell.box(400, 300)[2] for cell in cells([3], gap=20)]
        self.assertEqual([120.0] * 3, [round(width, 6) for width in widths])

    def test_the_line_between_stacked_cells_leans_too(self) -> None:
        upper, lower = cells([1, 1], gap=0, slant=20)
        line = sorted(set(upper.corners(400, 300)) & set(lower.corners(400, 300)))
        (x1, y1), (x2, y2) = line
        self.assertEqual((0, 400), (x1, x2))
        self.assertAlmostEqual(np.tan(np.radians(20)), abs(y2 - y1) / 400)
        still = cells([1, 1], gap=0, slant=0)[0].corners(400, 300)
        self.assertEqual({(0, 0), (400, 0), (400, 150), (0, 150)}, set(still))

    @given(layouts, st.floats(-60, 60), st.floats(0, 40))
    def test_shapes_are_convex_and_go_clockwise(
        self, rows: list[int], slant: float, gap: float
    ) -> None:
        for cell in cells(rows, gap=gap, slant=slant):
            corners = np.array(cell.corners(300, 900)).reshape(-1, 2)
            edges = np.roll(corners, -1, axis=0) - corners
            turns = edges[:, 0] * np.roll(edges, -1, axis=0)[:, 1]
            turns -= edges[:, 1] * np.roll(edges, -1, axis=0)[:, 0]
            self.assertTrue((turns > -1e-6).all())

    @given(layouts, st.floats(0, 30))
    def test_no_pixel_is_shown_twice(self, rows: list[int], radius: float) -> None:
        total = np.zeros((64, 48))
        for cell in cells(rows, gap=2, radius=radius):
            total += cell_mask(np.array(cell.corners(48, 64)), radius, 48, 64)
        self.assertLessEqual(total.max(), 256)

    def test_nonsense_is_refused(self) -> None:
        for wrong in ({"rows": (1,)}, {"rows": (5, 5)}, {"place": 2}, {"slant": 80}, {"gap": -1}):
            fields = {"screen": "s", "rows": (2,), "place": 0} | wrong
            with self.assertRaises(ValidationError, msg=str(wrong)):
                Cell(**fields)

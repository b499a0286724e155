"""Masks from pen paths and brushes against distances worked out point by point."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from skimage.draw import polygon as filled

from kitecore.document.masks import BrushMask, BrushStroke, EllipseMask, PathMask
from kitecore.document.outlines import outline_of
from kitecore.document.paths import polygon
from kitecore.document.shapes import EllipseForm
from kitecore.picture.masks import coverage
from kitecore.picture.outline import Grid, signed_distance

CORNERS = ((-0.31, -0.22), (0.28, -0.3), (0.1, 0.05), (0.33, 0.36), (-0.25, 0.29))
GRID = Grid(200, 160, 1.25)
PIXEL = 1 / 160


def true_distance(corners: np.ndarray) -> np.ndarray:
    """Signed distance to a polygon, negative inside, for every pixel of the grid."""
    x, y = np.broadcast_arrays(GRID.x, GRID.y)
    away = np.full(x.shape, np.inf)
    inside = np.zeros(x.shape, bool)
    for (ax, ay), (bx, by) in zip(corners, np.roll(corners, -1, axis=0), strict=True):
        ex, ey = bx - ax, by - ay
        along = np.clip(((x - ax) * ex + (y - ay) * ey) / (ex * ex + ey * ey), 0, 1)
        away = np.minimum(away, np.hypot(x - ax - along * ex, y - ay - along * ey))
        crosses = (ay > y) != (by > y)
        inside ^= crosses & (x < (bx - ax) * (y - ay) / (by - ay + 1e-12) + ax)
    return np.where(inside, -away, away)


class PathMaskTest(TestCase):
    def test_distance_is_right_to_a_pixel_or_so(self) -> None:
        found = signed_distance((polygon(CORNERS),), (0, 0), 0, GRID)
        off = np.abs(found - true_distance(np.array(CORNERS)))
        self.assertLess(off.max(), 1.25 * PIXEL)
        self.assertLess(off.mean(), 0.35 * PIXEL)

    def test_a_moved_and_turned_mask_is_the_path_moved_and_turned(self) -> None:
        angle = np.radians(30)
        turn = np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]])
        moved = np.array(CORNERS) @ turn.T + (0.1, -0.05)
        found = signed_distance((polygon(CORNERS),), (0.1, -0.05), 30, GRID)
        self.assertLess(np.abs(found - true_distance(moved)).max(), 1.25 * PIXEL)

    def test_a_hard_edge_covers_what_geometry_covers(self) -> None:
        mask = coverage((PathMask(contours=(polygon(CORNERS),)),), 200, 160, 1.25)
        times = 8
        large = np.zeros((160 * times, 200 * times))
        points = np.array(CORNERS)
        rows = (points[:, 1] + 0.5) * 160 * times - 0.5
        columns = (points[:, 0] / 1.25 + 0.5) * 200 * times - 0.5
        large[filled(rows, columns, large.shape)] = 1
        wanted = large.reshape(160, times, 200, times).mean(axis=(1, 3))
        self.assertLess(np.abs(mask / 255 - wanted).max(), 0.12)

    def test_an_ellipse_drawn_in_pens_is_the_ellipse(self) -> None:
        contours = outline_of(EllipseForm(size=(0.6, 0.4)))
        soft = {"inwards": 0.04, "outwards": 0.06}
        drawn = coverage((PathMask(contours=contours, **soft),), 200, 160, 1.25)
        wanted = coverage((EllipseMask(size=(0.3, 0.2), **soft),), 200, 160, 1.25)
        self.assertLess(np.abs(drawn.astype(int) - wanted).max(), 16)

    def test_an_empty_path_shows_nothing(self) -> None:
        self.assertEqual(0, coverage((PathMask(),), 20, 20, 1).max())


class BrushTest(TestCase):
    def test_a_hard_stroke_covers_what_lies_within_half_its_width(self) -> None:
        stroke = BrushStroke(points=((-0.3, 0.1), (0.25, -0.2)), width=0.12, softness=0)
        mask = coverage((BrushMask(strokes=(stroke,)),), 200, 160, 1.25) / 255
        (ax, ay), (bx, by) = stroke.points
        ex, ey = bx - ax, by - ay
        x, y = np.broadcast_arrays(GRID.x, GRID.y)
        along = np.clip(((x - ax) * ex + (y - ay) * ey) / (ex * ex + ey * ey), 0, 1)
        away = np.hypot(x - ax - along * ex, y - ay - along * ey)
        wanted = np.clip((0.06 - away) / PIXEL + 0.5, 0, 1)
        self.assertLess(np.abs(mask - wanted).mean(), 0.004)
        self.assertTrue((mask[away < 0.05] > 0.99).all())
        self.assertTrue((mask[away > 0.07] < 0.01).all())

    def test_a_pressed_stroke_covers_discs_that_grow_along_it(self) -> None:
        line = {"points": ((-0.3, 0.1), (0.0, -0.1), (0.25, 0.15)), "width": 0.3, "softness": 0}
        stroke = BrushStroke(**line, pressures=(0.1, 0.5, 1.0))
        mask = coverage((BrushMask(strokes=(stroke,)),), 200, 160, 1.25) / 255
        x, y = np.broadcast_arrays(GRID.x, GRID.y)
        away = np.full(x.shape, np.inf)
        for index in range(2):
            (ax, ay), (bx, by) = stroke.points[index : index + 2]
            thin, thick = stroke.pressures[index : index + 2]
            for share in np.linspace(0, 1, 400):
                radius = 0.15 * (thin + (thick - thin) * share)
                cx, cy = ax + (bx - ax) * share, ay + (by - ay) * share
                away = np.minimum(away, np.hypot(x - cx, y - cy) - radius)
        wanted = np.clip(0.5 - away / PIXEL, 0, 1)
        self.assertLess(np.abs(mask - wanted).mean(), 0.004)
        self.assertTrue((mask[away < -0.01] > 0.99).all())
        self.assertTrue((mask[away > 0.01] < 0.01).all())

    def test_a_pen_that_is_pressed_evenly_draws_what_a_finger_does(self) -> None:
        line = {"points": ((-0.3, 0.1), (0.1, -0.1), (0.1, 0.2)), "width": 0.1, "softness": 0.4}
        finger = coverage((BrushMask(strokes=(BrushStroke(**line),)),), 200, 160, 1.25)
        pen = BrushStroke(**line, pressures=(1, 1, 1))
        drawn = coverage((BrushMask(strokes=(pen,)),), 200, 160, 1.25)
        self.assertLess(np.abs(drawn.astype(int) - finger).max(), 16)

    def test_a_soft_stroke_falls_off_evenly_around_its_edge(self) -> None:
        dab = BrushStroke(points=((0.0, 0.0),), width=0.4, softness=0.5)
        row = coverage((BrushMask(strokes=(dab,)),), 200, 160, 1.25)[80, 100:].astype(int)
        self.assertTrue((np.diff(row) <= 0).all())
        self.assertGreater(row[0], 250)
        self.assertEqual(0, row[60])
        self.assertTrue(20 < row[round(0.2 / PIXEL * 0.75)] < 235)

    def test_strokes_add_and_wipe_in_their_order(self) -> None:
        dab = BrushStroke(points=((0.0, 0.0),), width=0.3, softness=0)
        wipe = dab.model_copy(update={"erase": True, "width": 0.1})
        ring = coverage((BrushMask(strokes=(dab, wipe)),), 200, 160, 1.25)
        self.assertEqual((0, 255), (ring[80, 100], ring[80, 118]))
        whole = coverage((BrushMask(strokes=(wipe, dab)),), 200, 160, 1.25)
        self.assertEqual(255, whole[80, 100])

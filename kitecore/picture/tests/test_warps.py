from unittest import TestCase

import cv2
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.interpolate import CubicHermiteSpline

from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.picture.warps.drawing import on_mesh
from kitecore.picture.warps.grid import Sheet, bent_grid, grid_lines, grid_mesh
from kitecore.picture.warps.mesh import Mesh, Points, outline_mesh
from kitecore.picture.warps.rigid import RigidMesh, moved_least_squares

ASPECT = 0.5
RESTS = np.array([[0.0, -0.4], [0.02, 0.0], [0.0, 0.4]])


def ribbon() -> Rgba:
    """An upright ellipse with stripes: 120 × 240 pixels."""
    pixels = np.zeros((240, 120, 4), np.uint8)
    cv2.ellipse(pixels, (60, 120), (26, 110), 0, 0, 360, (200, 120, 40, 255), -1)
    for row in range(0, 240, 16):
        pixels[row : row + 6, :, :3] //= 2
    return pixels


def signed_areas(mesh: Mesh, points: Points) -> Points:
    a, b, c = (points[mesh.triangles[:, i]] for i in range(3))
    (x, y), (u, v) = (b - a).T, (c - a).T
    return np.asarray((x * v - y * u) / 2)


MESH = outline_mesh(ribbon()[..., 3], ASPECT, RESTS)
small = st.floats(-0.04, 0.04)


class MeshTest(TestCase):
    def test_it_covers_what_is_seen_and_little_more(self) -> None:
        drawn = on_mesh(
            Layer(np.full((240, 120, 4), 255, np.uint8), moved(0, 0)), MESH, MESH.points, ASPECT
        )
        x, y = (int(-shift) for shift in drawn.matrix[:2, 2])
        cover = np.zeros((240, 120), bool)
        part = drawn.pixels[max(y, 0) :, max(x, 0) :, 3] > 0
        high, wide = min(240, part.shape[0]), min(120, part.shape[1])
        cover[-min(y, 0) : -min(y, 0) + high, -min(x, 0) : -min(x, 0) + wide] = part[
            : 240 + min(y, 0), : 120 + min(x, 0)
        ]
        seen = ribbon()[..., 3] > 0
        self.assertTrue(cover[seen].all())
        self.assertLess(cover.sum(), 1.5 * seen.sum())

    def test_what_was_asked_for_comes_first_and_triangles_wind_one_way(self) -> None:
        np.testing.assert_allclose(RESTS, MESH.points[:3])
        self.assertGreater(signed_areas(MESH, MESH.points).min(), 0)
        self.assertTrue(100 < len(MESH.points) < 500)

    def test_a_picture_of_nothing_has_a_mesh_about_its_pins_only(self) -> None:
        mesh = outline_mesh(np.zeros((50, 50), np.uint8), 1.0, np.array([[0.0, 0.0]]))
        RigidMesh(mesh, 1, 0.0).bent(np.array([[0.1, 0.1]]))


class PinsTest(TestCase):
    def test_at_rest_nothing_changes(self) -> None:
        np.testing.assert_array_equal(MESH.points, RigidMesh(MESH, 3, 0.5).bent(RESTS))

    @given(st.lists(st.tuples(small, small), min_size=3, max_size=3), st.floats(0, 1))
    @settings(max_examples=25)
    def test_pins_land_exactly_and_nothing_folds(
        self, by: list[tuple[float, float]], stiffness: float
    ) -> None:
        targets = RESTS + np.array(by)
        bent = RigidMesh(MESH, 3, stiffness).bent(targets)
        np.testing.assert_allclose(targets, bent[:3], atol=1e-9)
        self.assertGreater(signed_areas(MESH, bent).min(), 0)

    @given(st.floats(-170, 170), st.floats(-0.5, 0.5), st.floats(-0.5, 0.5))
    @settings(max_examples=25)
    def test_a_rigid_motion_of_all_pins_is_one_of_the_sheet(
        self, degrees: float, x: float, y: float
    ) -> None:
        cos, sin = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
        turn = np.array([[cos, sin], [-sin, cos]])
        bent = RigidMesh(MESH, 3, 0.3).bent(RESTS @ turn + (x, y))
        np.testing.assert_allclose(MESH.points @ turn + (x, y), bent, atol=1e-6)

    def test_bending_keeps_areas_better_than_moving_alone(self) -> None:
        targets = RESTS + np.array([[0.15, 0.02], [0.0, 0.0], [-0.15, -0.03]])
        areas = signed_areas(MESH, MESH.points)

        def strain(points: Points) -> float:
            return float(np.abs(signed_areas(MESH, points) / areas - 1).mean())

        settled = strain(RigidMesh(MESH, 3, 0.0).bent(targets))
        self.assertLess(settled, 0.1)
        self.assertLess(settled, strain(moved_least_squares(RESTS, targets, MESH.points)))

    def test_stiffness_spreads_a_bend(self) -> None:
        """Two pins near each other, one turned about: how far its turn is seen."""
        rests = np.array([[0.0, 0.42], [0.0, 0.3], [0.0, -0.4]])
        mesh = outline_mesh(ribbon()[..., 3], ASPECT, rests)
        targets = rests + np.array([[0.09, -0.03], [0, 0], [0, 0]])
        soft, stiff = (RigidMesh(mesh, 3, s).bent(targets) for s in (0.0, 1.0))
        above = np.abs(mesh.points[:, 1] - 0.1) < 0.08
        far = [np.abs(points - mesh.points)[above].mean() for points in (soft, stiff)]
        self.assertGreater(far[1], 1.2 * far[0])

    def test_a_piece_without_a_pin_stays(self) -> None:
        alpha = np.zeros((100, 100), np.uint8)
        alpha[10:90, 5:35] = alpha[10:90, 65:95] = 255
        rests = np.array([[-0.3, 0.0], [-0.3, 0.3]])
        mesh = outline_mesh(alpha, 1.0, rests)
        bent = RigidMesh(mesh, 2, 0.0).bent(rests + np.array([0.1, 0.0]))
        right = mesh.points[:, 0] > 0.1
        np.testing.assert_array_equal(mesh.points[right], bent[right])
        np.testing.assert_allclose(mesh.points[~right] + (0.1, 0), bent[~right], atol=1e-9)


class GridTest(TestCase):
    def test_at_rest_and_moved_as_a_whole(self) -> None:
        rest = grid_mesh(Sheet(3, 2, 1.5)).points
        np.testing.assert_allclose(rest, bent_grid(np.zeros((12, 2)), Sheet(3, 2, 1.5)))
        corners = np.stack(
            np.meshgrid(np.linspace(-0.75, 0.75, 4), np.linspace(-0.5, 0.5, 3)), axis=-1
        ).reshape(-1, 2)
        shear = np.array([[1.2, 0.1], [-0.3, 0.9]])
        offsets = corners @ shear + (0.2, -0.1) - corners
        np.testing.assert_allclose(
            rest @ shear + (0.2, -0.1), bent_grid(offsets, Sheet(3, 2, 1.5)), atol=1e-12
        )

    def test_the_sheet_goes_through_every_point(self) -> None:
        chance = np.random.default_rng(3)
        offsets = chance.uniform(-0.1, 0.1, (20, 2))
        bent = bent_grid(offsets, Sheet(4, 3, 1.0))
        rest = grid_mesh(Sheet(4, 3, 1.0)).points
        lines = np.unique(grid_lines(Sheet(4, 3, 1.0)))
        self.assertLess(len(lines), len(rest))
        for row in range(4):
            for column in range(5):
                spot = np.array([column / 4 - 0.5, row / 3 - 0.5])
                index = int(np.hypot(*(rest - spot).T).argmin())
                np.testing.assert_allclose(
                    spot + offsets[row * 5 + column], bent[index], atol=1e-12
                )

    def test_over_an_area_it_bends_that_and_what_is_beside_goes_along(self) -> None:
        chance = np.random.default_rng(5)
        offsets = chance.uniform(-0.05, 0.05, (9, 2))
        sheet = Sheet(2, 2, 1.5, (-0.3, -0.2, 0.1, 0.5))
        rest, bent = grid_mesh(sheet).points, bent_grid(offsets, sheet)
        self.assertEqual((-0.75, 0.75), (rest[:, 0].min(), rest[:, 0].max()))
        self.assertEqual((-0.5, 0.5), (rest[:, 1].min(), rest[:, 1].max()))
        for row, y in enumerate((-0.2, 0.15, 0.5)):
            for column, x in enumerate((-0.3, -0.1, 0.1)):
                index = int(np.hypot(*(rest - (x, y)).T).argmin())
                moved = bent[index] - rest[index]
                np.testing.assert_allclose(offsets[row * 3 + column], moved, atol=1e-12)
        aside = int(np.hypot(*(rest - (0.75, 0.5)).T).argmin())
        np.testing.assert_allclose(offsets[8], bent[aside] - rest[aside], atol=1e-12)
        drawn = rest[np.unique(grid_lines(sheet))]
        self.assertAlmostEqual(-0.3, drawn[:, 0].min())
        self.assertAlmostEqual(0.1, drawn[:, 0].max())
        self.assertAlmostEqual(-0.2, drawn[:, 1].min())

    def test_between_them_it_is_a_cubic_spline_with_the_slopes_of_catmull_and_rom(self) -> None:
        heights = np.array([0.0, 0.05, -0.03, 0.08, 0.02])
        offsets = np.zeros((10, 2))
        offsets[:5, 1] = offsets[5:, 1] = heights
        bent, rest = bent_grid(offsets, Sheet(4, 1, 1.0)), grid_mesh(Sheet(4, 1, 1.0)).points
        wide = np.concatenate(
            [[2 * heights[0] - heights[1]], heights, [2 * heights[4] - heights[3]]]
        )
        slopes = (wide[2:] - wide[:-2]) / 2 * 4
        spline = CubicHermiteSpline(np.linspace(-0.5, 0.5, 5), heights, slopes)
        np.testing.assert_allclose(spline(rest[:, 0]), (bent - rest)[:, 1], atol=1e-12)


class DrawingTest(TestCase):
    def test_a_mesh_at_rest_gives_the_picture_back(self) -> None:
        chance = np.random.default_rng(1)
        pixels = chance.integers(0, 256, (33, 47, 4), np.uint8)
        mesh = grid_mesh(Sheet(3, 3, 47 / 33))
        drawn = on_mesh(Layer(pixels, moved(3, 4)), mesh, mesh.points, 47 / 33)
        x, y = np.rint(np.array([3, 4]) - drawn.matrix[:2, 2]).astype(int)
        np.testing.assert_array_equal(pixels, drawn.pixels[y : y + 33, x : x + 47])
        outside = drawn.pixels.copy()
        outside[y : y + 33, x : x + 47] = 0
        self.assertEqual(0, outside.max())

    def test_a_shift_of_the_sheet_shifts_the_picture(self) -> None:
        pixels = ribbon()
        mesh = grid_mesh(Sheet(2, 2, ASPECT))
        drawn = on_mesh(
            Layer(pixels, moved(0, 0)), mesh, mesh.points + np.array([0.25, -0.1]), ASPECT
        )
        x, y = np.rint(-drawn.matrix[:2, 2] + (0.25 * 240, -0.1 * 240)).astype(int)
        np.testing.assert_array_equal(pixels, drawn.pixels[y : y + 240, x : x + 120])

    def test_points_dragged_out_of_all_measure_are_drawn_within_bounds(self) -> None:
        mesh = grid_mesh(Sheet(2, 2, ASPECT))
        bent = mesh.points.copy()
        bent[0] = (-1e200, 1e200)
        drawn = on_mesh(Layer(ribbon(), moved(0, 0)), mesh, bent, ASPECT)
        self.assertLessEqual(max(drawn.pixels.shape), 4096)

    def test_an_enlarged_sheet_agrees_with_another_sampler(self) -> None:
        smooth = cv2.GaussianBlur(ribbon(), (0, 0), 3)
        mesh = grid_mesh(Sheet(2, 2, ASPECT))
        drawn = on_mesh(Layer(smooth, moved(0, 0)), mesh, mesh.points * 2, ASPECT)
        x, y = np.rint(-drawn.matrix[:2, 2] - (60, 120)).astype(int)
        wanted = cv2.resize(smooth, None, fx=2, fy=2, interpolation=cv2.INTER_LINEAR)
        part = drawn.pixels[y + 4 : y + 476, x + 4 : x + 236].astype(int)
        self.assertLessEqual(np.abs(part - wanted[4:476, 4:236]).max(), 2)

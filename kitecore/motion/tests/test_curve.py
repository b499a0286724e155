"""Curves through points, against SciPy."""

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy.interpolate import PchipInterpolator

from kitecore.document.properties import CurveKeys, Key, TripleKeys
from kitecore.motion import value_at
from kitecore.motion.curve import around, curve_at, curve_between

levels = st.floats(0, 1).map(lambda x: round(x, 3))
curves = st.lists(st.tuples(levels, levels), min_size=3, max_size=8, unique_by=lambda p: p[0])


class CurveTest(TestCase):
    @given(curves)
    def test_it_is_what_scipy_draws(self, points: list[tuple[float, float]]) -> None:
        points.sort()
        xs, ys = np.array(points).T
        x = np.linspace(xs[0], xs[-1], 50)
        ours = curve_at(tuple(points), x)
        np.testing.assert_allclose(ours, PchipInterpolator(xs, ys)(x), atol=1e-9)

    @given(curves)
    def test_it_never_overshoots_its_points(self, points: list[tuple[float, float]]) -> None:
        points.sort()
        heights = [y for _, y in points]
        x = np.linspace(points[0][0], points[-1][0], 60)
        done = curve_at(tuple(points), x)
        self.assertGreaterEqual(done.min(), min(heights) - 1e-9)
        self.assertLessEqual(done.max(), max(heights) + 1e-9)

    def test_beyond_its_ends_it_goes_on_straight(self) -> None:
        x = np.array([-0.5, 1.5])
        np.testing.assert_allclose(curve_at(((0, 0), (1, 1)), x), x)

    def test_around_a_circle_the_ends_meet(self) -> None:
        points = ((0.1, 0.5), (0.4, 0.9), (0.8, 0.3))
        near = around(points, np.array([0.0, 1.0, 1e-7, 1 - 1e-7]))
        np.testing.assert_allclose(near, near[0], atol=1e-5)
        np.testing.assert_allclose(around(((0.3, 0.7),), np.linspace(0, 1, 5)), 0.7)

    def test_keys_of_curves_go_point_by_point_or_by_common_points(self) -> None:
        straight, bent = ((0.0, 0.0), (1.0, 1.0)), ((0.0, 0.2), (1.0, 0.6))
        keys = CurveKeys(keys=(Key(at=0, value=straight), Key(at=10, value=bent)))
        self.assertEqual(((0.0, 0.1), (1.0, 0.8)), value_at(keys, 5))
        more = ((0.0, 0.0), (0.5, 0.9), (1.0, 1.0))
        middle = curve_between(straight, more, 0.5)
        self.assertAlmostEqual(0.7, dict(middle)[0.5])

    def test_keys_of_triples(self) -> None:
        keys = TripleKeys(keys=(Key(at=0, value=(1, 1, 1)), Key(at=4, value=(2, 0, 1))))
        self.assertEqual((1.5, 0.5, 1.0), value_at(keys, 2))

import math
from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad

from kitecore.document.properties import PointKeys, SpotKey, Vector
from kitecore.motion import value_at
from kitecore.motion.spatial import heading_at, lengths_of, spot_between, stretch_of

KAPPA = 4 / 3 * (math.sqrt(2) - 1)
"""Handles of this length make a cubic Bézier a quarter of a circle, to 0.03 % of its radius."""


def quarter(radius: float) -> tuple[SpotKey, SpotKey]:
    reach = KAPPA * radius
    return (
        SpotKey(at=0, value=(radius, 0.0), after=(0.0, reach)),
        SpotKey(at=1000, value=(0.0, radius), before=(reach, 0.0)),
    )


class PathTest(TestCase):
    def test_a_circle_is_gone_round_at_an_even_angle(self) -> None:
        a, b = quarter(100)
        for share in (0.1, 0.25, 0.5, 0.8):
            x, y = spot_between(a, b, share)
            self.assertAlmostEqual(100, math.hypot(x, y), delta=0.03)
            self.assertAlmostEqual(90 * share, math.degrees(math.atan2(y, x)), delta=0.02)
        self.assertAlmostEqual(50 * math.pi, lengths_of((a, b))[0], delta=0.05)

    def test_handles_along_a_line_do_not_change_the_pace(self) -> None:
        a = SpotKey(at=0, value=(0.0, 0.0), after=(1.0, 0.5))
        b = SpotKey(at=10, value=(10.0, 5.0), before=(-8.0, -4.0))
        for share in (0.05, 0.3, 0.77):
            x, y = spot_between(a, b, share)
            self.assertAlmostEqual(10 * share, x, places=6)
            self.assertAlmostEqual(5 * share, y, places=6)

    def test_lengths_agree_with_quadrature(self) -> None:
        a = SpotKey(at=0, value=(0.0, 0.0), after=(30.0, 200.0))
        b = SpotKey(at=10, value=(120.0, 40.0), before=(60.0, -90.0))
        curve = stretch_of(a, b)
        wanted, _ = quad(lambda t: math.hypot(*curve.velocity(t)), 0, 1, limit=400)
        self.assertAlmostEqual(wanted, curve.length, delta=1e-4 * wanted)

    @given(st.lists(st.tuples(st.floats(-300, 300), st.floats(-300, 300)), min_size=2, max_size=2))
    def test_even_shares_are_even_ways(self, handles: list[Vector]) -> None:
        a = SpotKey(at=0, value=(0.0, 0.0), after=handles[0])
        b = SpotKey(at=10, value=(200.0, 100.0), before=handles[1])
        curve = stretch_of(a, b)
        ts = [curve.parameter(n / 8) for n in range(9)]
        for low, high in pairwise(ts):
            self.assertLessEqual(low, high + 1e-12)
            way, _ = quad(lambda t: math.hypot(*curve.velocity(t)), low, high, limit=200)
            self.assertAlmostEqual(curve.length / 8, way, delta=0.02 + 1e-4 * curve.length)

    def test_what_overshoots_goes_straight_on(self) -> None:
        a, b = quarter(100)
        x, y = spot_between(a, b, 1.1)
        self.assertAlmostEqual(100, y, delta=0.2)
        self.assertAlmostEqual(-5 * math.pi, x, delta=0.05)

    def test_a_property_reads_its_path(self) -> None:
        keys = PointKeys(keys=quarter(100))
        self.assertEqual((100.0, 0.0), value_at(keys, -5))
        x, y = value_at(keys, 500)
        self.assertAlmostEqual(x, y, places=6)


class HeadingTest(TestCase):
    def test_it_points_along_the_path(self) -> None:
        keys = PointKeys(keys=quarter(100))
        for at, wanted in ((0, 90), (500, 135), (1000, 180), (-99, 90), (2000, 180)):
            self.assertAlmostEqual(wanted, heading_at(keys, at), delta=0.1)

    def test_where_it_rests_the_nearest_direction_stays(self) -> None:
        keys = PointKeys(
            keys=(
                SpotKey(at=0, value=(0.0, 0.0)),
                SpotKey(at=10, value=(10.0, 0.0)),
                SpotKey(at=20, value=(10.0, 0.0)),
                SpotKey(at=30, value=(10.0, 10.0)),
            )
        )
        self.assertEqual([0, 0, 90], [heading_at(keys, at) for at in (5, 15, 25)])
        self.assertEqual(0, heading_at((3.0, 4.0), 9))

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.document.paths import Contour, Node, PathKeys, polygon
from kitecore.document.properties import Key
from kitecore.motion import value_at
from kitecore.motion.fitting import fitted
from kitecore.motion.path import path_between, with_nodes

coordinate = st.floats(-100, 100)
pairs = st.tuples(coordinate, coordinate)
nodes = st.builds(Node, at=pairs, before=pairs, after=pairs)
contours = st.builds(
    Contour, nodes=st.lists(nodes, min_size=2, max_size=6).map(tuple), closed=st.booleans()
)


def sampled(contour: Contour, steps: int = 40) -> np.ndarray:
    """Points along a contour by the formula of cubic Béziers, shape (n, 2)."""
    ends = contour.nodes[1:] + (contour.nodes[:1] if contour.closed else ())
    t = np.linspace(0, 1, steps)[:, None]
    parts = []
    for a, b in zip(contour.nodes, ends, strict=False):
        p0, p3 = np.array(a.at), np.array(b.at)
        p1, p2 = p0 + a.after, p3 + b.before
        parts.append(
            (1 - t) ** 3 * p0 + 3 * (1 - t) ** 2 * t * p1 + 3 * (1 - t) * t**2 * p2 + t**3 * p3
        )
    return np.concatenate(parts)


def farthest(points: np.ndarray, others: np.ndarray) -> float:
    """How far any point is from the nearest of the others."""
    away = np.hypot(*(points[:, None] - others[None]).transpose(2, 0, 1))
    return float(away.min(axis=1).max())


class PathTest(TestCase):
    @given(contours, st.integers(0, 5))
    def test_more_points_leave_the_shape_as_it_is(self, contour: Contour, more: int) -> None:
        finer = with_nodes(contour, len(contour.nodes) + more)
        self.assertEqual(len(contour.nodes) + more, len(finer.nodes))
        self.assertLess(farthest(sampled(finer), sampled(contour, 800)), 0.7)

    @given(contours, contours)
    def test_between_two_paths_the_ends_are_those_paths(self, a: Contour, b: Contour) -> None:
        for share, end in ((0.0, a), (1.0, b)):
            [found] = path_between((a,), (b,), share)
            self.assertLess(farthest(sampled(found), sampled(end, 800)), 0.7)
            self.assertEqual(end.closed, found.closed)

    def test_half_way_points_are_half_way(self) -> None:
        a, b = polygon(((0, 0), (10, 0), (0, 10))), polygon(((0, 0), (20, 0), (0, 30)))
        [found] = path_between((a,), (b,), 0.5)
        self.assertEqual([(0, 0), (15, 0), (0, 20)], [node.at for node in found.nodes])

    def test_a_contour_without_partner_grows_from_its_middle(self) -> None:
        square = polygon(((0, 0), (2, 0), (2, 2), (0, 2)))
        [found] = path_between((), (square,), 0.25)
        self.assertEqual((0.75, 0.75), found.nodes[0].at)
        self.assertEqual((), path_between((), (), 0.5))

    def test_keys_of_a_path_are_read_like_any_others(self) -> None:
        a, b = polygon(((0, 0), (1, 0))), polygon(((0, 0), (3, 0)))
        keys = PathKeys(keys=(Key(at=0, value=(a,)), Key(at=10, value=(b,))))
        self.assertEqual((2, 0), value_at(keys, 5)[0].nodes[1].at)
        self.assertEqual((b,), value_at(keys, 99))


class FittingTest(TestCase):
    def _circle(self, noise: float) -> np.ndarray:
        angles = np.linspace(0, 2 * np.pi, 300)
        chance = np.random.default_rng(4).normal(0, noise, (300, 2))
        return np.stack([200 * np.cos(angles), 200 * np.sin(angles)], 1) + chance

    def test_stays_within_its_tolerance_with_few_points(self) -> None:
        for noise, tolerance in ((0.0, 1.0), (1.0, 4.0)):
            points = self._circle(noise)
            line = fitted(tuple(map(tuple, points)), tolerance)
            self.assertLess(farthest(points, sampled(line, 200)), tolerance * 1.5)
            self.assertLess(len(line.nodes), 16)

    def test_is_smooth_where_the_hand_was(self) -> None:
        line = fitted(tuple(map(tuple, self._circle(0.0))), 1.0)
        self.assertEqual({"smooth"}, {node.join for node in line.nodes[1:-1]})

    def test_keeps_corners(self) -> None:
        along = [(float(x), 0.0) for x in range(0, 200, 4)]
        down = [(200.0, float(y)) for y in range(0, 200, 4)]
        line = fitted((*along, *down), 3)
        corner = min(line.nodes, key=lambda node: np.hypot(node.at[0] - 200, node.at[1]))
        self.assertLess(np.hypot(corner.at[0] - 200, corner.at[1]), 5)
        self.assertLess(len(line.nodes), 6)

    def test_closed_lines_come_back_to_where_they_began(self) -> None:
        line = fitted(tuple(map(tuple, self._circle(0.5)[:-4])), 3, closed=True)
        self.assertTrue(line.closed)
        self.assertLess(farthest(self._circle(0.5), sampled(line, 200)), 6)

    @given(st.lists(pairs, min_size=2, max_size=40), st.floats(0.5, 20), st.booleans())
    def test_any_scribble_becomes_a_line(
        self, points: list[tuple[float, float]], tolerance: float, closed: bool
    ) -> None:
        line = fitted(tuple(points), tolerance, closed=closed)
        self.assertGreaterEqual(len(line.nodes), 1)
        self.assertTrue(np.isfinite([node.at for node in line.nodes]).all())

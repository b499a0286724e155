"""Speed curves against quadrature; what they use of a source; old documents."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad

from kitecore.document import Speed, SpeedPoint, VideoClip

SECOND = 705_600_000
speeds = st.floats(-8, 8).map(lambda value: round(value, 3))


@st.composite
def curves(draw: st.DrawFn) -> Speed:
    ats = sorted(draw(st.sets(st.integers(-2 * SECOND, 6 * SECOND), min_size=1, max_size=5)))
    softs = st.sampled_from([None, True, False])
    points = tuple(SpeedPoint(at=at, speed=draw(speeds), soft=draw(softs)) for at in ats)
    return Speed(points=points, soft=draw(st.booleans()))


class SpeedTest(TestCase):
    @given(curves(), st.integers(-3 * SECOND, 8 * SECOND))
    def test_the_source_passed_is_the_integral_of_the_speed(self, speed: Speed, to: int) -> None:
        knots = [p.at for p in speed.points if min(0, to) < p.at < max(0, to)]
        borders = [0, *(knots if to > 0 else reversed(knots)), to]
        whole = 0.0
        for a, b in pairwise(borders):
            whole += quad(speed.at, a, b, epsabs=1)[0]
        self.assertLess(abs(whole - speed.offset(to)), SECOND * 1e-6)

    @given(curves(), st.integers(0, 5 * SECOND))
    def test_moving_the_start_moves_along_the_curve(self, speed: Speed, by: int) -> None:
        later = speed.moved(-by)
        for at in (0, SECOND, 3 * SECOND):
            self.assertLessEqual(
                abs(speed.offset(by + at) - speed.offset(by) - later.offset(at)), 4
            )

    @given(curves(), st.integers(SECOND // 10, 6 * SECOND))
    def test_backwards_goes_the_same_way_back(self, speed: Speed, length: int) -> None:
        back = speed.reversed(length)
        self.assertLessEqual(abs(back.offset(length) + speed.offset(length)), 4)
        middle = speed.offset(length // 2) - speed.offset(length)
        self.assertLessEqual(abs(back.offset(length - length // 2) - middle), 4)

    @given(curves(), st.integers(SECOND // 10, 6 * SECOND), st.integers(0, 9 * SECOND))
    def test_room_ends_exactly_where_the_source_does(
        self, speed: Speed, length: int, left: int
    ) -> None:
        low, high = speed.extremes(length)
        clip = VideoClip(
            media="m", length=length, speed=speed, source_in=-low + 5, source_length=high - low + left + 10
        )  # fmt: skip
        before, after = clip.reach
        for start, end in (
            (-min(before, 9 * SECOND), length),
            (0, length + min(after, 9 * SECOND)),
        ):
            longer = clip.at(10 * SECOND).trimmed(10 * SECOND + start, 10 * SECOND + end)
            used_low, used_high = longer.used
            self.assertGreaterEqual(used_low, -4)
            self.assertLessEqual(used_high, clip.source_end + 4)

    def test_points_that_bend_stay_such_whatever_is_done_to_the_clip(self) -> None:
        bent = SpeedPoint(at=SECOND, speed=3, bends=True)
        speed = Speed(points=(SpeedPoint(), bent, SpeedPoint(at=2 * SECOND)))
        for changed in (speed.moved(7), speed.scaled(0.5), speed.reversed(3 * SECOND)):
            self.assertEqual([False, True, False], [point.bends for point in changed.points])
        self.assertTrue(speed.inside(2 * SECOND)[1].bends)

    def test_extremes_see_where_a_ramp_turns_round(self) -> None:
        points = (SpeedPoint(at=0, speed=2.0), SpeedPoint(at=2 * SECOND, speed=-2.0))
        for soft in (True, False):
            low, high = Speed(points=points, soft=soft).extremes(2 * SECOND)
            self.assertEqual(0, low)
            self.assertGreater(high, 0.9 * SECOND)

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from kitecore.ticks import RATES, TICKS_PER_SECOND, Rate, Span

rates = st.sampled_from(RATES)


class RateTest(TestCase):
    def test_sound_rates_are_whole_numbers_of_ticks(self) -> None:
        for rate in (44_100, 48_000, 96_000):
            self.assertEqual(0, TICKS_PER_SECOND % rate)

    def test_every_frame_of_an_hour_comes_back(self) -> None:
        for rate in RATES:
            frames = range(0, 3600 * rate.nominal, 7)
            self.assertTrue(all(rate.frame_at(rate.start_of(n)) == n for n in frames))
            self.assertTrue(all(rate.frame_at(rate.start_of(n + 1) - 1) == n for n in frames))

    @given(rates, st.integers(-(10**15), 10**15))
    def test_nearest_is_a_boundary_at_most_half_a_frame_away(self, rate: Rate, tick: int) -> None:
        near = rate.nearest(tick)
        self.assertTrue(rate.is_boundary(near))
        self.assertLessEqual(abs(near - tick) * 2, rate.frame_ticks)

    def test_an_inexact_rate_is_refused(self) -> None:
        for num, den in ((0, 1), (30, 0), (31, 7)):
            with self.assertRaises(ValueError):
                Rate(num, den)

    def test_rates_are_written_as_people_do(self) -> None:
        self.assertEqual(
            ["23.976", "24", "25", "29.97", "30", "48", "50", "59.94", "60"],
            [str(rate) for rate in RATES],
        )


spans = st.builds(lambda a, b: Span(min(a, b), max(a, b)), st.integers(), st.integers())


class SpanTest(TestCase):
    @given(spans, spans)
    def test_intersection_is_what_both_hold(self, one: Span, other: Span) -> None:
        both = one.intersection(other)
        self.assertEqual(both, other.intersection(one) if both else both)
        self.assertEqual(bool(both), bool(one) and bool(other) and one.overlaps(other))
        if both:
            self.assertIn(both.start, one)
            self.assertIn(both.end - 1, other)

"""What a pace adds up to, against sums of many small steps."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from kitecore.document.ease import Bezier, Bounce, Ease, Hold, Steady
from kitecore.document.properties import Key, NumberKeys
from kitecore.motion import value_at
from kitecore.motion.running import run_by, when_run
from kitecore.ticks import TICKS_PER_SECOND as SECOND
from kitecore.ticks import Span

times = st.integers(-2 * SECOND, 6 * SECOND)


def keys(*values: float, ease: Ease = Steady()) -> NumberKeys:  # noqa: B008
    """One each second."""
    made = (Key(at=at * SECOND, value=one, ease=ease) for at, one in enumerate(values))
    return NumberKeys(keys=tuple(made))


class RunningTest(TestCase):
    @given(st.floats(-1e3, 1e3), times, times)
    def test_without_keys_it_is_the_pace_by_the_time(self, pace: float, a: int, b: int) -> None:
        self.assertAlmostEqual(pace * (b - a) / SECOND, run_by(pace, a, b))

    def test_straight_on_it_is_exact_and_what_is_held_counts_until_the_next(self) -> None:
        self.assertAlmostEqual(5 + 10 + 5, run_by(keys(0, 10, 10, 0), 0, 4 * SECOND), 6)
        self.assertAlmostEqual(1 + 7 + 2 * 3, run_by(keys(1, 7, 3, ease=Hold()), 0, 4 * SECOND), 6)

    @given(times, times, times)
    def test_parts_add_up_and_backwards_is_below_nothing(self, a: int, b: int, c: int) -> None:
        pace = keys(4, -2, 9, 1)
        self.assertAlmostEqual(run_by(pace, a, c), run_by(pace, a, b) + run_by(pace, b, c), 4)
        self.assertAlmostEqual(-run_by(pace, a, b), run_by(pace, b, a), 6)

    @given(st.floats(0.5, 30), st.integers(0, 2 * SECOND), st.floats(0, 3))
    def test_when_an_amount_is_reached(self, first: float, since: int, amount: float) -> None:
        pace = keys(first, 4, 1, 9)
        span = Span(since, 9 * SECOND)
        at = when_run(pace, since, amount, span)
        self.assertTrue(since <= at <= span.end)
        self.assertAlmostEqual(amount, run_by(pace, since, at), delta=2e-3)
        self.assertEqual(span.end, when_run(pace, since, 1e6, span))

    def test_eased_it_is_what_many_small_steps_add_up_to(self) -> None:
        for ease in (Bezier(x1=0.6, y1=0, x2=0.4, y2=1), Bounce()):
            pace, steps = keys(0, 10, 2, ease=ease), 4000
            whole = 2 * SECOND
            wanted = sum(value_at(pace, round((n + 0.5) * whole / steps)) for n in range(steps))
            self.assertAlmostEqual(1, run_by(pace, 0, whole) / (wanted * 2 / steps), delta=5e-3)

import json
import math
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter
from scipy.integrate import solve_ivp

from kitecore.document.ease import EASES, Bounce, Ease, Hold, Spring, Steps, turned_round
from kitecore.motion.easing import eased

CASES = Path(__file__).parents[3] / "web/src/motion/easing.cases.json"
adapter: TypeAdapter[Any] = TypeAdapter(Ease)
shares = st.floats(0, 1)
eases = st.one_of(
    st.builds(Hold),
    st.builds(Steps, count=st.integers(1, 12), backwards=st.booleans()),
    st.builds(Bounce, count=st.integers(1, 6), kept=st.floats(0.05, 0.8)),
    st.builds(
        Spring,
        stiffness=st.floats(5, 2000),
        damping=st.floats(0.5, 100),
        backwards=st.booleans(),
    ),
    st.sampled_from([adapter.validate_python({"kind": "steady"})]),
    st.builds(
        lambda x1, y1, x2, y2: adapter.validate_python(
            {"kind": "bezier", "x1": x1, "y1": y1, "x2": x2, "y2": y2}
        ),
        shares,
        st.floats(-2, 3),
        shares,
        st.floats(-2, 3),
    ),
)


class EveryEasingTest(TestCase):
    @given(eases)
    def test_it_arrives(self, ease: Ease) -> None:
        self.assertAlmostEqual(1, eased(ease, 1), places=9)
        if not (isinstance(ease, Steps) and ease.backwards):
            self.assertAlmostEqual(0, eased(ease, 0), places=9)

    @given(eases, st.floats(0.001, 0.999))
    def test_the_way_back_is_the_way_there_seen_from_its_end(
        self, ease: Ease, progress: float
    ) -> None:
        back = eased(turned_round(ease), 1 - progress)
        if isinstance(ease, Hold | Steps):
            # At a jump either side may hold.
            edge = progress * getattr(ease, "count", 1)
            if abs(edge - round(edge)) < 1e-6:
                return
        self.assertAlmostEqual(1 - eased(ease, progress), back, places=6)

    def test_the_page_eases_by_the_same_numbers(self) -> None:
        cases = json.loads(CASES.read_text())
        self.assertEqual(set(EASES), {case["ease"]["kind"] for case in cases})
        for case in cases:
            ease = adapter.validate_python(case["ease"])
            for progress, value in case["at"]:
                self.assertAlmostEqual(value, eased(ease, progress), places=6)


class SpringTest(TestCase):
    def test_it_follows_its_equation_of_motion(self) -> None:
        for stiffness, damping in ((320, 16), (100, 20), (100, 45), (900, 4), (50, 60)):
            found = solve_ivp(
                lambda _, y, k=stiffness, c=damping: [y[1], k * (1 - y[0]) - c * y[1]],
                (0, 1),
                [0, 0],
                rtol=1e-10,
                atol=1e-12,
                dense_output=True,
            ).sol
            ease = Spring(stiffness=stiffness, damping=damping)
            for share in (0.05, 0.2, 0.5, 0.9):
                left = 1 - float(found(1)[0])
                wanted = float(found(share)[0]) + share * left
                self.assertAlmostEqual(wanted, eased(ease, share), places=6)

    def test_little_damping_overshoots_and_much_does_not(self) -> None:
        def highest(damping: float) -> float:
            ease = Spring(stiffness=300, damping=damping)
            return max(eased(ease, n / 200) for n in range(201))

        self.assertGreater(highest(8), 1.3)
        self.assertLessEqual(highest(40), 1.0)


class BounceTest(TestCase):
    def test_it_is_made_of_parabolas_of_one_gravity(self) -> None:
        ease = Bounce(count=2, kept=0.25)
        # Falls of lengths 1, then twice 1/2, twice 1/4: the first takes 1 / 2.5 of the time.
        fall = 1 / (1 + 2 * 0.5 + 2 * 0.25)
        self.assertAlmostEqual(1, eased(ease, fall))
        self.assertAlmostEqual(1 - 0.25, eased(ease, fall + fall / 2))
        self.assertAlmostEqual(1, eased(ease, fall * 2))
        self.assertAlmostEqual(1 - 0.0625, eased(ease, fall * 2 + fall / 4))
        step = 1e-3
        for at in (0.2, fall * 1.4, fall * 2.2):
            bent = eased(ease, at - step) - 2 * eased(ease, at) + eased(ease, at + step)
            self.assertAlmostEqual(2 / fall**2, bent / step**2, places=4)


class StepsTest(TestCase):
    def test_as_css_defines_them(self) -> None:
        at_end = [eased(Steps(count=4), share) for share in (0, 0.24, 0.25, 0.6, 0.99, 1)]
        self.assertEqual([0, 0, 0.25, 0.5, 0.75, 1], at_end)
        at_start = [eased(Steps(count=4, backwards=True), share) for share in (0.01, 0.3, 0.9)]
        self.assertEqual([0.25, 0.5, 1], at_start)
        self.assertFalse(math.isnan(eased(Hold(), 0.5)))

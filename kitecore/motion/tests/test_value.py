from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq

from kitecore.document import Place, SolidClip
from kitecore.document.ease import Bezier, Hold, Steady
from kitecore.document.effects import effect_kinds
from kitecore.document.properties import ColourKeys, Key, NumberKeys, PointKeys, SpotKey
from kitecore.motion import still_at, text_at, value_at
from kitecore.motion.easing import eased

share = st.floats(0, 1)


class EasingTest(TestCase):
    @given(share, st.floats(-2, 3), share, st.floats(-2, 3), st.floats(0.001, 0.999))
    def test_bezier_solves_its_equation(
        self, x1: float, y1: float, x2: float, y2: float, progress: float
    ) -> None:
        def coordinate(a: float, b: float, t: float) -> float:
            return 3 * (1 - t) ** 2 * t * a + 3 * (1 - t) * t**2 * b + t**3

        found = eased(Bezier(x1=x1, y1=y1, x2=x2, y2=y2), progress)
        root = brentq(lambda t: coordinate(x1, x2, t) - progress, 0, 1, xtol=1e-15)
        slope = abs(coordinate(x1, x2, root + 1e-6) - coordinate(x1, x2, root - 1e-6))
        if slope > 1e-8:
            self.assertAlmostEqual(coordinate(y1, y2, root), found, places=4)

    def test_css_ease_at_published_points(self) -> None:
        ease = Bezier(x1=0.25, y1=0.1, x2=0.25, y2=1)
        for progress, value in (
            (0, 0),
            (0.25, 0.408511),
            (0.5, 0.802403),
            (0.75, 0.960459),
            (1, 1),
        ):
            self.assertAlmostEqual(value, eased(ease, progress), places=5)

    def test_hold_waits_for_the_end(self) -> None:
        self.assertEqual([0, 0, 1], [eased(Hold(), t) for t in (0, 0.99, 1)])


class ValueTest(TestCase):
    def test_a_plain_value_is_itself(self) -> None:
        self.assertEqual((3.0, 4.0), value_at((3.0, 4.0), 99))

    def test_before_and_after_the_keys_the_nearest_holds(self) -> None:
        keys = NumberKeys(keys=(Key(at=10, value=1.0), Key(at=20, value=3.0)))
        self.assertEqual([1, 1, 2, 3, 3], [value_at(keys, at) for at in (-5, 10, 15, 20, 99)])

    def test_points_go_straight(self) -> None:
        keys = PointKeys(keys=(SpotKey(at=0, value=(0.0, 10.0)), SpotKey(at=4, value=(8.0, 30.0))))
        self.assertEqual((2.0, 15.0), value_at(keys, 1))

    def test_colours_mix_in_oklab(self) -> None:
        # CSS Color 4: color-mix(in oklab, black, white) is a grey of lightness 0.5, #636363.
        keys = ColourKeys(keys=(Key(at=0, value="#000000"), Key(at=2, value="#ffffff")))
        self.assertEqual("#636363", value_at(keys, 1))
        self.assertEqual("#000000", value_at(keys, 0))

    def test_each_stretch_has_the_easing_of_its_first_key(self) -> None:
        keys = NumberKeys(
            keys=(
                Key(at=0, value=0.0, ease=Hold()),
                Key(at=10, value=1.0, ease=Steady()),
                Key(at=20, value=2.0),
            )
        )
        self.assertEqual([0, 1.5], [value_at(keys, 9), value_at(keys, 15)])

    @given(st.lists(st.tuples(st.integers(0, 999), st.floats(-9, 9)), min_size=1, max_size=9))
    def test_a_key_is_met_exactly(self, pairs: list[tuple[int, float]]) -> None:
        chosen = dict(pairs)
        keys = NumberKeys(keys=tuple(Key(at=at, value=chosen[at]) for at in sorted(chosen)))
        self.assertTrue(all(value_at(keys, at) == value for at, value in chosen.items()))

    def test_keys_out_of_order_are_refused(self) -> None:
        with self.assertRaises(ValueError):
            NumberKeys(keys=(Key(at=5, value=0.0), Key(at=5, value=1.0)))


class StillTest(TestCase):
    """Whole models at a moment."""

    keys = NumberKeys(keys=(Key(at=0, value=1.0), Key(at=10, value=3.0)))

    def test_what_has_no_keys_is_itself_and_its_name_stays(self) -> None:
        blur = effect_kinds["soft_blur"](sigma=3.0)
        self.assertIs(blur, still_at(blur, 7))
        self.assertEqual(blur.model_dump_json(), text_at(blur, 7))

    def test_keys_are_found_however_deep_and_named_by_what_they_are_worth(self) -> None:
        blur = effect_kinds["soft_blur"](sigma=self.keys)
        clip = SolidClip(length=20, effects=(effect_kinds["invert"](), blur))
        self.assertEqual(2.0, still_at(clip, 5).effects[1].sigma)  # type: ignore[attr-defined]
        self.assertEqual(blur.model_copy(update={"sigma": 2.0}).model_dump_json(), text_at(blur, 5))
        self.assertNotEqual(text_at(blur, 5), text_at(blur, 6))

    def test_fields_that_are_left_out_keep_their_keys(self) -> None:
        clip = SolidClip(length=20, place=Place(turn=self.keys))
        self.assertIs(clip, still_at(clip, 5, frozenset({"place"})))
        self.assertEqual(2.0, still_at(clip, 5, frozenset({"masks"})).place.turn)

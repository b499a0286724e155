"""What each stage does, against published cases, OpenColorIO and what is true of it."""

from typing import Any
from unittest import TestCase

import colour
import numpy as np
import PyOpenColorIO as OCIO  # noqa: N814
from hypothesis import given
from hypothesis import strategies as st

from kitecore.colour.chain import graded
from kitecore.colour.inputs import transforms
from kitecore.colour.looks import SHIPPED, shipped
from kitecore.colour.rgb import chroma, from_chroma, hue_of, luma
from kitecore.colour.stages.contrast import tones
from kitecore.document import Adjustments, Grade, Zone
from kitecore.document.grade import BrightnessRange, Contrast, HueRange, StageBase

COLOURS = np.random.default_rng(5).random((400, 3))
GREYS = np.repeat(np.linspace(0, 1, 101)[:, None], 3, axis=1)
amounts = st.floats(-100, 100)


def after(rgb: Any, **stages: Any) -> np.ndarray:
    grade = Grade.model_validate(stages)
    return np.asarray(graded(np.asarray(rgb, float), grade, shipped))


class EveryStageTest(TestCase):
    def test_a_new_grade_changes_nothing(self) -> None:
        np.testing.assert_array_equal(graded(COLOURS, Grade(), shipped), COLOURS)

    def test_stages_that_are_off_change_nothing(self) -> None:
        for name, stage in Grade().stages:
            if name not in SET:
                continue
            data = {**SET[name], "on": False}
            np.testing.assert_array_equal(after(COLOURS, **{name: data}), COLOURS, name)
            self.assertFalse(type(stage).model_validate(data).works)

    def test_every_stage_does_something_and_keeps_shape_and_precision(self) -> None:
        names = [name for name, _ in Grade().stages]
        self.assertEqual(set(names), set(SET))
        for name in names:
            single = COLOURS.astype(np.float32).reshape(20, 20, 3)
            grade = Grade.model_validate({name: SET[name]})
            done = graded(single, grade, shipped)
            self.assertEqual((single.shape, np.float32), (done.shape, done.dtype), name)
            self.assertGreater(np.abs(done - single).max(), 0.01, name)
            self.assertTrue(np.isfinite(done).all(), name)

    def test_a_grade_that_is_off_changes_nothing(self) -> None:
        np.testing.assert_array_equal(after(COLOURS, on=False, light={"exposure": 2}), COLOURS)

    def test_stages_describe_themselves(self) -> None:
        for _, stage in Grade().stages:
            self.assertIsInstance(stage, StageBase)
            self.assertTrue(stage.title)


SET: dict[str, dict[str, Any]] = {
    "input": {"transform": "acescct"},
    "light": {"exposure": 0.5},
    "balance": {"warmth": 30, "tint": -10},
    "levels": {"black": 5, "white": 90, "gamma": 1.2, "red": 1.1},
    "wheels": {"lift": {"push": [0.4, 0.2]}, "gain": {"level": 10}, "gamma": {"level": 5}},
    "cdl": {"slope": [1.2, 1, 0.9], "saturation": 1.3},
    "contrast": {"contrast": 30, "shadows": 40},
    "curves": {"luma": [[0, 0], [0.3, 0.4], [1, 1]], "hue_to_saturation": [[0.2, 0.8]]},
    "colour": {"saturation": 40, "vibrance": 20, "hue": 30},
    "match": {"own_mean": [0.5, 0, 0], "wanted_mean": [0.6, 0.05, 0]},
    "lut": {"look": "dusk-print"},
}
"""Every stage, set to something."""


class LightTest(TestCase):
    def test_a_stop_is_twice_the_light(self) -> None:
        # Scene light 0.18 is coded 0.409, twice as much 0.595 (BT.709).
        [[grey, *_]] = after([[0.4090, 0.4090, 0.4090]], light={"exposure": 1})
        self.assertAlmostEqual(0.5950, grey, places=3)

    def test_up_and_down_again_is_as_before(self) -> None:
        brighter = after(COLOURS, light={"exposure": 1.7})
        np.testing.assert_allclose(after(brighter, light={"exposure": -1.7}), COLOURS, atol=1e-9)


class CdlTest(TestCase):
    CASE = {"slope": [1.25, 0.9, 1.1], "offset": [-0.02, 0.03, 0.1], "power": [1.1, 0.8, 1.4]}

    def test_it_is_what_opencolorio_computes(self) -> None:
        for saturation in (0.0, 0.7, 1.6):
            cdl = OCIO.CDLTransform()
            cdl.setSlope(self.CASE["slope"])
            cdl.setOffset(self.CASE["offset"])
            cdl.setPower(self.CASE["power"])
            cdl.setSat(saturation)
            cdl.setStyle(OCIO.CDL_ASC)
            processor = OCIO.Config.CreateRaw().getProcessor(cdl).getDefaultCPUProcessor()
            wanted = COLOURS.astype(np.float32).copy()
            processor.applyRGB(wanted)
            ours = after(COLOURS, cdl={**self.CASE, "saturation": saturation})
            np.testing.assert_allclose(ours, wanted, atol=2e-4)

    def test_cases_worked_by_hand(self) -> None:
        # (0.5 * 1.2 - 0.1) ^ 2 = 0.25; below black is cut off before the power.
        data = {"slope": [1.2] * 3, "offset": [-0.1] * 3, "power": [2.0] * 3}
        np.testing.assert_allclose(after([[0.5, 0.05, 1.0]], cdl=data), [[0.25, 0.0, 1.0]])
        # Without saturation all is luma.
        [[r, g, b]] = after([[1.0, 0.0, 0.0]], cdl={"saturation": 0})
        np.testing.assert_allclose([r, g, b], [0.2126] * 3)


class LevelsAndWheelsTest(TestCase):
    def test_levels_set_black_and_white(self) -> None:
        low, high = after([[0.1] * 3, [0.9] * 3], levels={"black": 10, "white": 90})
        np.testing.assert_allclose(low, 0, atol=1e-12)
        np.testing.assert_allclose(high, 1)

    def test_lift_leaves_white_and_gain_leaves_black(self) -> None:
        lifted = after(GREYS, wheels={"lift": {"push": [0.6, -0.3], "level": 20}})
        np.testing.assert_allclose(lifted[-1], 1)
        self.assertGreater(lifted[0].max(), 0.05)
        gained = after(GREYS, wheels={"gain": {"push": [0.6, -0.3], "level": 20}})
        np.testing.assert_allclose(gained[0], 0)
        bent = after(GREYS, wheels={"gamma": {"level": 30}})
        np.testing.assert_allclose(bent[[0, -1]], GREYS[[0, -1]])
        self.assertGreater(bent[50, 0], 0.5)

    def test_a_push_goes_where_it_points_on_the_vectorscope(self) -> None:
        [grey] = after([[0.5] * 3], wheels={"gain": {"push": [0.5, 0.0]}})
        y, cb, cr = chroma(grey)
        self.assertAlmostEqual(0.5, float(y))
        self.assertGreater(float(cb), 0.05)
        self.assertAlmostEqual(0, float(cr))


class ContrastTest(TestCase):
    def test_the_pivot_stays(self) -> None:
        done = after([[0.3] * 3], contrast={"contrast": 80, "pivot": 30})
        np.testing.assert_allclose(done, 0.3)

    @given(amounts, amounts, amounts, amounts)
    def test_tones_never_turn_the_order_of_brightness_round(
        self, blacks: float, shadows: float, highlights: float, whites: float
    ) -> None:
        y = np.linspace(0, 1, 400)
        settings = Contrast(blacks=blacks, shadows=shadows, highlights=highlights, whites=whites)
        self.assertGreater(np.diff(y + tones(y, settings)).min(), 0)

    def test_shadows_move_dark_parts_most(self) -> None:
        change = after(GREYS, contrast={"shadows": 100})[:, 0] - GREYS[:, 0]
        self.assertTrue(0.2 < GREYS[change.argmax(), 0] < 0.45)
        self.assertAlmostEqual(0, change[0])


class ColourTest(TestCase):
    @given(amounts, amounts, st.floats(-180, 180))
    def test_luma_is_kept(self, saturation: float, vibrance: float, hue: float) -> None:
        done = after(COLOURS, colour={"saturation": saturation, "vibrance": vibrance, "hue": hue})
        np.testing.assert_allclose(luma(done), luma(COLOURS), atol=1e-9)

    def test_colour_difference_is_bt709(self) -> None:
        wanted = colour.RGB_to_YCbCr(
            COLOURS,
            K=colour.WEIGHTS_YCBCR["ITU-R BT.709"],
            out_legal=False,
            out_int=False,
        )
        np.testing.assert_allclose(np.stack(chroma(COLOURS), axis=-1), wanted, atol=1e-9)
        np.testing.assert_allclose(from_chroma(*chroma(COLOURS)), COLOURS, atol=1e-12)

    def test_vibrance_moves_weak_colours_more(self) -> None:
        weak, strong = [0.5, 0.45, 0.4], [0.9, 0.2, 0.1]
        done = after([weak, strong], colour={"vibrance": 100})
        spread = np.ptp(done, axis=1) / np.ptp(np.array([weak, strong]), axis=1)
        self.assertGreater(spread[0], 1.3)
        self.assertLess(spread[1], 1.02)

    def test_no_saturation_is_grey(self) -> None:
        done = after(COLOURS, colour={"saturation": -100})
        self.assertLess(np.ptp(done, axis=1).max(), 1e-9)


class CurvesTest(TestCase):
    def test_a_hue_curve_changes_only_its_hues(self) -> None:
        red, green = [0.8, 0.2, 0.2], [0.2, 0.7, 0.25]
        _, cb, cr = chroma(np.array(red))
        hue = float(hue_of(cb, cr))
        points = [[max(hue - 0.1, 0), 0.5], [hue, 0.0], [min(hue + 0.1, 1), 0.5]]
        done = after([red, green], curves={"hue_to_saturation": points})
        self.assertLess(np.ptp(done[0]), 0.02)
        np.testing.assert_allclose(done[1], green, atol=1e-6)

    def test_channels_and_luma(self) -> None:
        bent = after(GREYS, curves={"red": [[0, 0], [0.5, 0.75], [1, 1]]})
        self.assertAlmostEqual(0.75, bent[50, 0])
        np.testing.assert_allclose(bent[:, 1:], GREYS[:, 1:])
        both = after(GREYS, curves={"luma": [[0, 0.1], [1, 0.9]]})
        np.testing.assert_allclose(both[:, 0], 0.1 + 0.8 * GREYS[:, 0])


class InputTest(TestCase):
    def test_grey_of_the_scene_comes_out_as_middle_grey(self) -> None:
        coded = colour.models.log_encoding_ACEScct(np.array([0.18, 0.18, 0.18]))
        [grey] = after([coded], input={"transform": "acescct"})
        # ACES 1.0 puts 18 % grey at 10 % of the screen's light: 0.1 ^ (1 / 2.4).
        np.testing.assert_allclose(grey, 0.1 ** (1 / 2.4), atol=0.01)

    def test_every_coding_gives_colours_and_keeps_grey_grey(self) -> None:
        for name in transforms:
            done = after(GREYS * 0.8 + 0.1, input={"transform": name})
            self.assertTrue(np.isfinite(done).all(), name)
            self.assertLess(np.ptp(done, axis=1).max(), 0.03, name)
            self.assertTrue((np.diff(done[:, 1]) >= -1e-4).all(), name)


class ZoneTest(TestCase):
    def test_only_the_brightness_meant_changes(self) -> None:
        zone = Zone(
            brightness=BrightnessRange(low=60, softness=5),
            adjust=Adjustments.model_validate({"light": {"exposure": -1}}),
        )
        done = graded(GREYS, Grade(zones=(zone,)), shipped)
        np.testing.assert_allclose(done[:50], GREYS[:50])
        self.assertLess(done[80, 0], 0.7)

    def test_only_the_hue_meant_changes_and_inverted_all_others(self) -> None:
        skin, sky = [0.8, 0.6, 0.5], [0.4, 0.55, 0.8]
        less = Adjustments.model_validate({"colour": {"saturation": -100}})
        for invert, kept in ((False, 1), (True, 0)):
            zone = Zone(hues=HueRange(), adjust=less, invert=invert)
            done = graded(np.array([skin, sky]), Grade(zones=(zone,)), shipped)
            np.testing.assert_allclose(done[kept], [skin, sky][kept], atol=1e-6)
            self.assertLess(np.ptp(done[1 - kept]), 0.02)

    def test_amount(self) -> None:
        darker = Adjustments.model_validate({"light": {"exposure": -1}})
        half = graded(GREYS, Grade(zones=(Zone(adjust=darker, amount=50),)), shipped)
        whole = graded(GREYS, Grade(zones=(Zone(adjust=darker),)), shipped)
        np.testing.assert_allclose(half, (GREYS + whole) / 2)


class LooksTest(TestCase):
    def test_there_are_six_and_they_leave_some_grey_apart(self) -> None:
        self.assertEqual(6, len(SHIPPED))
        for name in SHIPPED:
            done = after(GREYS, lut={"look": name})
            self.assertTrue((np.diff(luma(done)) > -1e-6).all(), name)

    def test_two_papers_parts_the_shades_and_leaves_skin_its_hue(self) -> None:
        dark, bright, skin = after(
            [[0.2] * 3, [0.85] * 3, [0.78, 0.6, 0.5]], lut={"look": "two-papers"}
        )
        self.assertGreater(dark[2] - dark[0], 0.02)
        self.assertGreater(bright[0] - bright[2], 0.02)
        _, cb, cr = chroma(skin)
        self.assertAlmostEqual(float(hue_of(cb, cr)) * 360, 123, delta=12)

    def test_mix(self) -> None:
        half = after(COLOURS, lut={"look": "lamp-oil", "mix": 50})
        whole = after(COLOURS, lut={"look": "lamp-oil"})
        np.testing.assert_allclose(half, (COLOURS + whole) / 2)

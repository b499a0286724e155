"""Transfer function, whites and OKLab against colour-science."""

from unittest import TestCase

import colour
import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.colour.transfer import coded_of, linear_of
from kitecore.colour.white import (
    TO_XYZ,
    adaptation,
    balance_of,
    locus,
    uv_of,
    white_of,
    xyz_of,
)
from kitecore.oklab import from_lab, to_lab

COLOURS = np.random.default_rng(3).random((500, 3))


class TransferTest(TestCase):
    def test_it_is_bt709(self) -> None:
        wanted = colour.models.oetf_BT2020(COLOURS, is_12_bits_system=False)
        np.testing.assert_allclose(coded_of(COLOURS), wanted, atol=3e-4)

    @given(st.floats(-2, 4))
    def test_there_and_back(self, level: float) -> None:
        there = linear_of(np.array([level]))
        np.testing.assert_allclose(coded_of(there), level, atol=1e-9)

    def test_it_goes_on_below_black(self) -> None:
        np.testing.assert_allclose(linear_of(-COLOURS), -linear_of(COLOURS))


class WhiteTest(TestCase):
    def test_the_primaries(self) -> None:
        space = colour.RGB_COLOURSPACES["ITU-R BT.709"]
        np.testing.assert_allclose(TO_XYZ, space.matrix_RGB_to_XYZ, atol=2e-4)

    def test_the_locus_of_black_bodies(self) -> None:
        for kelvin in (2500, 4000, 6500, 12000):
            u, v = locus(1e6 / kelvin)
            wanted = colour.temperature.CCT_to_uv_Krystek1985(kelvin)
            np.testing.assert_allclose((u, v), wanted, atol=1e-9)

    def test_adaptation_is_bradford(self) -> None:
        source, target = xyz_of(white_of(40, -10)), TO_XYZ.sum(axis=1)
        wanted = colour.adaptation.matrix_chromatic_adaptation_VonKries(
            source, target, transform="Bradford"
        )
        matrix = TO_XYZ @ adaptation(40, -10) @ np.linalg.inv(TO_XYZ)
        np.testing.assert_allclose(matrix, wanted, atol=1e-6)

    def test_nothing_set_changes_nothing(self) -> None:
        np.testing.assert_allclose(adaptation(0, 0), np.eye(3), atol=1e-9)

    def test_warm_is_more_red_than_blue_and_tint_less_green(self) -> None:
        warm = adaptation(60, 0) @ np.ones(3)
        self.assertGreater(warm[0], 1)
        self.assertLess(warm[2], 1)
        self.assertLess((adaptation(0, 60) @ np.ones(3))[1], 1)

    @given(st.floats(-90, 90), st.floats(-80, 80))
    def test_a_found_balance_makes_its_colour_neutral(self, warmth: float, tint: float) -> None:
        seen = np.linalg.inv(TO_XYZ) @ xyz_of(white_of(warmth, tint)) * 0.2
        if seen.min() < 0.01:
            return
        found = balance_of(seen)
        red, green, blue = adaptation(*found) @ seen
        self.assertAlmostEqual(red, green, delta=0.004)
        self.assertAlmostEqual(blue, green, delta=0.004)

    def test_uv_and_back(self) -> None:
        xyz = np.array([0.4, 1.0, 0.7])
        np.testing.assert_allclose(xyz_of(uv_of(xyz)), xyz, atol=1e-12)


class OklabTest(TestCase):
    def test_it_is_oklab(self) -> None:
        wanted = colour.XYZ_to_Oklab(COLOURS @ TO_XYZ.T)
        np.testing.assert_allclose(to_lab(COLOURS), wanted, atol=2e-3)

    def test_there_and_back(self) -> None:
        np.testing.assert_allclose(from_lab(to_lab(COLOURS)), COLOURS, atol=1e-9)

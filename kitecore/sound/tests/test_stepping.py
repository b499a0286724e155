from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.sound.stepping import PAUSE, reach, spoken, stepped_back, stretches


def voice(*spans: tuple[int, int], length: int = 1000) -> np.ndarray:
    flags = np.zeros(length, np.bool_)
    for begin, end in spans:
        flags[begin:end] = True
    return flags


class SteppingTest(TestCase):
    def test_pauses_between_words_and_blips_do_not_count(self) -> None:
        found = spoken(voice((200, 260), (290, 340), (500, 503), (600, 700)))
        self.assertEqual([(200, 340), (600, 700)], stretches(found))

    def test_words_at_the_very_ends_are_whole(self) -> None:
        found = spoken(voice((5, 100), (900, 1000)))
        self.assertEqual([(5, 100), (900, 1000)], stretches(found))

    def test_it_has_stepped_back_before_the_voice_and_comes_back_after_it(self) -> None:
        line = stepped_back(voice((400, 600)), fade=0.4, ahead=0.2)
        self.assertEqual(0, line[:338].max())
        self.assertEqual(1, line[380:600].min())
        self.assertEqual(0, line[644:].max())
        self.assertAlmostEqual(0.5, line[360], delta=0.03)
        self.assertAlmostEqual(0.5, line[620], delta=0.03)
        self.assertLessEqual(np.abs(np.diff(line)).max(), 1 / 40 + 1e-9)

    @given(st.lists(st.integers(0, 999), max_size=12), st.integers(0, 700), st.integers(10, 200))
    def test_a_part_is_that_of_the_whole(self, at: list[int], first: int, count: int) -> None:
        flags = voice(*((a, a + 30) for a in at))
        around = reach(0.5, 0.3) + PAUSE
        padded = np.pad(flags, 400)
        whole = stepped_back(spoken(padded), 0.5, 0.3)
        first += 400
        part = stepped_back(spoken(padded[first - around : first + count + around]), 0.5, 0.3)
        np.testing.assert_array_equal(whole[first : first + count], part[around : around + count])

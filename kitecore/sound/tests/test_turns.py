"""Whose turn it is to speak: made conversations before several microphones."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from kitecore.sound.stepping import Flags
from kitecore.sound.turns import Powers, turns_of

Turn = tuple[float, float, int]
"""Seconds from and until which one of the persons speaks."""


def conversation(
    turns: list[Turn], gains: list[list[float]], seed: int = 1
) -> tuple[Powers, Flags]:
    """Powers before microphones that hear person p by ``gains[microphone][p]`` dB, in syllables."""
    luck = np.random.default_rng(seed)
    count = round(max(end for _, end, _ in turns) * 100) + 50
    powers = np.full((len(gains), count), 1e-7) * luck.uniform(0.7, 1.4, (len(gains), count))
    said = np.zeros(count, np.bool_)
    for start, end, person in turns:
        span = slice(round(start * 100), round(end * 100))
        length = span.stop - span.start
        voice = np.repeat(luck.uniform(0.02, 1, length // 12 + 1), 12)[:length] ** 2
        said[span] = True
        for number, heard in enumerate(gains):
            powers[number, span] += 0.01 * voice * 10 ** (heard[person] / 10)
    return powers, said


NEAR: list[list[float]] = [[0, -12], [-14, 2], [-6, -6]]
"""Two before two people, one wide."""
TURNS: list[Turn] = [(0.5, 4, 0), (4.4, 9, 1), (9.8, 12, 0), (12.1, 14, 1)]


class TurnsTest(TestCase):
    def assert_turns(self, found: list[tuple[int, int]], turns: list[Turn]) -> None:
        self.assertEqual([who for _, _, who in turns], [who for _, who in found])
        for (start, _, _), (at, _) in zip(turns[1:], found[1:], strict=True):
            self.assertTrue(start - 0.5 <= at / 100 <= start + 0.25, (start, at / 100))
        self.assertEqual(0, found[0][0])

    def test_the_nearest_microphone_is_shown_from_a_little_before_the_words(self) -> None:
        self.assert_turns(turns_of(*conversation(TURNS, NEAR)), TURNS)

    @settings(max_examples=20, deadline=None)
    @given(st.lists(st.floats(-30, 20), min_size=3, max_size=3), st.integers(0, 1000))
    def test_gains_of_microphones_do_not_matter(self, gains: list[float], seed: int) -> None:
        powers, said = conversation(TURNS, NEAR, seed)
        louder = powers * 10 ** (np.array(gains)[:, None] / 10)
        self.assert_turns(turns_of(louder, said), TURNS)

    def test_one_who_speaks_nearly_always_keeps_the_picture(self) -> None:
        turns: list[Turn] = [(0, 40, 0), (40.3, 43, 1), (43.2, 60, 0)]
        self.assert_turns(turns_of(*conversation(turns, NEAR)), turns)

    def test_a_word_in_between_is_no_turn(self) -> None:
        turns: list[Turn] = [(0, 5, 0), (5.1, 5.4, 1), (5.6, 10, 0), (10.3, 14, 1)]
        self.assert_turns(turns_of(*conversation(turns, NEAR)), [turns[0], turns[3]])

    def test_where_all_hear_alike_nothing_is_told(self) -> None:
        self.assertEqual([], turns_of(*conversation(TURNS, [[0, -3], [-10, -13]])))
        powers, said = conversation(TURNS, NEAR)
        self.assertEqual([], turns_of(powers, np.zeros_like(said)))
        self.assertEqual([], turns_of(powers[:1], said))

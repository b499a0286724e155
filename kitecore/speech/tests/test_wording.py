from __future__ import annotations

import re
from itertools import pairwise
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as some

from kitecore.speech.features import energies_of
from kitecore.speech.reading import read
from kitecore.speech.wording import MOST_LETTERS, lines_of, spoken_lines

TEXT = "Paper weather today.\nFour folds up, and wind from the left.\nReel nine goes out tonight."


class LinesTest(TestCase):
    def test_own_lines_stay_and_long_ones_are_cut_where_one_breathes(self) -> None:
        text = "Short.\n\nA long line with a comma in the middle, which goes on for quite a while longer"
        self.assertEqual(
            [
                (0, "Short."),
                (8, "A long line with a comma in the middle,"),
                (48, "which goes on for quite a while longer"),
            ],
            list(lines_of(text)),
        )

    @given(some.text(alphabet="ab ,.\nü", max_size=200))
    def test_no_letter_is_lost_and_each_line_stands_where_it_says(self, text: str) -> None:
        lines = list(lines_of(text))
        for at, line in lines:
            self.assertEqual(line, text[at : at + len(line)])
            if " " in line:
                self.assertLessEqual(len(line), MOST_LETTERS)
        self.assertEqual("".join(text.split()), "".join("".join(line.split()) for _, line in lines))


class SpokenTest(TestCase):
    def test_lines_lie_where_another_voice_says_them(self) -> None:
        other = read(TEXT, "en+f3")
        # Slower, later, with a long pause before the last line.
        words = [word for word in other.words if TEXT[word.letter :].startswith("Reel")]
        at = round(words[0].begin * other.rate)
        lead, pause = np.zeros(other.rate, np.float32), np.zeros(2 * other.rate, np.float32)
        sound = np.concatenate([lead, other.sound[:at], pause, other.sound[at:]])
        noise = np.random.default_rng(3).normal(0, 1e-3, len(sound)).astype(np.float32)
        energies = energies_of(sound + noise, other.rate)
        lines = spoken_lines(TEXT, energies, read(TEXT, "en"))
        begins = {word.letter: 1 + word.begin for word in other.words}
        wanted = [begins[TEXT.index(line)] for line in TEXT.splitlines()]
        wanted[2] += 2
        self.assertEqual(TEXT.splitlines(), [line.text for line in lines])
        for line, begin in zip(lines, wanted, strict=True):
            self.assertAlmostEqual(begin, line.begin, delta=0.2)
        late = {one.letter: 2 if one.letter >= words[0].letter else 0 for one in other.words}
        found = [second for line in lines for second in line.words]
        begun = dict(zip((one.start() for one in re.finditer(r"\S+", TEXT)), found, strict=True))
        off = [abs(begun[one.letter] - (1 + one.begin + late[one.letter])) for one in other.words]
        self.assertLess(np.median(off), 0.05)
        self.assertLess(max(off), 0.25)
        # What is not said any more is not shown either.
        self.assertLess(lines[1].end, lines[2].begin - 1)
        self.assertTrue(all(a.end <= b.begin for a, b in pairwise(lines)))

    def test_nothing_is_laid_over_silence(self) -> None:
        silent = energies_of(np.zeros(48_000, np.float32), 48_000)
        self.assertEqual([], spoken_lines(TEXT, silent, read(TEXT)))

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from kitecore.document.poses import POSES, REST
from kitecore.speech.features import energies_of
from kitecore.speech.mouthing import Posed, best_runs, by_sound, by_words
from kitecore.speech.reading import read
from kitecore.speech.tests.made import FPS, LINES, NAMES, Heard, heard, read_aloud, row

VOICES = ("en+f3", "en-gb-scotland", "en-us+Andrea", "en+croak")
Pose = Callable[[Heard], list[Posed]]


def sound_alone(line: Heard) -> list[Posed]:
    return by_sound(energies_of(line.sound, line.reading.rate), line.frames, FPS)


def words_too(line: Heard) -> list[Posed]:
    energies = energies_of(line.sound, line.reading.rate)
    return by_words(energies, read_aloud(line.line), line.frames, FPS)


class MadeSpeechTest(TestCase):
    """Against speech whose sounds, with their times, the machine that made it tells."""

    def test_poses_are_right_in_most_frames(self) -> None:
        for pose, least in ((sound_alone, 0.6), (words_too, 0.75)):
            shares = [
                float((row(pose(line)) == line.truth()).mean())
                for line in (heard(text, voice) for voice in VOICES for text in LINES)
            ]
            with self.subTest(pose.__name__, shares=[round(one, 2) for one in shares]):
                self.assertGreater(np.mean(shares), least)
                self.assertGreater(min(shares), least - 0.1)

    def test_lips_meet_where_m_b_and_p_are_said(self) -> None:
        for pose, least in ((sound_alone, 0.9), (words_too, 0.95)):
            met = [
                bool((row(pose(line))[first:last] == NAMES.index(REST)).any())
                for line in (heard(text, voice) for voice in VOICES for text in LINES)
                for first, last in line.touches()
            ]
            with self.subTest(pose.__name__):
                self.assertGreater(np.mean(met), least)

    def test_it_begins_and_ends_with_the_voice(self) -> None:
        for pose in (sound_alone, words_too):
            line = heard(LINES[0], "en+f3", late=1.5)
            spoken = np.flatnonzero(row(pose(line)) != NAMES.index(REST))
            truth = np.flatnonzero(line.truth() != NAMES.index(REST))
            with self.subTest(pose.__name__):
                self.assertLessEqual(abs(int(spoken[0] - truth[0])), 2)
                self.assertLessEqual(abs(int(spoken[-1] - truth[-1])), 3)

    def test_wrong_words_are_told_by_how_sure_it_is(self) -> None:
        line = heard(LINES[0], "en+f3")
        energies = energies_of(line.sound, line.reading.rate)
        other = read("Zebras doze as bees buzz, and roses rise in the breeze, they think.")
        right, wrong = words_too(line), by_words(energies, other, line.frames, FPS)
        sure = [sum(one.sure * (one.end - one.begin) for one in rows) for rows in (right, wrong)]
        self.assertGreater(sure[0], 1.15 * sure[1])

    def test_a_mouth_moves_no_faster_than_it_can(self) -> None:
        for rate in (24, 30, 60):
            line = heard(LINES[1], "en+f3")
            energies = energies_of(line.sound, line.reading.rate)
            frames = round(line.frames * rate / FPS)
            for posed in (
                by_sound(energies, frames, rate),
                by_words(energies, read_aloud(line.line), frames, rate),
            ):
                self.assertEqual((0, frames), (posed[0].begin, posed[-1].end))
                for one, after in pairwise(posed):
                    self.assertEqual(one.end, after.begin)
                    self.assertNotEqual(one.pose, after.pose)
                shortest = min(one.end - one.begin for one in posed)
                self.assertGreaterEqual(shortest, max(2, round(0.06 * rate)))
                self.assertTrue(all(0 <= one.sure <= 1 for one in posed))

    def test_silence_and_nothing_rest(self) -> None:
        quiet = np.zeros((100, energies_of(np.zeros(160, np.float32), 16_000).shape[1]), np.float32)
        for frames in (0, 1, 3, 30):
            found = by_words(quiet - 90, read("Hello"), frames, FPS)
            self.assertEqual(frames, sum(one.end - one.begin for one in found))
            self.assertLessEqual({one.pose for one in found}, {REST})


class RunsTest(TestCase):
    @settings(deadline=None)
    @given(st.integers(0, 40), st.integers(2, 5), st.integers(0, 10_000))
    def test_every_choice_lasts(self, count: int, least: int, seed: int) -> None:
        scores = np.random.default_rng(seed).normal(0, 2, (count, len(POSES)))
        runs = best_runs(scores, least)
        self.assertEqual(count, len(runs))
        changes = [0, *(n for n in range(1, count) if runs[n] != runs[n - 1]), count]
        if count >= least:
            self.assertGreaterEqual(min(b - a for a, b in pairwise(changes)), least)

    def test_it_is_the_best_there_is(self) -> None:
        scores = np.random.default_rng(5).normal(0, 2, (7, 3))

        def worth(choices: list[int]) -> float:
            changes = sum(a != b for a, b in pairwise(choices))
            return float(scores[np.arange(7), choices].sum()) - 0.7 * changes

        allowed = []
        for number in range(3**7):
            choices = [number // 3**place % 3 for place in range(7)]
            edges = [0, *(n for n in range(1, 7) if choices[n] != choices[n - 1]), 7]
            if min(b - a for a, b in pairwise(edges)) >= 2:
                allowed.append(worth(choices))
        self.assertAlmostEqual(max(allowed), worth(best_runs(scores, 2)))

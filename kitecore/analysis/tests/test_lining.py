"""Where files go, by what is known of them; matches are told here, and found in a test of their own."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np

from kitecore.analysis.clap import ClapFound, read_clap
from kitecore.analysis.lining import Facts, Found, Unplaced, Way, lined_up
from kitecore.analysis.match import Match, read_match
from kitecore.media.folder import MediaFolder
from kitecore.media.info import Clock
from kitecore.media.tests.material import ingested, make_video, make_wav
from kitecore.sound.tests.test_alignment import RATE, part, spoken
from kitecore.ticks import TICKS_PER_SECOND as SECOND

HEARD = Facts(sounds=True)


class LiningTest(TestCase):
    def line_up(
        self, *takes: str, first: int = 0, ways: dict[str, Way] | None = None
    ) -> list[Found]:
        files = [
            Unplaced(angle=n, take=take, at=n, way=(ways or {}).get(take, "auto"))
            for n, take in enumerate(takes)
        ]
        return lined_up(files, first, self.facts, self)

    def setUp(self) -> None:
        self.asked: list[tuple[str, str]] = []
        self.claps: dict[str, ClapFound] = {}
        self.matches: dict[tuple[str, str], Match] = {}
        self.facts: dict[str, Facts] = dict.fromkeys("abcd", HEARD)

    def clap(self, take: str) -> ClapFound:
        return self.claps.get(take, ClapFound())

    def match(self, one: str, other: str) -> Match:
        self.asked.append((one, other))
        return self.matches.get((one, other), Match())

    def test_files_are_found_through_each_other(self) -> None:
        self.matches["b", "a"] = Match(at=3 * SECOND, confidence=0.9)
        self.matches["c", "b"] = Match(at=-SECOND, confidence=0.6)
        found = self.line_up("a", "b", "c")
        self.assertEqual([0, 3 * SECOND, 2 * SECOND], [one.at for one in found])
        self.assertEqual([1.0, 0.9, 0.6], [one.confidence for one in found])

    def test_drift_is_added_up_through_a_file_between(self) -> None:
        minute = 60 * SECOND
        # The clock of b gains on that of a, and that of c on that of b.
        self.matches["b", "a"] = Match(at=0, confidence=0.9, drift=1e-4, middle=0)
        self.matches["c", "b"] = Match(at=10 * minute, confidence=0.9, drift=2e-4, middle=minute)
        _, between, far = self.line_up("a", "b", "c")
        self.assertEqual(1e-4, between.drift)
        self.assertAlmostEqual(3e-4, far.drift, delta=1e-7)
        assert far.at is not None
        # Its first minute is the eleventh of b, which a has as 66 ms less.
        there = (far.at + far.middle) / SECOND
        self.assertAlmostEqual(660 / (1 + 1e-4), there, delta=1e-6)

    def test_what_matches_nothing_stays_and_says_so(self) -> None:
        [_, found] = self.line_up("a", "b")
        self.assertEqual((None, "", 0.0), (found.at, found.way, found.confidence))

    def test_timecode_then_clocks_where_nothing_is_heard(self) -> None:
        self.facts["a"] = Facts(clock=Clock(timecode=10 * SECOND, made_at=1000.0), sounds=True)
        self.facts["b"] = Facts(clock=Clock(timecode=12 * SECOND))
        self.facts["c"] = Facts(clock=Clock(made_at=1007.0))
        found = self.line_up("a", "b", "c")
        self.assertEqual([0, 2 * SECOND, 7 * SECOND], [one.at for one in found])
        self.assertEqual(["first", "timecode", "clock"], [one.way for one in found])
        self.assertLess(found[2].confidence, 0.5)

    def test_a_way_that_was_chosen_is_the_only_one(self) -> None:
        clock = Clock(timecode=SECOND, made_at=50.0)
        self.facts = {name: Facts(clock=clock, sounds=True) for name in "abc"}
        self.matches["b", "a"] = Match(at=SECOND, confidence=0.9)
        found = self.line_up("a", "b", "c", ways={"b": "hand", "c": "timecode"})
        self.assertEqual([(1, "hand"), (0, "timecode")], [(one.at, one.way) for one in found[1:]])
        self.assertEqual([], self.asked)

    def test_claps_are_held_against_each_other_where_that_is_asked_for(self) -> None:
        self.claps = {
            "a": ClapFound(at=2 * SECOND, rise=40),
            "b": ClapFound(at=5 * SECOND, rise=30),
            "c": ClapFound(at=SECOND, rise=3),
        }
        found = self.line_up("a", "b", "c", "d", ways={"b": "clap", "c": "clap"})
        self.assertEqual([0, -3 * SECOND, None, None], [one.at for one in found])
        self.assertTrue(0.4 < found[1].confidence < 0.9)
        self.assertEqual([None, 2 * SECOND, None, None], [one.clap for one in found])

    def test_markers_are_laid_on_each_other_where_that_is_asked_for(self) -> None:
        marks = {"a": 4 * SECOND, "b": SECOND, "c": None}
        for way, wanted in (("marker", [0, 3 * SECOND, None]), ("auto", [0, None, None])):
            files = [
                Unplaced(angle=n, take=take, at=0, way=way, marker=mark)  # type: ignore[arg-type]
                for n, (take, mark) in enumerate(marks.items())
            ]
            found = lined_up(files, 0, self.facts, self)
            self.assertEqual(wanted, [one.at for one in found], way)

    def test_another_file_may_be_the_one_that_stays(self) -> None:
        self.matches["a", "b"] = Match(at=-2 * SECOND, confidence=0.9)
        found = self.line_up("a", "b", first=1)
        self.assertEqual([1 - 2 * SECOND, 1], [one.at for one in found])


class MatchTest(TestCase):
    def test_takes_are_compared_once_by_what_their_files_sound_like(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        sound = spoken(11, 14)
        pair = {"far": part(sound, 0, 12), "near": part(sound, 2.5, 9)}
        for name, heard in pair.items():
            ingested(root, name, make_wav(root / "x", heard, RATE))
        up = np.repeat(part(sound, 1.25, 8), 3)
        ingested(root, "film", make_video(root / "x", frames=240, sound=up))
        near, film = MediaFolder(root / "near"), MediaFolder(root / "film")
        found = read_match(near, "far")
        assert found.at is not None
        self.assertAlmostEqual(2.5, found.at / SECOND, delta=0.001)
        self.assertGreater(found.confidence, 0.9)
        coded = read_match(film, "far")
        assert coded.at is not None
        self.assertAlmostEqual(1.25, coded.at / SECOND, delta=0.001)
        (root / "far").rename(root / "gone")
        self.assertEqual(found, read_match(near, "far"))

    def test_the_clap_of_a_take(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        luck = np.random.default_rng(5)
        sound = 0.3 * spoken(12, 6) + luck.normal(0, 1e-4, 6 * RATE).astype(np.float32)
        sound[: 3 * RATE] *= 0.2
        fall = np.exp(-np.arange(800) / 90)
        sound[32_000:32_800] += (0.8 * luck.normal(0, 1, 800) * fall).astype(np.float32)
        ingested(root, "take", make_wav(root / "x", np.clip(sound, -1, 1), RATE))
        found = read_clap(MediaFolder(root / "take"))
        assert found.at is not None
        self.assertAlmostEqual(2.0, found.at / SECOND, delta=0.003)
        self.assertGreater(found.rise, 15)
        ingested(root, "still", make_wav(root / "x", np.zeros(RATE, np.float32), RATE))
        self.assertIsNone(read_clap(MediaFolder(root / "still")).at)

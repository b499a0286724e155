"""Checks before a film goes out, on films that were made with known faults."""

from __future__ import annotations

import av
import numpy as np

from kitecore import edits
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.media.tests.material import tone
from kitecore.render.checking import checks
from kitecore.render.checking.flashes import crowded, flips
from kitecore.render.checking.pictures import (
    facts_key,
    pieces_of,
)
from kitecore.render.tests.checkcase import CheckCase, plain
from kitecore.render.tests.scene import SIZE


class PictureTest(CheckCase):
    def test_a_video_that_stands_still_is_found(self) -> None:
        def draw(number: int) -> av.VideoFrame:
            return plain(100 + number if number < 30 else 20)

        self.scene.video("a", frames=120, draw=draw, sound=tone(4.0))
        self.scene.place("a", 4.0)
        found = self.found("own")
        [(begin, end)] = self.where(found["frozen"])
        self.assertAlmostEqual(1.0, begin, delta=0.4)
        self.assertEqual(4.0, end)
        self.assertEqual([], found["empty"])

    def test_what_is_dark_all_over_is_black(self) -> None:
        self.scene.still("night", (3, 3, 4, 255), SIZE)
        self.scene.still("day", (200, 120, 90, 255), SIZE)
        self.scene.place("day", 1.0)
        self.scene.place("night", 1.0)
        self.scene.place("day", 1.0)
        found = self.found("own")
        self.assertEqual([(1.0, 2.0)], self.where(found["black"]))
        self.assertIn("black for 1.0 s", found["black"][0].message)
        self.assertEqual([], found["frozen"])

    def test_a_gap_is_empty(self) -> None:
        self.scene.still("day", (200, 120, 90, 255), SIZE)
        self.scene.place("day", 1.0)
        self.scene.place("day", 1.0, mode="above", at=2.0)
        found = self.found("own")
        self.assertEqual([(1.0, 2.0)], self.where(found["empty"]))
        self.assertEqual("bad", found["empty"][0].grade)

    def test_burnt_out_lights_are_told(self) -> None:
        self.scene.still("sun", (255, 255, 255, 255), (180, 160))
        self.scene.still("ground", (90, 90, 90, 255), SIZE)
        self.scene.place("ground", 2.0)
        self.scene.place("sun", 2.0, mode="above")
        [finding] = self.found("own")["exposure"]
        self.assertIn("50 % of the picture is as bright as it can be", finding.message)


class FlashTest(CheckCase):
    def lights(self, period: int, low: float, high: float, share: float = 1.0) -> np.ndarray:
        """Two seconds, going to and fro every ``period`` frames."""
        levels = np.full((60, 8, 16), low, np.float32)
        wide = round(16 * share)
        for number in range(60):
            if number // period % 2:
                levels[number, :, :wide] = high
        return levels

    def flashing(self, levels: np.ndarray) -> bool:
        return bool(list(crowded(flips(levels, 0.1, 0.8), 30)))

    def test_three_flashes_a_second_pass_and_four_do_not(self) -> None:
        # A flash is a pair of changes: with 5 frames each there are three a second, with 3 five.
        self.assertFalse(self.flashing(self.lights(5, 0.1, 0.5)))
        self.assertTrue(self.flashing(self.lights(3, 0.1, 0.5)))

    def test_small_weak_and_bright_ones_pass(self) -> None:
        self.assertFalse(self.flashing(self.lights(2, 0.1, 0.5, share=0.2)))
        self.assertTrue(self.flashing(self.lights(2, 0.1, 0.5, share=0.3)))
        self.assertFalse(self.flashing(self.lights(2, 0.1, 0.18)))
        self.assertFalse(self.flashing(self.lights(2, 0.82, 1.0)))

    def test_slow_changes_count_by_how_far_they_go(self) -> None:
        ramps = np.abs((np.arange(60) % 6) - 3) / 3
        levels = np.broadcast_to(ramps[:, None, None], (60, 8, 16)).astype(np.float32)
        self.assertTrue(self.flashing(levels * 0.7))

    def test_a_flashing_film_is_found_where_it_flashes(self) -> None:
        def draw(number: int) -> av.VideoFrame:
            flash = 45 <= number < 75 and number // 2 % 2
            return plain(220 if flash else 40)

        self.scene.video("a", frames=120, draw=draw, sound=None)
        self.scene.place("a", 4.0)
        [finding] = self.found("own")["flashes"]
        [(begin, end)] = self.where([finding])
        self.assertEqual("bad", finding.grade)
        self.assertTrue(1.4 <= begin <= 1.7 and 2.3 <= end <= 2.7, (begin, end))


class SoundTest(CheckCase):
    def test_silence_and_one_side(self) -> None:
        self.scene.sound("tone", 3.0)
        self.scene.place("tone", 3.0)
        self.scene.place("tone", 3.0, mode="end", pan=-1.0, at=6.0)
        self.assertEqual([], self.found("sound")["silence"])
        [side] = self.found("sound")["sides"]
        self.assertIn("Only the left side", side.message)

    def test_a_film_without_sound_says_so(self) -> None:
        self.scene.still("day", (90, 120, 90, 255), SIZE)
        self.scene.place("day", 2.0)
        self.assertEqual(
            ["The film has no sound."], [one.message for one in self.found()["silence"]]
        )
        self.assertNotIn("silence", self.found("message"))

    def test_loudness_is_brought_where_it_is_wanted(self) -> None:
        self.scene.video("a", frames=120, sound=tone(4.0) * 0.1)
        self.scene.place("a", 4.0)
        [finding] = self.found()["loudness"]
        self.assertIn("too quiet", finding.message)
        assert finding.mend is not None
        self.scene.document = edits.apply(self.scene.document, edit(**finding.mend))
        self.assertEqual([], self.found()["loudness"])
        self.assertEqual([], self.found()["peaks"])
        self.assertEqual([], self.found("own")["loudness"])


class FileTest(CheckCase):
    def test_tracks_that_are_hidden_muted_or_left_out_by_a_solo_are_told_and_put_back(self) -> None:
        self.scene.still("day", (200, 120, 90, 255), SIZE)
        self.scene.place("day", 1.0)
        self.text("Four folds up", 0.8, 0.1)
        self.scene.sound("hum", 1.0)
        clip = {"kind": "sound", "media": "hum", "length": SECOND, "source_length": SECOND}
        self.scene.do(kind="place", clip=clip, mode="above", at=0)
        self.assertEqual([], self.found("own")["left_out"])
        of = {track.clips[0].kind: track.id for track in self.scene.document.tracks}
        words, hum = of["text"], of["sound"]
        for track, values, said in (
            (words, {"hidden": True}, "hidden"),
            (words, {"solo": True}, "seen or heard"),
            (hum, {"muted": True}, "muted"),
            (hum, {"solo": True}, "no other track is heard"),
        ):
            with self.subTest(said):
                self.scene.do(kind="set_track", track=track, **values)
                [finding] = self.found("own")["left_out"]
                self.assertIn(said, finding.message)
                assert finding.mend is not None
                self.scene.do(**finding.mend)
                self.assertEqual([], self.found("own")["left_out"])

    def test_missing_takes_shapes_lengths_and_rates(self) -> None:
        self.scene.video("a", frames=100, rate=24, sound=None)
        self.scene.place("a", 4.0)
        self.scene.find("a").original.unlink()
        found = self.found("square", first=0)
        self.assertEqual(["The take of “a” is missing."], [f.message for f in found["missing"]])
        self.assertIn("cropped", found["shape"][0].message)
        self.assertIn("has 24 frames a second", found["rates"][0].message)
        self.assertEqual([], found["length"])

    def test_a_take_that_is_missing_in_a_group_is_told_at_the_group(self) -> None:
        self.scene.still("day", (90, 120, 90, 255), SIZE)
        self.scene.place("day", 2.0)
        self.scene.video("a", frames=100, rate=24, sound=None)
        self.scene.place("a", 2.0)
        last = self.scene.document.main.clips[-1]
        self.scene.do(kind="group", clips=[last.id])
        group = self.scene.document.main.clips[-1]
        self.scene.find("a").original.unlink()
        found = self.found("own")
        for finding in (found["missing"][0], found["rates"][0]):
            self.assertEqual((group.id, 2 * SECOND), (finding.clip, finding.at))

    def test_a_film_that_is_too_long(self) -> None:
        self.scene.still("day", (90, 120, 90, 255), SIZE)
        self.scene.place("day", 12.0)
        [finding] = self.found("message")["length"]
        self.assertIn("2.0 s too long", finding.message)
        self.assertEqual([(10.0, 12.0)], self.where([finding]))
        self.assertEqual([], self.found("message", last=8 * SECOND)["length"])

    def test_facts_are_named_by_what_is_seen(self) -> None:
        self.scene.still("day", (90, 120, 90, 255), SIZE)
        self.scene.place("day", 12.0)
        before = [
            facts_key(self.scene.document, p, self.scene.find)
            for p in pieces_of(self.scene.document)
        ]
        self.text("Late", 1.0, at=10)
        after = [
            facts_key(self.scene.document, p, self.scene.find)
            for p in pieces_of(self.scene.document)
        ]
        self.assertEqual(
            [True, True, True, False], [a == b for a, b in zip(before, after, strict=True)]
        )

    def test_every_check_says_what_is_well(self) -> None:
        self.scene.video("a", frames=90, sound=tone(3.0))
        self.scene.place("a", 3.0)
        self.assertEqual(set(checks), set(self.found()))

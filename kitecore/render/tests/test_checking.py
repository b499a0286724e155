"""Checks before a film goes out, on films that were made with known faults."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase
from unittest.mock import patch

import av
import numpy as np
from PIL import Image
from skimage.data import astronaut

from kitecore import edits
from kitecore.analysis.track import Track
from kitecore.analysis.voice import VOICE_SAMPLES
from kitecore.document import VideoClip
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.media.tests.material import ingested, tone
from kitecore.render.checking import Film, Finding, checks, lines_of
from kitecore.render.checking.flashes import crowded, flips
from kitecore.render.checking.pictures import (
    facts_key,
    joined,
    measure,
    packed,
    pieces_of,
    unpacked,
)
from kitecore.render.checking.sounds import sound_facts
from kitecore.render.destinations import DESTINATIONS
from kitecore.render.export import Aspect
from kitecore.render.levels import measured_stretch, stretches_of
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.sound.ramps import RATE


def plain(level: int) -> av.VideoFrame:
    pixels = np.full((SIZE[1], SIZE[0], 3), level, np.uint8)
    pixels[:40, :40] = 90
    return av.VideoFrame.from_ndarray(pixels, format="rgb24")


class CheckCase(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.scene = Scene(self.root)

    def found(self, destination: str = "upright", **settings: Any) -> dict[str, list[Finding]]:
        place = next(one for one in DESTINATIONS if one.id == destination)
        wanted = place.settings.model_copy(update=settings)
        place = place.model_copy(update={"settings": wanted})
        document = self.scene.document
        sources = Sources(self.scene.find)
        self.addCleanup(sources.close)
        parts = [measure(document, numbers, sources) for numbers in pieces_of(document)]
        heard = [measured_stretch(document, at, sources) for at in range(stretches_of(document))]
        film = Film(
            document,
            wanted.work(document),
            place,
            joined([unpacked(packed(part)) for part in parts]),
            sound_facts(heard),
            sources,
        )
        return {line.check: list(line.findings) for line in lines_of(film)}

    def where(self, findings: list[Finding]) -> list[tuple[float, float]]:
        return [
            (round((one.at or 0) / SECOND, 2), round((one.until or 0) / SECOND, 2))
            for one in findings
        ]

    def text(self, text: str, seconds: float, at: float = 0, **more: Any) -> None:
        clip = {"kind": "text", "text": text, "length": round(seconds * SECOND), **more}
        self.scene.do(kind="place", clip=clip, mode="above", at=round(at * SECOND))

    def photograph(self, seconds: float, **place: Any) -> None:
        if not (self.root / "person").exists():
            ingested(self.root, "person", self._file())
        self.scene.place("person", seconds, place={"fit": "own", **place})

    def _file(self) -> Path:
        path = self.root / "person.png"
        Image.fromarray(astronaut()[:300, 80:380]).resize((160, 160)).save(path)
        return path


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


class CoverTest(CheckCase):
    """A thing is followed for a second; what was found of it is given."""

    def setUp(self) -> None:
        super().setUp()
        self.scene.video("walk", frames=30, draw=plain)

    def covered(self, sure: list[int], **more: Any) -> list[Finding]:
        self.scene.place("walk", 1.0)
        [clip] = self.scene.document.main.clips
        quad = [[-0.1, -0.1], [0.1, -0.1], [0.1, 0.1], [-0.1, 0.1]]
        tracker = {
            "change": "moves",
            "views": [{"at": 0, "corners": quad}],
            "first": 0,
            "last": SECOND * 29 // 30,
        }
        self.scene.do(kind="add_item", clips=[clip.id], list="trackers", item=tracker)
        [clip] = self.scene.document.main.clips
        assert isinstance(clip, VideoClip)
        found = Track(0, np.zeros((30, 4, 2), np.float32) + quad, np.array(sure, np.uint8))
        self.enterContext(patch.object(Sources, "track", return_value=found))
        cover = {"clip": clip.id, "tracker": clip.trackers[0].id, "centre": [0, 0]}
        self.scene.do(kind="cover_tracked", **cover, size=[0.1, 0.1], **more)
        return self.found("own")["covers"]

    def test_a_sure_cover_is_well(self) -> None:
        self.assertEqual([], self.covered([255] * 30))

    def test_where_it_is_lost_or_unsure_is_told(self) -> None:
        for how in ("mosaic", "plain"):
            self.scene = Scene(self.root)
            found = self.covered([255] * 12 + [0] * 6 + [255] * 6 + [140] * 3 + [255] * 3, how=how)
            self.assertEqual([(0.4, 0.6), (0.8, 0.9)], self.where(found))
            self.assertIn("is not found for 0.2 s", found[0].message)
            self.assertIn("is not surely found", found[1].message)

    def test_covers_in_a_group_are_told_when_they_are_seen(self) -> None:
        self.covered([255] * 12 + [0] * 6 + [255] * 12)
        clips = [clip.id for _, clip in self.scene.document.clips()]
        self.scene.do(kind="group", clips=clips)
        [group] = self.scene.document.main.clips
        self.scene.do(kind="set_speed", clips=[group.id], factor=0.5)
        [found] = self.found("own")["covers"]
        self.assertEqual([(0.8, 1.2)], self.where([found]))
        self.assertEqual(group.id, found.clip)

    def test_a_face_that_is_seen_while_others_are_covered_is_told(self) -> None:
        self.assertEqual([], self.covered([255] * 30))
        self.photograph(1.0)
        [found] = self.found("own")["covers"]
        self.assertEqual([(1.0, 2.0)], self.where([found]))
        self.assertIn("can be made out for 1.0 s", found.message)


class FacesTest(CheckCase):
    """A photograph of one person: her face lies in the upper middle."""

    def test_a_face_at_the_edge_is_found_as_long_as_it_is_there(self) -> None:
        self.photograph(2.0)
        self.photograph(2.0, position=[78, 0])
        self.photograph(2.0)
        found = self.found("own")["faces"]
        self.assertEqual([(2.0, 4.0)], self.where(found))

    def test_in_another_shape_it_is_another_edge(self) -> None:
        self.photograph(1.0, position=[0, -95])
        self.assertEqual([], self.found("own")["faces"])
        square = {"shape": Aspect(width=1, height=1), "fit": "fill"}
        self.assertEqual([(0.0, 1.0)], self.where(self.found("own", **square)["faces"]))

    def test_one_that_is_not_in_the_file_is_not_missed(self) -> None:
        self.photograph(1.0, position=[0, -95])
        self.photograph(1.0, position=[0, -95], size=[0.5, 0.5])
        wide = {"shape": Aspect(width=16, height=9), "fit": "fill"}
        self.assertEqual([], self.found("own", **wide)["faces"])

    def test_without_the_model_it_says_so(self) -> None:
        self.photograph(0.5)
        with patch("kitecore.render.checking.faces.can_find_faces", return_value=False):
            [finding] = self.found("own")["faces"]
        self.assertIn("not installed", finding.message)
        self.assertIsNone(finding.at)


class UncaptionedTest(CheckCase):
    """A voice speaks from second one to second three: so it is told of the take."""

    def setUp(self) -> None:
        super().setUp()
        said = np.zeros(4 * RATE // VOICE_SAMPLES, np.uint8)
        said[len(said) // 4 : 3 * len(said) // 4] = 255
        self.enterContext(patch.object(Sources, "voice", return_value=said))
        self.scene.video("line", frames=120, draw=plain, sound=tone(4.0))
        self.scene.place("line", 4.0)

    def test_speech_without_captions_is_told(self) -> None:
        [finding] = self.found("own")["uncaptioned"]
        self.assertIn("for 2 s, and there are no captions", finding.message)
        self.assertAlmostEqual(SECOND, finding.at or 0, delta=SECOND / 5)

    def test_captions_or_a_muted_voice_are_well(self) -> None:
        cues = [{"at": 0, "until": SECOND, "text": "Wind from the north"}]
        captioned = edits.apply(self.scene.document, edit(kind="lay_captions", cues=cues))
        main = self.scene.document.main.id
        muted = edits.apply(self.scene.document, edit(kind="set_track", track=main, muted=True))
        for document in (captioned, muted):
            self.scene.document = document
            self.assertEqual([], self.found("own")["uncaptioned"])


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


class WordsTest(CheckCase):
    def setUp(self) -> None:
        super().setUp()
        self.scene.still("day", (90, 120, 90, 255), SIZE)
        self.scene.place("day", 4.0)

    def test_words_outside_are_found_and_moved_in(self) -> None:
        self.text("Four folds up", 3.0, size=20, width=0, place={"position": [0, 140]})
        self.text("Inside", 3.0, size=20, width=0, place={"position": [0, 0]})
        [finding] = self.found()["safe"]
        self.assertIn("“Four folds up” leaves the safe area", finding.message)
        assert finding.mend is not None
        self.scene.document = edits.apply(self.scene.document, edit(**finding.mend))
        self.assertEqual([], self.found()["safe"])

    def test_words_that_are_too_small_or_too_short(self) -> None:
        self.text("Tiny words", 3.0, size=8, width=0, place={"size": [0.5, 0.5]})
        self.text("So many words that nobody can read all of them", 1.0, size=12, width=160)
        found = self.found("own")
        self.assertEqual(["“Tiny words” is hard to read in this size."], self.told(found["small"]))
        [short] = found["short"]
        self.assertIn("shows for 1.0 s; to read it takes 3.", short.message)

    def grouped(self, text: str, **group: Any) -> str:
        """A group of that text and another, from one second on; its id."""
        self.text(text, 2.0, at=1.0, size=20, width=0, place={"position": [0, 60]})
        self.text("Beside it", 2.0, at=1.0, size=20, width=0)
        clips = [clip.id for _, clip in self.scene.document.clips() if clip.start == SECOND]
        self.scene.do(kind="group", clips=clips)
        [made] = [clip for _, clip in self.scene.document.clips() if clip.kind == "group"]
        if group:
            self.scene.do(kind="adjust", clips=[made.id], values=group)
        return made.id

    def test_words_in_a_group_are_found_where_they_are_seen(self) -> None:
        group = self.grouped("Four folds up", **{"place/position": [0, 60]})
        [finding] = self.found()["safe"]
        self.assertIn("“Four folds up” leaves the safe area", finding.message)
        self.assertEqual((group, None), (finding.clip, finding.mend))
        self.assertGreater(finding.at, SECOND)
        self.scene.do(kind="adjust", clips=[group], values={"place/position": [0, 0]})
        self.assertEqual([], self.found()["safe"])

    def test_words_in_a_group_are_as_small_and_short_as_that_makes_them(self) -> None:
        group = self.grouped(
            "Words that take two whole seconds to read", **{"place/size": [0.2, 0.2]}
        )
        small = self.found("own")["small"]
        self.assertEqual(2, len(small))
        self.assertEqual({group}, {one.clip for one in small})
        self.scene.do(kind="adjust", clips=[group], values={"place/size": [1, 1]})
        self.scene.do(kind="set_speed", clips=[group], factor=2)
        found = self.found("own")
        self.assertEqual([], found["small"])
        self.assertIn("shows for 1.0 s", found["short"][0].message)
        self.assertEqual((SECOND, 2 * SECOND), (found["short"][0].at, found["short"][0].until))

    def test_captions_that_are_too_fast(self) -> None:
        cues = [
            {"at": 0, "until": SECOND, "text": "Quite a lot to be read in one second"},
            {"at": SECOND, "until": 3 * SECOND, "text": "Easy to read"},
        ]
        self.scene.do(kind="lay_captions", cues=cues)
        found = self.found("own")
        [fast] = self.told(found["captions"])
        self.assertIn("“Quite a lot to be read i” is too fast to read: 28 letters", fast)
        self.assertEqual([], found["short"])

    def told(self, findings: list[Finding]) -> list[str]:
        return [one.message for one in findings]


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

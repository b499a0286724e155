"""A mouth in a film: where it is, what it does with a voice there, how it is drawn."""

from __future__ import annotations

import tempfile
from functools import cache
from pathlib import Path
from typing import Any
from unittest import TestCase

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document import Document, MouthClip, all_clips, empty_document
from kitecore.document.canvas import Canvas
from kitecore.edits import apply
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import BadInput, EditRefused, NotThere
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_wav
from kitecore.render.captioning import captioned
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.mouths import SIDE, mouthed, pose_pictures, seat_of, voice_picture
from kitecore.render.sources import Sources
from kitecore.speech.reading import read
from kitecore.ticks import Span

LINE = "My mum opens a paper map. Five thin shoes."
SIZE = (320, 320)
LATE = SECOND
"""Ticks of the film at which the voice begins."""


@cache
def spoken() -> NDArray[np.float64]:
    reading = read(LINE, "en+f3")
    at = np.arange(round(len(reading.sound) / reading.rate * 48_000)) / 48_000
    return np.interp(at, np.arange(len(reading.sound)) / reading.rate, reading.sound)


class MouthTest(TestCase):
    def setUp(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        make_wav(root / "line.wav", spoken())
        ingested(root / "takes", "voice", root / "line.wav")
        self.sources = Sources(lambda media: MediaFolder(root / "takes" / media))
        self.addCleanup(self.sources.close)
        self.length = len(spoken()) * SECOND // 48_000
        self.document = empty_document(Canvas(width=1080, height=1080))
        self.do(kind="place", clip={"kind": "solid", "length": 9 * SECOND}, mode="end")
        clip = {"kind": "sound", "media": "voice", "source_length": self.length}
        frames = self.length // (SECOND // 30) * (SECOND // 30)
        self.do(kind="place", clip=clip | {"length": frames}, mode="above", at=LATE)
        self.do(kind="add_layer", layer="mouth", at=0, length=6 * SECOND)

    def do(self, **fields: Any) -> None:
        self.document = apply(self.document, edit(**fields))

    @property
    def mouth(self) -> MouthClip:
        return next(c for c in all_clips(self.document.tracks) if isinstance(c, MouthClip))

    def led(self, **voice: Any) -> list[tuple[float, str]]:
        found = mouthed(self.document, self.mouth.id, voice, self.sources)
        return [(one["at"] / SECOND, one["pose"]) for one in found["turns"]]

    def shown(self, seconds: float, document: Document | None = None) -> NDArray[np.int64]:
        drawn = render(document or self.document, round(seconds * SECOND), SIZE, self.sources)
        return drawn[..., :3].astype(np.int64)


class VoiceTest(MouthTest):
    def test_poses_come_with_the_voice_and_rest_before_and_after(self) -> None:
        for voice in ({"by": "sound"}, {"by": "words", "text": LINE}):
            found = self.led(**voice)
            open_at = [at for at, pose in found if pose != "closed"]
            with self.subTest(**voice):
                self.assertEqual((0.0, "closed"), found[0])
                self.assertAlmostEqual(1.1, open_at[0], delta=0.15)
                self.assertLess(open_at[-1], 1 + self.length / SECOND)
                self.assertEqual("closed", found[-1][1])

    def test_it_is_the_same_within_a_group_that_begins_later(self) -> None:
        plain = self.led()
        self.do(kind="group", clips=[self.mouth.id], seed="head")
        self.assertEqual(plain, self.led())
        [group] = [c for _, c in self.document.clips() if c.kind == "group"]
        self.do(kind="cut_away", clips=[group.id], side="left", at=SECOND // 2)
        self.assertEqual(SECOND // 2, seat_of(self.document, self.mouth.id).low)
        later = self.led()
        self.assertEqual(0.5, later[0][0])
        # What is usual in the sound is another by a little.
        self.assertGreater(len(set(plain) & set(later)), 0.7 * len(plain))

    def test_tracks_are_chosen(self) -> None:
        [voice] = [t.id for t in self.document.tracks if t.kind == "sound" and t.clips]
        self.assertEqual(self.led(), self.led(tracks=[voice]))
        with self.assertRaises(EditRefused):
            self.led(tracks=[self.document.main.id])

    def test_two_mouths_say_each_what_its_own_voice_says(self) -> None:
        [first] = [t.id for t in self.document.tracks if t.kind == "sound" and t.clips]
        known = {track.id for track in self.document.tracks}
        frames = self.length // (SECOND // 30) * (SECOND // 30)
        clip = {"kind": "sound", "media": "voice", "source_length": self.length, "length": frames}
        self.do(kind="place", clip=clip, mode="above", at=LATE + SECOND, seed="second")
        [second] = [t.id for t in self.document.tracks if t.id not in known and t.clips]
        self.do(kind="add_layer", layer="mouth", at=0, length=7 * SECOND, seed="other")
        mouths = [c.id for c in all_clips(self.document.tracks) if isinstance(c, MouthClip)]
        said = [
            mouthed(self.document, mouth, {"tracks": [track]}, self.sources)["turns"]
            for mouth, track in zip(mouths, (first, second), strict=True)
        ]
        begins = [next(t["at"] for t in turns if t["pose"] != "closed") for turns in said]
        self.assertAlmostEqual(1.0, abs(begins[1] - begins[0]) / SECOND, delta=0.05)
        # Both at once are another thing to hear.
        both = mouthed(self.document, mouths[0], {"tracks": [first, second]}, self.sources)
        self.assertNotEqual(said[0], both["turns"])

    def test_pauses_are_where_nobody_speaks(self) -> None:
        found = mouthed(self.document, self.mouth.id, {"by": "pauses"}, self.sources)
        first, last = found["pauses"][0], found["pauses"][-1]
        self.assertEqual(0, first[0])
        self.assertAlmostEqual(1.0, first[1] / SECOND, delta=0.3)
        self.assertEqual(6 * SECOND, last[1])
        self.do(kind="rest_in", clip=self.mouth.id, spans=found["pauses"])

    def test_what_cannot_be_led_is_refused(self) -> None:
        with self.assertRaises(NotThere):
            mouthed(self.document, "nobody", {}, self.sources)
        with self.assertRaises(BadInput):
            self.led(by="words", text="")
        self.do(kind="set_speed", clips=[self.mouth.id], factor=2.0)
        with self.assertRaises(EditRefused):
            self.led()

    def test_pictures_of_voice_and_poses(self) -> None:
        mouth, ticks = self.mouth.id, (0, 4 * SECOND)
        data = voice_picture(self.document, mouth, ticks, [], 200, self.sources)
        shown = cv2.imdecode(np.frombuffer(data, np.uint8), cv2.IMREAD_COLOR)
        self.assertEqual(200, shown.shape[1])
        wave = shown[:40].max(axis=(0, 2))
        # Nothing but a line is heard in the first second.
        self.assertGreater(shown[:40, 60:160].mean(), 2 * shown[:40, :40].mean())
        self.assertGreater(wave[80], 150)
        data = pose_pictures(self.document, mouth, self.sources)
        shown = cv2.imdecode(np.frombuffer(data, np.uint8), cv2.IMREAD_COLOR)
        self.assertEqual((SIDE, 8 * SIDE), shown.shape[:2])


class DrawnTest(MouthTest):
    def say(self, *taps: tuple[float, str]) -> None:
        told = [{"at": round(at * SECOND), "pose": pose} for at, pose in taps]
        self.do(kind="say", clip=self.mouth.id, taps=told)

    def dark(self, seconds: float) -> int:
        """How much is seen of what is behind the lips, in pixels."""
        picture = self.shown(seconds)
        inside = np.array([0x3A, 0x16, 0x20])
        return int((np.abs(picture - inside).max(axis=-1) < 12).sum())

    def test_moving_it_opens_gradually_about_the_change(self) -> None:
        self.say((2, "open"), (4, "closed"))
        self.do(kind="mouth_way", clip=self.mouth.id, way={"kind": "moving", "lasting": 0.4})
        dark = [self.dark(at) for at in (1.75, 1.9, 2.0, 2.1, 2.25)]
        self.assertEqual(sorted(dark), dark)
        self.assertLess(dark[0], 0.05 * dark[-1])
        self.assertAlmostEqual(0.4, dark[2] / dark[-1], delta=0.25)

    def test_swapped_it_is_one_pose_or_the_other(self) -> None:
        self.say((2, "open"))
        self.do(kind="mouth_way", clip=self.mouth.id, way={"kind": "swapped"})
        before, after = self.shown(1.9), self.shown(2.0)
        np.testing.assert_array_equal(self.shown(0), before)
        np.testing.assert_array_equal(self.shown(3), after)
        self.assertGreater(np.abs(before - after).max(), 60)

    def test_bouncing_it_swings_and_settles_as_swapped(self) -> None:
        self.say((2, "open"))
        way = {"kind": "bouncing", "bounce": 0.4, "settling": 0.5}
        self.do(kind="mouth_way", clip=self.mouth.id, way=way)
        high = [self._height(at) for at in (2.0, 2.1, 2.2, 2.6, 3.0)]
        self.assertGreater(high[0], 1.25 * high[-1])
        self.assertEqual(high[-2], high[-1])

    def _height(self, seconds: float) -> int:
        rows = np.flatnonzero((self.shown(seconds) - self.shown(seconds)[0, 0]).any(axis=(1, 2)))
        return int(rows[-1] - rows[0])

    def test_what_is_said_later_leaves_pieces_before_as_they_are(self) -> None:
        self.say((1, "open"), (2, "round"))

        def name(begin: float, end: float) -> str:
            span = Span(round(begin * SECOND), round(end * SECOND))
            return content_key(self.document, span, lambda media: MediaFolder(Path("/no")))

        for way in ("moving", "swapped", "bouncing"):
            if self.mouth.way.kind != way:
                self.do(kind="mouth_way", clip=self.mouth.id, way={"kind": way})
            early, late = name(0, 1.5), name(4, 5)
            self.say((4.5, "wide"))
            with self.subTest(way):
                self.assertEqual(early, name(0, 1.5))
                self.assertNotEqual(late, name(4, 5))
            self.do(kind="remove_turns", clip=self.mouth.id, at=[round(4.5 * SECOND)])


class CaptionTest(MouthTest):
    def test_words_lie_where_the_film_says_them(self) -> None:
        text = "My mum opens a paper map.\nFive thin shoes."
        first, second = captioned(self.document, {"text": text}, self.sources)["cues"]
        own = read(LINE, "en+f3")
        later = next(word.begin for word in own.words if LINE[word.letter :].startswith("Five"))
        self.assertEqual(text.splitlines(), [first["text"], second["text"]])
        self.assertAlmostEqual(1.0, first["at"] / SECOND, delta=0.2)
        self.assertAlmostEqual(1.0 + later, second["at"] / SECOND, delta=0.2)
        self.assertAlmostEqual(1.0 + len(spoken()) / 48_000, second["until"] / SECOND, delta=0.5)
        self.do(kind="lay_captions", cues=[first, second])

    def test_a_mute_film_says_nothing(self) -> None:
        with self.assertRaisesRegex(EditRefused, "Nothing is heard"):
            captioned(empty_document(), {"text": "Hello"}, self.sources)

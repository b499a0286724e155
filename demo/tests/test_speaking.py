"""Three birds as the demo makes them: each has a mouth of its own way, and they say the line together."""

from __future__ import annotations

import tempfile
import wave
from pathlib import Path
from unittest import TestCase

from demo.project import Source
from demo.sounds import LINE, speak
from demo.speaking import VOICE, speaking_edits
from kitecore.document import MouthClip, TextClip, all_clips, check, empty_document
from kitecore.document.clips.mouth import may_move
from kitecore.ticks import TICKS_PER_SECOND


class SpeakingTest(TestCase):
    def setUp(self) -> None:
        voice = Path(self.enterContext(tempfile.TemporaryDirectory())) / VOICE
        speak(voice)
        with wave.open(str(voice)) as file:
            self.seconds = file.getnframes() / file.getframerate()
        length = round(self.seconds * TICKS_PER_SECOND)
        takes = {"evening-sheet.jpg": Source("m0", 0), VOICE: Source("m1", length)}
        document = empty_document()
        for edit in speaking_edits(takes, voice):
            document = edit.apply(document)
        check(document)
        self.captions = [one for one in all_clips(document.tracks) if isinstance(one, TextClip)]
        self.mouths = [one for one in all_clips(document.tracks) if isinstance(one, MouthClip)]

    def test_each_has_its_way(self) -> None:
        self.assertEqual(["swapped", "bouncing", "moving"], [one.way.kind for one in self.mouths])
        self.assertTrue(all(map(may_move, self.mouths)))

    def test_its_words_are_lit_as_they_are_said(self) -> None:
        self.assertEqual(LINE.split(), " ".join(one.first_words for one in self.captions).split())
        begins = [at for one in self.captions for at in one.begins]
        self.assertEqual(sorted(begins), begins)
        self.assertGreater(len(begins), 0.8 * len(LINE.split()))
        self.assertTrue(all(one.lit for one in self.captions))

    def test_they_speak_while_the_line_is_heard(self) -> None:
        for mouth in self.mouths:
            with self.subTest(mouth.way.kind):
                self.assertGreater(len(mouth.turns), 3 * self.seconds)
                self.assertEqual("closed", mouth.pose_at(mouth.length - 1))
                said = {turn.pose for turn in mouth.turns}
                self.assertLessEqual({"closed", "open", "round", "smile"}, said)

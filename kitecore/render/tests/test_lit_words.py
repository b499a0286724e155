"""Words of a text, lit while they are said."""

from __future__ import annotations

from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as some

from kitecore.document import Document, TextClip, empty_document
from kitecore.picture.layer import Rgba
from kitecore.render.frame import render, render_planes
from kitecore.render.painters.saying import word_at
from kitecore.render.repeats import frames_of
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import Scene

SECOND = 705_600_000
FRAME = SECOND // 30
SIZE = (360, 640)
PLAIN, LAMP = "#fff4e2", "#2f9f4c"


def text(words: str, **more: Any) -> TextClip:
    fields = {"length": 3 * SECOND, "text": words, "lit": {"kind": "plain", "colour": LAMP}}
    return TextClip.model_validate({"id": "words", **fields, **more})


def film(clip: TextClip) -> Document:
    document = empty_document()
    return document.with_track(document.tracks[1].with_clips((clip,)))


class LitWordsTest(TestCase):
    def setUp(self) -> None:
        self.sources = Sources(Scene(Path("nowhere")).find)
        self.addCleanup(self.sources.close)

    def drawn(self, clip: TextClip, tick: int) -> Rgba:
        return render(film(clip), tick, SIZE, self.sources)

    def shines(self, clip: TextClip, tick: int) -> list[bool]:
        """Of each column in which something is drawn whether it is drawn in the colour of the lamp."""
        lit = clip.model_copy(update={"fill": clip.lit, "lit": None})
        now, bright = self.drawn(clip, tick), self.drawn(lit, tick)
        plain = self.drawn(clip.model_copy(update={"lit": None}), tick)
        columns = np.flatnonzero((bright != plain).any(axis=(0, 2)))
        is_lit = [bool((now[:, x] == bright[:, x]).all()) for x in columns]
        for x, shining in zip(columns, is_lit, strict=True):
            np.testing.assert_array_equal(now[:, x], (bright if shining else plain)[:, x])
        return is_lit

    def test_one_word_after_another_and_nothing_else_changes(self) -> None:
        clip = text("wind up", said={"keys": [{"at": 0, "value": 1}, {"at": SECOND, "value": 2}]})
        first, then = self.shines(clip, 0), self.shines(clip, SECOND)
        self.assertEqual(first, [not one for one in then])
        self.assertTrue(first[0] and not first[-1])

    def test_what_was_said_stays_lit_on_request(self) -> None:
        clip = text("wind up", said=2, lit_stays=True)
        self.assertTrue(all(self.shines(clip, 0)))
        self.assertFalse(any(self.shines(text("wind up", said=0, lit_stays=True), 0)))

    def test_from_right_to_left_the_first_word_is_the_last_column(self) -> None:
        shines = self.shines(text("רוח מעלה", said=1), 0)
        self.assertTrue(shines[-1] and not shines[0])

    def test_words_that_are_no_longer_there_light_nothing(self) -> None:
        self.assertFalse(any(self.shines(text("wind", said=5), 0)))
        self.assertEqual(0, word_at(text("  "), 0))

    def test_frames_between_two_words_are_drawn_once(self) -> None:
        document, drawn = film(text("one two three")), []

        def draw(*given: Any) -> Any:
            drawn.append(given[1])
            return render_planes(*given)

        frames = list(frames_of(document, range(90), SIZE, self.sources, draw))
        self.assertEqual(90, len(frames))
        self.assertEqual(3, len(drawn))

    @given(some.text(alphabet="ab \n", min_size=1, max_size=40), some.integers(0, 3 * SECOND - 1))
    def test_words_by_their_letters_come_in_order_and_all_of_them(
        self, words: str, at: int
    ) -> None:
        clip = text(words)
        count = len(words.split())
        now, later = word_at(clip, at), word_at(clip, min(at + FRAME, clip.length - 1))
        self.assertTrue(0 <= now <= later <= count)
        self.assertEqual(min(1, count), word_at(clip, 0))
        self.assertEqual(count, word_at(clip, clip.length - 1))

    def test_words_that_change_are_lit_within_the_time_of_each(self) -> None:
        keys = [{"at": 0, "value": "one two"}, {"at": 2 * SECOND, "value": "three"}]
        clip = text("").model_copy(update={"text": text("", text={"keys": keys}).text})
        told = [word_at(clip, at) for at in (0, round(1.5 * SECOND), 2 * SECOND)]
        self.assertEqual([1, 2, 1], told)

"""What changes at its keys and stands between them: the words of a text, what is painted of a mask."""

from __future__ import annotations

from typing import Any

import numpy as np

from kitecore.document import TextClip
from kitecore.exchange.captions import read_captions, write_captions
from kitecore.render.frame import render
from kitecore.render.tests.scene import SECOND, SIZE
from kitecore.render.tests.test_layers import WHITE, LayerScene

FRAME = SECOND // 30


def keyed(*values: Any) -> dict[str, Any]:
    """A key every tenth frame."""
    return {"keys": [{"at": n * 10 * FRAME, "value": value} for n, value in enumerate(values)]}


class WordsTest(LayerScene):
    def shown_as(self, words: Any, frame: int) -> np.ndarray:
        [text] = [clip for _, clip in self.document.clips() if clip.kind == "text"]
        self.scene.do(kind="adjust", clips=[text.id], values={"text": words})
        return self.shown(frame * FRAME)

    def test_each_stands_until_the_next(self) -> None:
        self.add("text", "words", size=40, width=170)
        shown = [self.shown_as(keyed("1", "22", "333"), frame) for frame in (0, 9, 10, 19, 20, 29)]
        plain = [self.shown_as(words, 0) for words in ("1", "1", "22", "22", "333", "333")]
        for one, other in zip(shown, plain, strict=True):
            np.testing.assert_array_equal(one, other)
        self.assertTrue((plain[0] != plain[2]).any())

    def test_they_are_told_one_after_another(self) -> None:
        text = TextClip(
            start=SECOND,
            length=SECOND,
            text=keyed("one", "one", "two"),  # type: ignore[arg-type]
        )
        told = [
            ((one.begin - SECOND) // FRAME, (one.end - SECOND) // FRAME, one.words)
            for one in text.sayings
        ]
        self.assertEqual([(0, 20, "one"), (20, 30, "two")], told)
        before = text.trimmed(SECOND + 25 * FRAME, 2 * SECOND)
        self.assertEqual(["two"], [one.words for one in before.sayings])
        self.assertEqual("one", text.first_words)

    def test_captions_are_written_as_they_change(self) -> None:
        self.add("text", "words", text=keyed("one", "two"))
        track = next(
            track for track in self.document.tracks if track.clips and track.kind != "main"
        )
        captions = track.model_copy(update={"captions": True})
        written = write_captions(self.document.with_track(captions), "srt")
        read = read_captions(written.encode()).cues
        self.assertEqual(["one", "two"], [cue.text for cue in read])


class PaintedTest(LayerScene):
    def test_what_is_painted_stands_until_it_is_painted_anew(self) -> None:
        dots = [[{"points": [[x, 0.0]], "width": 0.1}] for x in (-0.2, 0.2)]
        mask = {"kind": "brush", "strokes": keyed(*dots)}
        self.solid("light", WHITE, masks=[mask])
        for frame, side in ((0, 0), (9, 0), (10, 1), (29, 1)):
            halves = np.array_split(
                render(self.document, frame * FRAME, SIZE, self.sources())[..., 1], 2, axis=1
            )
            lit = [bool((half > 200).any()) for half in halves]
            self.assertEqual([side == 0, side == 1], lit, frame)

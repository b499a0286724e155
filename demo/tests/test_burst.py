"""The burst as the demo makes it: whole before and after, gone between, all on its marker."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np

from demo.burst import BURST, LENGTH, SHARED, burst_edits
from demo.project import Source, ticks_of
from demo.stills import make_stills
from kitecore.document import Document, empty_document
from kitecore.document.canvas import Canvas
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested
from kitecore.render.compose import solitary
from kitecore.render.frame import render, stage_of
from kitecore.render.sources import Sources

SIZE = (270, 480)


class BurstTest(TestCase):
    def setUp(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        takes = {}
        for number, path in enumerate(make_stills(root)):
            ingested(root / "takes", f"m{number}", path)
            takes[path.name] = Source(f"m{number}", 0)
        document = empty_document(Canvas(width=1080, height=1920))
        for edit in burst_edits({name: takes[name] for name in SHARED}):
            document = edit.apply(document)
        self.document: Document = document
        self.sources = Sources(lambda media: MediaFolder(root / "takes" / media))
        self.addCleanup(self.sources.close)

    def kite(self, seconds: float) -> np.ndarray:
        [clip] = [one for _, one in self.document.clips() if one.name == "kite"]
        stage = stage_of(self.document, SIZE, self.sources)
        return solitary(clip, ticks_of(seconds), stage)  # type: ignore[arg-type]

    def test_it_is_whole_until_the_marker_and_at_the_end(self) -> None:
        whole = self.kite(0)
        for seconds in (BURST, BURST + 3, LENGTH - 0.1):
            np.testing.assert_array_equal(whole, self.kite(seconds))
        [marker] = self.document.markers
        self.assertEqual(ticks_of(BURST), marker.at)

    def test_between_its_middle_is_empty(self) -> None:
        centre = np.s_[160:260, 110:160, 3]
        self.assertGreater(self.kite(0)[centre].mean(), 200)
        self.assertLess(self.kite(BURST + 1)[centre].mean(), 60)

    def test_colours_flash_for_three_frames(self) -> None:
        def shown(frame: int) -> np.ndarray:
            tick = ticks_of(BURST) + frame * ticks_of(1 / 30)
            return render(self.document, tick, SIZE, self.sources)[..., :3].astype(int)

        before = shown(-1)
        for frame in (0, 1, 2):
            self.assertGreater(np.abs(shown(frame) - before).mean(), 60)
        self.assertLess(np.abs(shown(3) - before).mean(), 40)

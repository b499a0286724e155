"""Interlaced takes, as cameras for television made them."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.media.folder import MediaFolder
from kitecore.media.ingest import ingest
from kitecore.media.pixels import to_rgba
from kitecore.media.reader import open_original, open_proxy
from kitecore.media.tests.material import ingested, make_video
from kitecore.media.wishes import Wishes, keep_wishes, wishes_of
from kitecore.render.sources import Sources

SIZE = (320, 240)
STEP = 8
"""Pixels that the bar moves from one field to the next."""
GROUND, BAR = 40, 220


def fields(number: int) -> av.VideoFrame:
    """A bar that moves, its upper field first; a row of dots that stands."""
    picture = np.full((SIZE[1], SIZE[0], 3), GROUND, np.uint8)
    for field in (0, 1):
        left = STEP * (2 * number + field)
        picture[field:200:2, left : left + 40] = BAR
    picture[220:222, ::20] = BAR
    frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
    return frame.reformat(format="yuv420p", dst_colorspace="ITU601", dst_color_range="MPEG")


def combed(picture: NDArray[np.uint8]) -> float:
    """How much neighbouring rows differ where the bar is."""
    rows = picture[20:180, :, 0].astype(int)
    return float(np.abs(np.diff(rows, axis=0)).max())


class FieldsTest(TestCase):
    def take(self, interlaced: bool) -> object:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        options = {"qp": "4", "bf": "0"}
        if interlaced:
            options |= {"flags": "+ildct+ilme", "x264-params": "interlaced=1:tff=1"}
        path = make_video(
            root / "x", frames=30, rate=25, size=SIZE, options=options, gop=10, draw=fields
        )
        return ingested(root, "take", path)

    def test_the_comb_is_gone_and_each_frame_is_where_it_was(self) -> None:
        folder = self.take(interlaced=True)
        self.assertTrue(folder.info.picture.interlaced)
        for opened in (open_original, open_proxy):
            reader = opened(folder)
            self.addCleanup(reader.close)
            for number in (0, 1, 2, 12, 11, 10, 9, 14, 3):
                shown = to_rgba(reader.frame(number), reader.picture, SIZE)
                self.assertLess(combed(shown), 60)
                columns = np.flatnonzero(shown[100, :, 0] > 130)
                # The encoder marks the lower field as the first, which is a step ahead.
                self.assertLessEqual(abs(columns[0] - STEP * (2 * number + 1)), 3)

    def test_the_same_frame_comes_after_a_jump_as_in_a_row(self) -> None:
        folder = self.take(interlaced=True)
        row, jumping = open_original(folder), open_original(folder)
        self.addCleanup(row.close)
        self.addCleanup(jumping.close)
        straight = [row.frame(number).to_ndarray() for number in range(30)]
        for number in (20, 10, 11, 19, 28):
            np.testing.assert_array_equal(straight[number], jumping.frame(number).to_ndarray())

    def test_what_stands_keeps_its_rows(self) -> None:
        folder = self.take(interlaced=True)
        reader = open_original(folder)
        self.addCleanup(reader.close)
        shown = to_rgba(reader.frame(5), reader.picture, SIZE)[..., 0].astype(int)
        self.assertGreater(shown[220:222, ::20].mean(), BAR - 25)
        self.assertLess(shown[217, ::20].mean(), GROUND + 10)

    def test_a_take_whose_file_does_not_say_so_is_made_whole_on_request(self) -> None:
        folder = self.take(interlaced=False)
        sources = Sources(lambda media: MediaFolder(folder.path), draft=True)
        self.addCleanup(sources.close)
        self.assertGreater(combed(sources.video("take", 12, "", SIZE)), 120)
        keep_wishes(folder, Wishes(two_fields=True))
        folder.proxy.unlink()
        ingest(MediaFolder(folder.path))
        folder = MediaFolder(folder.path)
        self.assertTrue(folder.info.picture.interlaced)
        self.assertTrue(folder.proxy.exists())
        # What was drawn of it before is not drawn again.
        self.assertLess(combed(sources.video("take", 12, "", SIZE)), 60)
        folder.forget_copies()
        self.assertTrue(wishes_of(folder).two_fields, "what was wished went with the copies")

    def test_a_progressive_take_is_left_alone(self) -> None:
        folder = self.take(interlaced=False)
        self.assertFalse(folder.info.picture.interlaced)

"""Moving GIF, WebP and PNG as films."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np
from PIL import Image

from kitecore.errors import BrokenMedia
from kitecore.media.moving import is_moving
from kitecore.media.pixels import to_rgba
from kitecore.media.reader import open_original, open_proxy
from kitecore.media.tests.material import ingested, numbered_picture, read_number
from kitecore.ticks import TICKS_PER_SECOND

SIZE = (160, 240)
LENGTHS = (100, 40, 70)
"""Milliseconds, in turn."""
MANY = 12


def write(path: Path, form: str, pictures: list[Image.Image]) -> Path:
    lengths = [LENGTHS[number % 3] for number in range(len(pictures))]
    more = {"lossless": True} if form == "WEBP" else {"disposal": 2} if form == "GIF" else {}
    first, *rest = pictures
    first.save(path, form, save_all=True, append_images=rest, duration=lengths, **more)
    return path


def numbered(clear: bool = False) -> list[Image.Image]:
    pictures = [Image.fromarray(numbered_picture(number, *SIZE)) for number in range(MANY)]
    if clear:
        for picture in pictures:
            picture.putalpha(Image.fromarray(np.tile(np.uint8([0, 255]), (SIZE[1], SIZE[0] // 2))))
    return pictures


class MovingTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def test_each_picture_comes_at_its_time(self) -> None:
        starts = np.cumsum([0, *(LENGTHS[number % 3] for number in range(MANY))])
        for form in ("GIF", "WEBP", "PNG"):
            with self.subTest(form):
                folder = ingested(self.root, form, write(self.root / "x", form, numbered()))
                info = folder.info
                assert info.picture is not None
                self.assertEqual(("video", form.lower()), (info.kind, info.container))
                self.assertEqual((MANY, True), (info.picture.frames, info.picture.variable))
                self.assertFalse(info.picture.alpha)
                self.assertEqual(starts[-1], info.length * 1000 / TICKS_PER_SECOND)
                np.testing.assert_array_equal(
                    starts[:-1], folder.index.times * 1000 // TICKS_PER_SECOND
                )
                for opened in (open_original, open_proxy):
                    reader = opened(folder)
                    self.addCleanup(reader.close)
                    for number in (0, 7, 11, 3):
                        shown = to_rgba(reader.frame(number), reader.picture, SIZE)
                        self.assertEqual(number, read_number(shown))

    def test_what_is_clear_stays_so(self) -> None:
        folder = ingested(self.root, "clear", write(self.root / "x", "WEBP", numbered(clear=True)))
        assert folder.info.picture is not None
        self.assertTrue(folder.info.picture.alpha)
        reader = open_original(folder)
        self.addCleanup(reader.close)
        shown = to_rgba(reader.frame(3), reader.picture, SIZE)
        self.assertEqual(
            [0, 255], np.unique(shown[:, ::2, 3]).tolist() + np.unique(shown[:, 1::2, 3]).tolist()
        )

    def test_one_picture_is_a_still(self) -> None:
        path = self.root / "x"
        numbered()[0].save(path, "GIF")
        self.assertFalse(is_moving(path))
        self.assertEqual("still", ingested(self.root, "one", path).info.kind)

    def test_what_ends_too_early_is_refused(self) -> None:
        path = write(self.root / "x", "WEBP", numbered())
        path.write_bytes(path.read_bytes()[:-900])
        with self.assertRaises(BrokenMedia):
            ingested(self.root, "cut", path)

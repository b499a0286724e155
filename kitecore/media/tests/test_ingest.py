"""Fresh files: good ones get all their copies, bad ones a plain reason."""

from __future__ import annotations

import io
import json
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np
from PIL import Image

from kitecore.errors import MediaError, NotMedia
from kitecore.media.cache import PictureCache
from kitecore.media.folder import MediaFolder
from kitecore.media.ingest import ingest
from kitecore.media.sniff import sniff
from kitecore.media.still import read_still, resized
from kitecore.media.tests.material import ingested, make_video, make_wav, tone


class IngestTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def refused(self, data: bytes) -> str:
        folder = MediaFolder(Path(tempfile.mkdtemp(dir=self.root)))
        folder.original.write_bytes(data)
        with self.assertRaises(MediaError) as caught:
            ingest(folder)
        self.assertTrue(caught.exception.todo)
        return str(caught.exception)

    def test_a_video_gets_all_its_copies(self) -> None:
        stages: list[str] = []
        folder = MediaFolder(self.root / "take")
        folder.path.mkdir()
        make_video(folder.original, frames=90, size=(360, 640), sound=tone(3))
        ingest(folder, lambda stage, share: stages.append(stage))
        self.assertEqual("ready", stages[-1])
        self.assertLess(stages.index("known"), stages.index("proxy"))
        for path in (folder.proxy, folder.strip, folder.poster, folder.peaks, folder.sound):
            self.assertGreater(path.stat().st_size, 100, path)
        layout = folder.strip_layout
        self.assertEqual((54, 96, 6), (layout["width"], layout["height"], layout["count"]))
        with Image.open(folder.strip) as sheet:
            self.assertEqual((6 * 54, 96), sheet.size)

    def test_stills_and_sounds(self) -> None:
        Image.new("RGBA", (40, 60), (200, 100, 0, 128)).save(self.root / "a", "PNG")
        folder = ingested(self.root, "still", self.root / "a")
        assert folder.info.picture is not None
        self.assertTrue(folder.info.picture.alpha)
        self.assertEqual([100, 50, 0, 128], read_still(folder)[5, 5].tolist())
        sound = ingested(self.root, "sound", make_wav(self.root / "b", tone(1.0)))
        self.assertEqual(("sound", None), (sound.info.kind, sound.info.picture))

    def test_a_photo_is_turned_upright(self) -> None:
        picture = Image.new("RGB", (80, 40), "white")
        exif = Image.Exif()
        exif[0x0112] = 6
        picture.save(self.root / "a", "JPEG", exif=exif)
        folder = ingested(self.root, "photo", self.root / "a")
        assert folder.info.picture is not None
        self.assertEqual((40, 80), (folder.info.picture.width, folder.info.picture.height))
        self.assertEqual((20, 10, 4), resized(read_still(folder), (10, 20)).shape)

    def test_broken_files_are_refused_and_harm_nothing(self) -> None:
        whole = make_video(self.root / "x", frames=30, sound=tone(1)).read_bytes()
        chance = np.random.default_rng(3)
        png = io.BytesIO()
        Image.fromarray(chance.integers(0, 255, (50, 50, 3), np.uint8)).save(png, "PNG")
        self.assertIn("not a video", self.refused(b"just a letter, nothing else " * 9))
        self.assertIn("damaged", self.refused(whole[:3000]))
        self.assertIn("damaged", self.refused(png.getvalue()[:2000]))
        self.assertTrue(self.refused(b"RIFF\x24\0\0\0WAVEfmt "))
        self.assertTrue(self.refused(b"\x1a\x45\xdf\xa3" + chance.bytes(4000)))

    def test_as_a_program_it_tells_its_end_in_json(self) -> None:
        folder = MediaFolder(self.root / "take")
        folder.path.mkdir()
        folder.original.write_bytes(b"nothing of use")
        command = [sys.executable, "-m", "kitecore.media.ingest", str(folder.path)]
        done = subprocess.run(command, capture_output=True, text=True, check=False)
        self.assertEqual(3, done.returncode)
        told = json.loads(done.stdout.splitlines()[-1])["refused"]
        self.assertEqual("not_media", told["code"])


class SniffTest(TestCase):
    def test_families(self) -> None:
        for head, family in (
            (b"\0\0\0\x20ftypisom", "mp4"),
            (b"\0\0\0\x20ftypavif", "avif"),
            (b"\x1a\x45\xdf\xa3", "matroska"),
            (b"RIFF\0\0\0\0WEBP", "webp"),
            (b"ID3\x04", "mp3"),
            (b"\xff\xfb\x90", "mp3"),
            (b"OggS", "ogg"),
        ):
            self.assertEqual(family, sniff(head))

    def test_anything_else_is_refused(self) -> None:
        for head in (b"", b"\0", b"<svg>", b"MZ\x90", b"RIFF\0\0\0\0XXXX", b"\xff\xff\xff"):
            with self.assertRaises(NotMedia):
                sniff(head)


class CacheTest(TestCase):
    def test_bytes_stay_below_the_limit_and_the_longest_unused_goes(self) -> None:
        cache = PictureCache(3000)
        made: list[str] = []

        def picture(name: str) -> np.ndarray:
            made.append(name)
            return np.zeros(1000, np.uint8)

        for name in "abcadaab":
            cache.get(name, lambda name=name: picture(name))  # type: ignore[misc]
            self.assertLessEqual(cache.used, 3000)
        self.assertEqual(list("abcdb"), made)
        self.assertFalse(cache.get("d", lambda: picture("d")).flags.writeable)

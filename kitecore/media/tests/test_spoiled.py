"""Spoiled files, some hundreds: each is taken, or refused with its reason; none ends otherwise."""

from __future__ import annotations

import random
import tempfile
from collections import Counter
from collections.abc import Callable
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

import numpy as np
from PIL import Image

from kitecore.errors import KiteError
from kitecore.media import soundcopy
from kitecore.media.folder import MediaFolder
from kitecore.media.ingest import ingest
from kitecore.media.tests.material import make_video, make_wav, tone

FILES = 500


def cut_off(data: bytearray, luck: random.Random) -> bytearray:
    return data[: luck.randrange(1, len(data))]


def bytes_changed(data: bytearray, luck: random.Random) -> bytearray:
    for _ in range(luck.randrange(1, 30)):
        data[luck.randrange(len(data))] = luck.randrange(256)
    return data


def left_out(data: bytearray, luck: random.Random) -> bytearray:
    at = luck.randrange(len(data))
    return data[:at] + data[at + luck.randrange(1, 200) :]


def head_changed(data: bytearray, luck: random.Random) -> bytearray:
    at = luck.randrange(min(len(data), 600))
    data[at : at + 2] = bytes((luck.randrange(256), 255))
    return data


def put_in(data: bytearray, luck: random.Random) -> bytearray:
    at = luck.randrange(len(data))
    return data[:at] + luck.randbytes(50) + data[at:]


SPOILING: list[Callable[[bytearray, random.Random], bytearray]] = [
    cut_off,
    bytes_changed,
    left_out,
    head_changed,
    put_in,
]


class SpoiledTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def sound_ones(self) -> dict[str, bytes]:
        video = make_video(self.root / "v", frames=12, size=(96, 64), sound=tone(0.4))
        found = {
            "mp4": video.read_bytes(),
            "wav": make_wav(self.root / "w", tone(0.3)).read_bytes(),
        }
        noise = np.random.default_rng(5).normal(128, 50, (40, 60)).clip(0, 255).astype(np.uint8)
        picture = Image.fromarray(noise).convert("RGB")
        for kind in ("PNG", "JPEG", "WEBP", "GIF"):
            picture.save(self.root / kind, kind)
            found[kind] = (self.root / kind).read_bytes()
        return found

    def taken(self, data: bytes) -> str:
        folder = MediaFolder(Path(tempfile.mkdtemp(dir=self.root)))
        folder.original.write_bytes(data)
        try:
            ingest(folder)
        except KiteError as error:
            self.assertTrue(error.message)
            return error.code
        return "taken"

    def test_each_is_taken_or_refused_with_its_reason(self) -> None:
        luck = random.Random(77)
        sound = self.sound_ones()
        ends: Counter[str] = Counter()
        for number in range(FILES):
            kind, spoil = luck.choice(sorted(sound)), luck.choice(SPOILING)
            with self.subTest(f"{number}: {kind}, {spoil.__name__}"):
                ends[self.taken(bytes(spoil(bytearray(sound[kind]), luck)))] += 1
        self.assertLess(FILES // 5, ends["taken"])
        self.assertLess(FILES // 5, ends["broken_media"])

    def test_a_gif_whose_second_picture_has_only_begun(self) -> None:
        cut = self.sound_ones()["GIF"].removesuffix(b";") + b",\0\0"
        self.assertIn(self.taken(cut), ("taken", "broken_media"))

    def test_codings_that_are_unknown(self) -> None:
        data = self.sound_ones()["mp4"]
        self.assertEqual("taken", self.taken(data))
        self.assertEqual("broken_media", self.taken(data.replace(b"avc1", b"zzzz")))
        self.assertEqual("taken", self.taken(data.replace(b"mp4a", b"zzzz")))

    def test_a_few_bytes_do_not_become_days_of_sound(self) -> None:
        wav = bytearray(make_wav(self.root / "w", tone(0.3)).read_bytes())
        wav[24:28] = (1).to_bytes(4, "little")
        self.assertEqual("broken_media", self.taken(bytes(wav)))

    def test_nor_is_the_last_room_taken(self) -> None:
        sound = self.sound_ones()["wav"]
        with patch.object(soundcopy, "RESERVE", 2**60):
            self.assertEqual("machine_failed", self.taken(sound))
        with patch.object(soundcopy, "LONGEST_SOUND", 0):
            self.assertEqual("broken_media", self.taken(sound))

    def test_what_is_refused_leaves_its_file_alone(self) -> None:
        folder = MediaFolder(Path(tempfile.mkdtemp(dir=self.root)))
        folder.original.write_bytes(b"x")
        folder.sound.write_bytes(b"begun")
        (folder.path / "strips").mkdir()
        folder.forget_copies()
        self.assertEqual([folder.original], list(folder.path.iterdir()))

"""Fresh files: good ones get all their copies, bad ones a plain reason."""

from __future__ import annotations

import io
import json
import subprocess
import sys
import tempfile
from pathlib import Path
from threading import Thread
from unittest import TestCase

import av
import numpy as np
from PIL import Image

from kitecore.errors import MediaError, NotMedia
from kitecore.media.folder import MediaFolder
from kitecore.media.ingest import ingest
from kitecore.media.sniff import sniff
from kitecore.media.soundcopy import read_sound
from kitecore.media.still import read_still, resized
from kitecore.media.tests.material import ingested, make_video, make_wav, tone
from kitecore.media.whole import UNFINISHED


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
        for path in (folder.proxy, folder.sound, folder.index_file, folder.info_file):
            self.assertGreater(path.stat().st_size, 100, path)
        self.assertFalse(list(folder.path.glob(f"{UNFINISHED}*")))

    def test_a_sound_read_while_it_arrives_spoils_nothing(self) -> None:
        folder = MediaFolder(self.root / "take")
        folder.path.mkdir()
        make_video(folder.original, frames=60, sound=tone(2))
        readers: list[Thread] = []

        def play(stage: str, share: float) -> None:
            if stage == "sound" and not readers:
                readers.extend(Thread(target=read_sound, args=(folder, 0, 480)) for _ in range(3))
                for reader in readers:
                    reader.start()

        ingest(folder, play)
        for reader in readers:
            reader.join()
        self.assertEqual(3, len(readers))
        self.assertAlmostEqual(2 * 48_000, folder.sound.stat().st_size / 8, delta=2048)

    def test_a_damaged_packet_of_sound_leaves_the_rest(self) -> None:
        path = make_video(self.root / "x", frames=60, sound=tone(2), sound_codec="flac", container="matroska")  # fmt: skip
        data = bytearray(path.read_bytes())
        with av.open(str(path)) as container:
            packets = [p for p in container.demux(audio=0) if p.size]
            places = [(p.pos, p.size) for p in packets]
        at = data.index(bytes(packets[5]), places[5][0])
        data[at : at + places[5][1]] = bytes(places[5][1])
        path.write_bytes(data)
        folder = ingested(self.root, "take", path)
        self.assertIn("silent there", folder.info.remarks[0])
        sound = np.abs(read_sound(folder, 0, 96_000)[:, 0])
        start = int(packets[5].pts * packets[5].time_base * 48_000)
        self.assertEqual(0, sound[start + 100 : start + 1000].max())
        self.assertGreater(sound[: start - 100].max(), 0.4)
        self.assertGreater(sound[start + 9000 :].max(), 0.4)

    def test_a_cut_off_last_packet_of_sound_leaves_the_rest(self) -> None:
        plain = make_video(self.root / "plain", frames=45, sound=tone(2))
        path = self.root / "x"
        with av.open(str(plain)) as source, av.open(
            str(path), "w", format="mp4", options={"movflags": "faststart"}
        ) as out:  # fmt: skip
            streams = [out.add_stream_from_template(stream) for stream in source.streams]
            for packet in source.demux():
                if packet.dts is not None:
                    packet.stream = streams[packet.stream_index]
                    out.mux(packet)
        path.write_bytes(path.read_bytes()[:-20])
        folder = ingested(self.root, "take", path)
        self.assertGreater(np.abs(read_sound(folder, 48_000, 24_000)).max(), 0.4)

    def test_grey_is_not_transparent(self) -> None:
        path = make_video(self.root / "x", frames=12, codec="ffv1", pixels="gray", container="matroska")  # fmt: skip
        folder = ingested(self.root, "grey", path)
        assert folder.info.picture is not None
        self.assertFalse(folder.info.picture.alpha)
        self.assertTrue(folder.proxy.exists())

    def test_a_video_with_alpha_comes_in(self) -> None:
        path = make_video(self.root / "x", frames=12, codec="qtrle", pixels="argb", container="mov")
        folder = ingested(self.root, "clear", path)
        assert folder.info.picture is not None
        self.assertTrue(folder.info.picture.alpha)
        self.assertTrue(folder.proxy.exists())

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

    def test_what_belongs_elsewhere_is_told_where(self) -> None:
        for head, where in (
            (b'<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg">', "Layer"),
            (b"1\n00:00:01,000 --> 00:00:02,000\nWind", "Captions"),
            (b"WEBVTT\n\n00:01.000 --> 00:02.000\nWind", "Captions"),
            (b'{"OTIO_SCHEMA": "Timeline.1"}', "Take one over"),
        ):
            with self.assertRaises(NotMedia) as caught:
                sniff(head)
            self.assertIn(where, caught.exception.todo)

from __future__ import annotations

import os
import tempfile
from pathlib import Path
from unittest import TestCase
from zipfile import ZIP_DEFLATED, ZipFile, ZipInfo

import opentimelineio as otio

from kitecore.document import dump
from kitecore.edits.tests.populated import populated
from kitecore.errors import BadInput
from kitecore.exchange.archives import ArchivedProject, ArchivedTake, opened, pack
from kitecore.exchange.timelines import write_timeline
from kitecore.exchange.timelines.tests.test_round_trip import MEDIA


class ArchiveTest(TestCase):
    def setUp(self) -> None:
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.path = self.folder / "kites.otioz"

    def packed(self) -> bytes:
        film = os.urandom(3_000_000)
        (self.folder / "film").write_bytes(film)
        document = populated(25, 1)
        files = {"m1": "media/wind 1.mp4"}
        told = ArchivedProject(
            name="Kites",
            document=dump(document),
            takes=(ArchivedTake(media="m1", name="wind 1.mp4", file="media/wind 1.mp4"),),
        )
        heard: list[int] = []
        timeline = write_timeline(document, "Kites", MEDIA, files)
        pack(self.path, told, timeline, {"media/wind 1.mp4": self.folder / "film"}, heard.append)
        self.assertEqual(len(film), sum(heard))
        return film

    def test_what_was_packed_is_there_again(self) -> None:
        film = self.packed()
        with opened(self.path) as archive:
            assert archive.project is not None
            self.assertEqual(dump(populated(25, 1)), archive.project.document)
            self.assertEqual(["media/wind 1.mp4"], archive.media)
            archive.extract("media/wind 1.mp4", self.folder / "out", lambda count: None)
        self.assertEqual(film, (self.folder / "out").read_bytes())

    def test_other_programs_open_it_as_a_bundle(self) -> None:
        film = self.packed()
        (self.folder / "theirs").mkdir()
        timeline = otio.adapters.read_from_file(
            str(self.path), extract_to_directory=str(self.folder / "theirs")
        )
        [first, *_] = timeline.find_clips()
        self.assertEqual("media/wind%201.mp4", first.media_reference.target_url)
        self.assertEqual(film, (self.folder / "theirs/media/wind 1.mp4").read_bytes())

    def spoiled(self, change: object) -> Path:
        with ZipFile(self.path, "w", ZIP_DEFLATED) as archive:
            archive.writestr("content.otio", "{}")
            change(archive)  # type: ignore[operator]
        return self.path

    def test_what_no_archive_of_a_project_has_is_refused(self) -> None:
        def link(archive: ZipFile) -> None:
            info = ZipInfo("media/link")
            info.external_attr = 0o120777 << 16
            archive.writestr(info, "/etc/passwd")

        for name, change in (
            ("out of it", lambda archive: archive.writestr("media/../../x", "x")),
            ("absolute", lambda archive: archive.writestr("/etc/x", "x")),
            ("backslash", lambda archive: archive.writestr("media\\..\\x", "x")),
            ("link", link),
            ("bomb", lambda archive: archive.writestr("media/x", bytes(300_000_000))),
            ("many", lambda archive: [archive.writestr(f"media/{n}", "") for n in range(5001)]),
            ("project", lambda archive: archive.writestr("velvet-kite/project.json", "[]")),
        ):
            with self.subTest(name), self.assertRaises(BadInput), opened(self.spoiled(change)):
                pass

    def test_what_is_no_archive_or_damaged_is_refused(self) -> None:
        self.packed()
        whole = self.path.read_bytes()
        middle = len(whole) // 2
        damaged = whole[:middle] + bytes(1000) + whole[middle + 1000 :]
        for data in (b"", b"PK\x03\x04", whole[:-100], damaged):
            self.path.write_bytes(data)
            with self.subTest(len(data)), self.assertRaises(BadInput), opened(self.path) as archive:
                archive.extract("media/wind 1.mp4", self.folder / "out", lambda count: None)
            self.assertFalse((self.folder / "out").exists())

    def test_what_was_packed_tightly_and_is_damaged_is_refused(self) -> None:
        self.spoiled(lambda archive: archive.writestr("media/x", os.urandom(2000).hex()))
        data = bytearray(self.path.read_bytes())
        middle = data.index(b"media/x") + 200
        data[middle : middle + 300] = bytes(300)
        self.path.write_bytes(data)
        with self.assertRaises(BadInput), opened(self.path) as archive:
            archive.extract("media/x", self.folder / "out", lambda count: None)

    def test_a_mistake_beside_it_is_no_damage(self) -> None:
        self.packed()
        with self.assertRaises(RuntimeError), opened(self.path):
            raise RuntimeError

    def test_an_archive_of_something_else_is_refused(self) -> None:
        with ZipFile(self.path, "w") as archive:
            archive.writestr("letter.txt", "x")
        with self.assertRaises(BadInput), opened(self.path):
            pass

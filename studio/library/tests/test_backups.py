"""Backups, restored into empty folders."""

from __future__ import annotations

import json
import os
import sqlite3
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase

from kitecore.errors import BadInput
from studio.library.backups import back_up, restore

ROOT = Path(__file__).resolve().parents[3]


class BackupsTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.data, self.into = self.root / "data", self.root / "backups"
        self.database = self.data / "velvet-kite.sqlite3"
        self.data.mkdir()
        with sqlite3.connect(self.database) as line:
            line.execute("CREATE TABLE kites (name TEXT)")
            line.execute("INSERT INTO kites VALUES ('first')")
        line.close()
        self.write("takes/a/original", b"one")
        self.write("takes/b/original", b"two")
        self.write("cache/pieces/x", b"can be made again")

    def write(self, name: str, content: bytes) -> None:
        path = self.data / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(content)

    def back_up(self, name: str) -> tuple[int, int]:
        told = back_up(self.data, self.database, self.into, name)
        return told.files, told.copied

    def restored(self, name: str) -> tuple[list[str], dict[str, bytes]]:
        empty = Path(tempfile.mkdtemp(dir=self.root))
        restore(self.into / name, empty, empty / "velvet-kite.sqlite3")
        with sqlite3.connect(empty / "velvet-kite.sqlite3") as line:
            kites = [kite for (kite,) in line.execute("SELECT name FROM kites")]
        line.close()
        files = {
            str(path.relative_to(empty)): path.read_bytes()
            for path in empty.rglob("*")
            if path.is_file() and "sqlite3" not in path.name
        }
        return kites, files

    def test_each_backup_brings_back_its_own_moment_and_contents_are_kept_once(self) -> None:
        self.assertEqual((2, 2), self.back_up("monday"))
        with sqlite3.connect(self.database) as line:
            line.execute("INSERT INTO kites VALUES ('second')")
        line.close()
        self.write("takes/c/original", b"one")
        (self.data / "takes/b/original").unlink()
        self.assertEqual((2, 0), self.back_up("tuesday"))
        both = {"takes/a/original": b"one", "takes/b/original": b"two"}
        self.assertEqual((["first"], both), self.restored("monday"))
        later = {"takes/a/original": b"one", "takes/c/original": b"one"}
        self.assertEqual((["first", "second"], later), self.restored("tuesday"))

    def test_what_another_writes_meanwhile_is_in_it_whole_or_not_at_all(self) -> None:
        line = sqlite3.connect(self.database, isolation_level=None)
        line.execute("PRAGMA journal_mode=WAL")
        line.execute("BEGIN IMMEDIATE")
        line.execute("INSERT INTO kites VALUES ('unfinished')")
        self.back_up("meanwhile")
        line.execute("COMMIT")
        line.close()
        self.assertEqual(["first"], self.restored("meanwhile")[0])

    def test_a_changed_copy_is_noticed(self) -> None:
        self.back_up("monday")
        digest = json.loads((self.into / "monday/files.json").read_text())["takes/a/original"]
        (self.into / "contents" / digest[:2] / digest).write_bytes(b"onE")
        with self.assertRaisesRegex(BadInput, "takes/a/original"):
            self.restored("monday")

    def test_nothing_is_written_over(self) -> None:
        self.back_up("monday")
        with self.assertRaises(BadInput):
            self.back_up("monday")
        with self.assertRaises(BadInput):
            restore(self.into / "monday", self.data, self.database)


class CommandsTest(TestCase):
    def manage(self, data: Path, *words: str) -> str:
        done = subprocess.run(
            [sys.executable, "manage.py", *words],
            cwd=ROOT,
            env={**os.environ, "VELVET_KITE_DATA": str(data)},
            check=True,
            capture_output=True,
            text=True,
        )
        return done.stdout

    def test_a_site_is_backed_up_and_restored_into_an_empty_folder(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        make = (
            "from django.contrib.auth.models import User; "
            "from kitecore.document import empty_document; "
            "from studio.projects import history; "
            "from studio.library.arrival import new_take; "
            "pip = User.objects.create_user('pip'); "
            "new_take(history.start_project(pip, 'Kites', empty_document()), 'a.mp4', b'bytes')"
        )
        told = (
            "from studio.library.models import Take; from studio.projects.models import Project; "
            "take = Take.objects.get(); "
            "print(Project.objects.get().name, take.folder.original.read_bytes())"
        )
        first, second = root / "first", root / "second"
        self.manage(first, "migrate", "-v0")
        self.manage(first, "shell", "-v0", "-c", make)
        self.manage(first, "back_up", str(root / "backups"), "--name", "one")
        self.manage(second, "restore", str(root / "backups/one"))
        self.assertIn("Kites b'bytes'", self.manage(second, "shell", "-v0", "-c", told))

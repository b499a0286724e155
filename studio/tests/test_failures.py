"""A full disk, a folder that cannot be written, a database that is locked: plain answers, nothing lost."""

from __future__ import annotations

import errno
import os
import shutil
import sqlite3
import subprocess
import tempfile
from contextlib import suppress
from pathlib import Path
from typing import Any
from unittest import SkipTest
from urllib.error import HTTPError

from django.db import OperationalError
from django.test import SimpleTestCase

from studio.failures import failure_of
from studio.tests.serving import Served
from studio.tests.site import SECOND

SOLID = {"kind": "solid", "name": "s", "length": SECOND}


class FailureTest(SimpleTestCase):
    def test_each_has_its_answer(self) -> None:
        locked = sqlite3.OperationalError("database is locked")
        locked.sqlite_errorcode = sqlite3.SQLITE_BUSY
        wrapped = OperationalError("database is locked")
        wrapped.__cause__ = locked
        for error, status in (
            (OSError(errno.ENOSPC, "no room"), 507),
            (PermissionError(errno.EACCES, "no right"), 507),
            (OSError(errno.EMFILE, "too many"), 503),
            (wrapped, 503),
        ):
            with self.subTest(error):
                found = failure_of(error)
                assert found is not None
                self.assertEqual(status, found[1])
                self.assertTrue(found[0].todo)
        self.assertIsNone(failure_of(ValueError()))


class Failing(Served):
    """A site with a project, and what its steps are answered."""

    def setUp(self) -> None:
        super().setUp()
        make = "from django.contrib.auth.models import User; "
        make += "User.objects.create_user('pip', password='a-long-one-7')"
        self.manage("shell", "-c", make)
        self.call("GET", "/api/session")
        self.call("POST", "/api/session", {"name": "pip", "password": "a-long-one-7"})
        self.project = self.call("POST", "/api/projects", {"name": "Kites"})["id"]

    def state(self) -> Any:
        return self.call("GET", f"/api/projects/{self.project}")

    def step(self, based_on: int, name: str = "s") -> Any:
        edit = {"kind": "place", "clip": SOLID | {"name": name}}
        body = {"based_on": based_on, "edit": edit}
        return self.call("POST", f"/api/projects/{self.project}/edits", body)

    def refused(self, based_on: int, name: str = "s") -> HTTPError | None:
        try:
            self.step(based_on, name)
        except HTTPError as error:
            return error
        return None


class LockedTest(Failing):
    def test_a_locked_database_is_told_and_is_well_again(self) -> None:
        before = self.state()["revision"]
        with sqlite3.connect(self.data / "velvet-kite.sqlite3", isolation_level=None) as line:
            line.execute("BEGIN IMMEDIATE")
            refused = self.refused(before)
            line.execute("ROLLBACK")
        assert refused is not None
        self.assertEqual((503, "5"), (refused.code, refused.headers["Retry-After"]))
        self.assertIn(b'"busy"', refused.read())
        self.assertEqual(before, self.state()["revision"])
        self.step(before)


class CacheTest(Failing):
    def test_a_cache_that_is_deleted_while_running_is_made_again(self) -> None:
        revision = self.step(self.state()["revision"])["revision"]
        pieces = f"{self.base}/api/projects/{self.project}/revisions/{revision}/picture"
        before = self._bytes(f"{pieces}?first=0&last=12&long_side=320")
        shutil.rmtree(self.data / "cache")
        self.assertEqual(before, self._bytes(f"{pieces}?first=0&last=12&long_side=320"))
        self.assertTrue(self._bytes(f"{pieces}?first=12&last=24&long_side=320"))
        film = self.call("POST", f"/api/projects/{self.project}/exports", {"settings": [{}]})[0][
            "id"
        ]
        self.until(lambda: self._state_of(film) == "done", what="no film without a cache")

    def _bytes(self, url: str) -> bytes:
        with self.opener.open(url, timeout=60) as answer:
            data: bytes = answer.read()
            return data

    def _state_of(self, film: str) -> str:
        films = self.call("GET", f"/api/projects/{self.project}/exports")
        return next(str(one["job"]["state"]) for one in films if one["id"] == film)


class FullDiskTest(Failing):
    """On a small disk of its own, where one may be mounted."""

    def setUp(self) -> None:
        self.disk = Path(self.enterContext(tempfile.TemporaryDirectory()))
        mount = ["mount", "-t", "tmpfs", "-o", "size=16m", "tmpfs", str(self.disk)]
        if os.geteuid() != 0 or subprocess.run(mount, check=False, capture_output=True).returncode:
            raise SkipTest("no small disk can be mounted here")
        self.addCleanup(subprocess.run, ["umount", "--lazy", str(self.disk)], check=False)
        super().setUp()

    def make_data(self) -> Path:
        return self.disk / "data"

    def test_a_full_disk_is_told_nothing_is_lost_and_all_is_well_with_room(self) -> None:
        filler = self.disk / "filler"
        with filler.open("wb", buffering=0) as file, suppress(OSError):
            while True:
                file.write(bytes(2**14))
        kept, refused = self.state()["revision"], None
        for number in range(200):
            refused = self.refused(kept, f"name {number} " * 20)
            if refused is not None:
                break
            kept = self.state()["revision"]
        assert refused is not None, "the disk never was full"
        self.assertEqual(507, refused.code)
        self.assertIn(b'"no_room"', refused.read())
        self.assertEqual(kept, self.state()["revision"])
        filler.unlink()
        self.step(kept)
        self.assertGreater(self.state()["revision"], kept)

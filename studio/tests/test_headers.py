"""What answers say of themselves."""

from __future__ import annotations

import os
import stat
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import skipUnless

from django.conf import settings
from django.test import TestCase

from studio.tests.samples import whole_schema
from studio.tests.site import People, take_of


class HeadersTest(People, TestCase):
    def test_no_answer_of_the_api_may_be_kept_in_between(self) -> None:
        take = take_of(self.project)
        addresses = [
            path.removeprefix("/api").format(
                id=take.id if "/takes/" in path else self.project.id,
                revision=self.project.head_id,
                frame=0,
                kind="picture",
                name="strip.jpg",
                clip="c",
                track="t",
                format="srt",
            )
            for path, calls in whole_schema()["paths"].items()
            if "get" in calls and "/kit/presets/{id}" not in path and "events" not in path
        ]
        self.assertLess(15, len(addresses))
        for address in addresses:
            with self.subTest(address):
                answer = self.call("get", address)
                self.assertIn("private", answer["Cache-Control"])
                if "max-age" in answer["Cache-Control"]:
                    self.assertIn("Cookie", answer["Vary"])
                named = answer.headers.get("Content-Disposition", "attachment")
                self.assertTrue(named.startswith("attachment"))

    @skipUnless((settings.WEB_DIST / "index.html").exists(), "the front end is not built")
    def test_the_page_carries_the_policy_under_each_of_its_names(self) -> None:
        for address in ("/", "/index.html", "/projects/1", "/nowhere"):
            with self.subTest(address):
                answer = self.mine.get(address)
                self.assertEqual(200, answer.status_code)
                self.assertIn("default-src 'self'", answer["Content-Security-Policy"])
                self.assertEqual("DENY", answer.headers.get("X-Frame-Options", "DENY"))


class InstallationTest(TestCase):
    def _manage(self, folder: str, *words: str) -> subprocess.CompletedProcess[str]:
        kept = {name: os.environ[name] for name in ("PATH", "HOME") if name in os.environ}
        own = {"VELVET_KITE_DATA": folder, "VELVET_KITE_HTTPS": "1"}
        return subprocess.run(
            [sys.executable, "manage.py", *words],
            env=kept | own,
            cwd=settings.BASE_DIR,
            capture_output=True,
            text=True,
            check=False,
        )

    def test_with_https_the_check_for_deployment_is_clean(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            done = self._manage(folder, "check", "--deploy", "--fail-level", "WARNING")
        self.assertEqual(0, done.returncode, done.stderr)

    def test_what_is_kept_only_its_owner_reads(self) -> None:
        with tempfile.TemporaryDirectory() as outer:
            folder = Path(outer) / "data"
            self._manage(str(folder), "migrate", "-v0")
            found = [folder, *folder.rglob("*")]
            self.assertLess(2, len(found))
            for path in found:
                with self.subTest(path.name):
                    self.assertEqual(0, stat.S_IMODE(path.stat().st_mode) & 0o077)

"""The front end's own unit tests, run with all others."""

from __future__ import annotations

import subprocess
from pathlib import Path
from unittest import TestCase

WEB = Path(__file__).resolve().parent.parent / "web"


class UnitTest(TestCase):
    def test_units_of_the_front_end(self) -> None:
        done = subprocess.run(
            ["npx", "--no-install", "vitest", "run"],
            cwd=WEB,
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertEqual(0, done.returncode, done.stdout[-4000:] + done.stderr[-2000:])
        self.assertIn("passed", done.stdout)

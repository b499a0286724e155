"""The front end's own unit tests, run with all others."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path
from unittest import TestCase

from tools.page_cases import CASES

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


class CasesTest(TestCase):
    def test_what_the_page_is_held_against_is_what_the_core_says_now(self) -> None:
        for name, cases in CASES.items():
            with self.subTest(name):
                kept = json.loads((WEB / "src" / f"{name}.cases.json").read_text())
                self.assertEqual(kept, json.loads(json.dumps(cases())), "run tools/page_cases.py")

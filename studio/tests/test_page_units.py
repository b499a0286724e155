"""The page's own unit tests, run with all others, and what the page and the core say alike."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path
from unittest import TestCase

from tools import told
from tools.page_cases import CASES

WEB = Path(__file__).resolve().parents[2] / "web"


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


class ToldTest(TestCase):
    def test_all_that_the_server_may_tell_is_among_the_texts(self) -> None:
        self.assertEqual(told.FILE.read_text(), told.content(), "run tools/told.py")

    def test_what_is_put_in_is_left_open(self) -> None:
        texts = told.templates()
        for text in (
            "A track has at most {0} clips.",
            "The track “{0}” is locked.",
            "Your project is unchanged.",
            "Split",
            "clear below",
        ):
            self.assertIn(text, texts)


class CasesTest(TestCase):
    def test_what_the_page_is_held_against_is_what_the_core_says_now(self) -> None:
        for name, cases in CASES.items():
            with self.subTest(name):
                kept = json.loads((WEB / "src" / f"{name}.cases.json").read_text())
                self.assertEqual(kept, json.loads(json.dumps(cases())), "run tools/page_cases.py")

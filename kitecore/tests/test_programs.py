"""Programs end at their limits, and tell what they refuse."""

from __future__ import annotations

import signal
import subprocess
import sys
from unittest import TestCase

_RUN = """
from kitecore.errors import BrokenMedia
from kitecore.programs import run_limited
import sys
def work(tell):
    tell("begin", 0.5)
    {work}
sys.exit(run_limited(work, memory={memory}, cpu={cpu}))
"""


class LimitsTest(TestCase):
    def run_one(self, work: str, memory: int = 2**33, cpu: int = 60) -> tuple[int, str]:
        script = _RUN.format(work=work, memory=memory, cpu=cpu)
        done = subprocess.run(
            [sys.executable, "-c", script], capture_output=True, text=True, check=False
        )
        return done.returncode, done.stdout

    def test_good_work_tells_its_progress(self) -> None:
        self.assertEqual((0, '{"doing": "begin", "share": 0.5}\n'), self.run_one("pass"))

    def test_a_refusal_is_told_with_its_reason(self) -> None:
        code, told = self.run_one("raise BrokenMedia('torn')")
        self.assertEqual(3, code)
        self.assertIn('"message": "torn"', told)

    def test_too_much_memory_ends_it(self) -> None:
        code, _ = self.run_one("bytearray(2**32)", memory=2**31)
        self.assertEqual(1, code)

    def test_too_much_time_ends_it_otherwise_than_a_kill_would(self) -> None:
        code, _ = self.run_one("while True: pass", cpu=1)
        self.assertEqual(-signal.SIGXCPU, code)

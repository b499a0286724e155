"""Programs that somebody waits for start without what only some of their work needs."""

from __future__ import annotations

import subprocess
import sys
from typing import Final
from unittest import TestCase

HEAVY: Final = {"scipy.signal", "scipy.spatial", "scipy.stats", "pymatting", "kitecore.edits"}
PROGRAMS: Final = {
    "kitecore.render.worker": HEAVY,
    "kitecore.media.ingest": HEAVY | {"kitecore.document"},
    "kitecore.analysis.__main__": HEAVY | {"kitecore.document", "numba"},
}


class StartingTest(TestCase):
    def test_what_is_heavy_is_loaded_by_whoever_needs_it(self) -> None:
        for program, left_out in PROGRAMS.items():
            told = f"import sys, {program}; print(*sys.modules)"
            done = subprocess.run(
                [sys.executable, "-c", told], capture_output=True, text=True, check=True
            )
            self.assertEqual(set(), left_out & set(done.stdout.split()), program)

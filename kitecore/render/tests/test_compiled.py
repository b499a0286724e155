"""At set-up every kernel is compiled, and none in anybody's time."""

from __future__ import annotations

import subprocess
import sys
from unittest import TestCase
from unittest.mock import patch

import pymatting

from kitecore.render.compiled import compile_all
from kitecore.render.tests.unrun import kernels


class CompiledTest(TestCase):
    def test_set_up_runs_every_kernel(self) -> None:
        self.assertGreater(len(list(kernels())), 40)
        program = [sys.executable, "-m", "kitecore.render.tests.unrun"]
        told = subprocess.run(program, capture_output=True, text=True, check=True)
        self.assertEqual(told.stdout.split(), [])

    def test_so_is_the_matting_which_takes_minutes(self) -> None:
        for name in ("estimate_alpha_cf", "estimate_foreground_ml"):
            used = self.enterContext(patch.object(pymatting, name, wraps=getattr(pymatting, name)))
            compile_all()
            self.assertTrue(used.called, name)

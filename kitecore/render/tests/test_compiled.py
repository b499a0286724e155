"""At set-up every kernel is compiled, and none in anybody's time."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Iterator
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

import pymatting
from numba.core.dispatcher import Dispatcher

import kitecore
from kitecore.render.compiled import compile_all


def kernels() -> Iterator[Dispatcher]:
    """All that are kept on disk once they are compiled."""
    for found in pkgutil.walk_packages(kitecore.__path__, "kitecore."):
        if ".tests" in found.name or "__main__" in found.name:
            continue
        module = importlib.import_module(found.name)
        for one in vars(module).values():
            mine = isinstance(one, Dispatcher) and one.py_func.__module__ == found.name
            if mine and one.stats.cache_path:
                yield one


class CompiledTest(TestCase):
    def test_every_kernel_is_on_disk_after_set_up(self) -> None:
        compile_all()
        found = list(kernels())
        self.assertGreater(len(found), 40)
        for kernel in found:
            name = f"{kernel.py_func.__module__}.{kernel.py_func.__qualname__}"
            with self.subTest(name):
                folder = Path(kernel.stats.cache_path)
                self.assertTrue(list(folder.glob(f"*.{kernel.py_func.__name__}-*.nbi")))

    def test_so_is_the_matting_which_takes_minutes(self) -> None:
        for name in ("estimate_alpha_cf", "estimate_foreground_ml"):
            used = self.enterContext(patch.object(pymatting, name, wraps=getattr(pymatting, name)))
            compile_all()
            self.assertTrue(used.called, name)

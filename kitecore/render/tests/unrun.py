"""Which kernels set-up leaves out, told line by line: a program of its own, in which nothing else ran."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Iterator

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


def unrun() -> list[str]:
    """Names of kernels that neither ran nor are part of another's code."""
    compile_all()
    found = list(kernels())
    within = {
        id(one.py_func.__globals__.get(name))
        for one in found
        for name in one.py_func.__code__.co_names
    }
    return [
        f"{one.py_func.__module__}.{one.py_func.__qualname__}"
        for one in found
        if not one.overloads and id(one) not in within
    ]


if __name__ == "__main__":
    print("\n".join(unrun()))

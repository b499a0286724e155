"""Names to objects. A registry is an instance, so that a test can make a fresh one."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable, Iterator, Mapping
from typing import Generic, TypeVar

from kitecore.errors import UnknownName

T = TypeVar("T")


class Registry(Mapping[str, T], Generic[T]):
    """Entries by name, filled by a decorator in the files of a package.

    Parameters
    ----------
    noun
        What an entry is called in messages, e.g. ``"blend mode"``.
    """

    def __init__(self, noun: str) -> None:
        self.noun = noun
        self._entries: dict[str, T] = {}

    def register(self, name: str) -> Callable[[T], T]:
        """Decorator: keep the decorated object under ``name``."""

        def keep(entry: T) -> T:
            if name in self._entries:
                raise ValueError(f"there are two {self.noun} entries named {name!r}")
            self._entries[name] = entry
            return entry

        return keep

    def __getitem__(self, name: str) -> T:
        try:
            return self._entries[name]
        except KeyError:
            known = ", ".join(sorted(self._entries)) or "none"
            raise UnknownName(f"There is no {self.noun} named {name!r}. Known: {known}.") from None

    def __contains__(self, name: object) -> bool:
        return name in self._entries

    def __iter__(self) -> Iterator[str]:
        return iter(self._entries)

    def __len__(self) -> int:
        return len(self._entries)


def import_all(package: str) -> None:
    """Import every module of ``package`` but tests and programs, so that each registers itself."""
    parent = importlib.import_module(package)
    for module in sorted(pkgutil.iter_modules(parent.__path__), key=lambda found: found.name):
        if module.name not in ("tests", "__main__"):
            importlib.import_module(f"{package}.{module.name}")

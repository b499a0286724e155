"""Names to objects. A registry is an instance, so that a test can make a fresh one."""

from __future__ import annotations

import importlib
import importlib.util
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
    home
        A package whose modules are imported when something of them is asked for: that of the name, or
        all of them.
    """

    def __init__(self, noun: str, home: str = "") -> None:
        self.noun = noun
        self._home = home
        self._entries: dict[str, T] = {}

    def register(self, name: str) -> Callable[[T], T]:
        """Decorator: keep the decorated object under ``name``."""

        def keep(entry: T) -> T:
            if name in self._entries:
                raise ValueError(f"there are two {self.noun} entries named {name!r}")
            self._entries[name] = entry
            return entry

        return keep

    def _all(self) -> dict[str, T]:
        """Every entry; of a home in the order of their names, whatever was asked for first."""
        if self._home:
            home, self._home = self._home, ""
            import_all(home)
            self._entries = dict(sorted(self._entries.items()))
        return self._entries

    def __getitem__(self, name: str) -> T:
        if self._home and name not in self._entries:
            module = f"{self._home}.{name}"
            found = name.isidentifier() and importlib.util.find_spec(module)
            if found:
                importlib.import_module(module)
            if name not in self._entries:
                self._all()
        try:
            return self._entries[name]
        except KeyError:
            known = ", ".join(sorted(self._entries)) or "none"
            raise UnknownName(f"There is no {self.noun} named {name!r}. Known: {known}.") from None

    def __contains__(self, name: object) -> bool:
        return name in self._all()

    def __iter__(self) -> Iterator[str]:
        return iter(self._all())

    def __len__(self) -> int:
        return len(self._all())


def import_all(package: str) -> None:
    """Import every module of ``package`` but tests and programs, so that each registers itself."""
    parent = importlib.import_module(package)
    for module in sorted(pkgutil.iter_modules(parent.__path__), key=lambda found: found.name):
        if module.name not in ("tests", "__main__"):
            importlib.import_module(f"{package}.{module.name}")

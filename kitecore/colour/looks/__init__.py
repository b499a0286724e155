"""Looks: tables of colours by name. Ours lie here as .cube files, made by ``tools/make_looks.py``."""

from __future__ import annotations

import re
from functools import lru_cache
from pathlib import Path
from typing import Final

from kitecore.colour.cube import Cube, FindLook
from kitecore.colour.cubefile import read_cube
from kitecore.errors import NotThere

__all__ = ["LOOKS", "SHIPPED", "FindLook", "LookFolder", "shipped"]

_HERE = Path(__file__).parent
SHIPPED: Final = tuple(sorted(path.stem for path in _HERE.glob("*.cube")))
"""Names of our own looks."""
LOOKS: Final = "looks"
"""Name of the folder, beside those of takes, in which looks lie that were brought in."""

_OWN = re.compile(r"[0-9a-f]{32}")


def shipped(name: str) -> Cube:
    """One of our own looks.

    Raises
    ------
    NotThere
        If there is none of that name.
    """
    if name not in SHIPPED:
        raise NotThere(
            "A look that is used here is not there.", todo="Choose another look in its place."
        )
    return _read(_HERE / f"{name}.cube")


class LookFolder:
    """Looks that were brought in, as files named by their ids; and our own."""

    def __init__(self, path: Path) -> None:
        self.path = path

    def file(self, name: str) -> Path:
        return self.path / f"{name}.cube"

    def find(self, name: str) -> Cube:
        """A look by name (see `shipped`)."""
        if _OWN.fullmatch(name) and self.file(name).exists():
            return _read(self.file(name))
        return shipped(name)


@lru_cache(maxsize=32)
def _read(path: Path) -> Cube:
    return read_cube(path.read_bytes())

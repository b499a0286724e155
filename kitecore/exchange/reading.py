"""Reading files that people bring in, apart from those that are cut: looks, corrections, fonts, drawings.

Each is read in a program of its own (``python -m kitecore.exchange NAME FOLDER``) under limits of
memory and time: a small file may ask for endless work. What it holds is in FOLDER/given, what it is
read as in FOLDER/read. Each reader brings in what it needs by itself: somebody waits for its program
to start.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any, Final

from kitecore.registry import Registry

GIVEN: Final = "given"
OPTIONS: Final = "options.json"
READ: Final = "read"

Reader = Callable[[bytes, Mapping[str, Any]], str]

readers: Registry[Reader] = Registry("kind of file")
"""By name: from the bytes of a file, and options, to text."""


@readers.register("look")
def _look(data: bytes, options: Mapping[str, Any]) -> str:
    """A .cube file: its title, and the table in our own form, as JSON."""
    from kitecore.colour.cubefile import read_cube, write_cube

    cube = read_cube(data)
    return json.dumps({"title": cube.title, "table": write_cube(cube)})


@readers.register("cdl")
def _cdl(data: bytes, options: Mapping[str, Any]) -> str:
    from kitecore.exchange.cdl import read_cdl

    return read_cdl(data).model_dump_json()


@readers.register("font")
def _font(data: bytes, options: Mapping[str, Any]) -> str:
    """Its title."""
    from kitecore.fonts.reading import title_of_font

    return title_of_font(data)


@readers.register("drawing")
def _drawing(data: bytes, options: Mapping[str, Any]) -> str:
    """A clip and remarks, as JSON."""
    from kitecore.exchange.svg import read_svg

    return read_svg(data, options["name"], options["length"], options["fit"]).model_dump_json()


@readers.register("captions")
def _captions(data: bytes, options: Mapping[str, Any]) -> str:
    from kitecore.exchange.captions import read_captions

    return read_captions(data).model_dump_json()


@readers.register("timeline")
def _timeline(data: bytes, options: Mapping[str, Any]) -> str:
    from kitecore.exchange.timelines import read_timeline

    return read_timeline(data).model_dump_json()


def read(name: str, folder: Path) -> None:
    """Read what is given in a folder. Raises as the reader does."""
    options = json.loads((folder / OPTIONS).read_text())
    (folder / READ).write_text(readers[name]((folder / GIVEN).read_bytes(), options))

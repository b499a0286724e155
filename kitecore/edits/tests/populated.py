"""Edits as pages send them, and a document as people have them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cache
from typing import Any

from pydantic import TypeAdapter

from kitecore.document import Document, empty_document
from kitecore.edits import Edit, EditBase, apply
from kitecore.rates import FrameRate

SECOND = 705_600_000
CUTOUT = {"strokes": [{"points": [[0, 0], [0, 0.1]]}]}
VIEWS = [{"at": SECOND, **CUTOUT}]
THROUGH = {"views": VIEWS, "grow": {"keys": [{"at": 0, "value": 0.01}]}}
_edits: TypeAdapter[Any] = TypeAdapter(Edit)


def edit(**fields: Any) -> EditBase:
    """An edit from plain data, as it comes from a page."""
    made: EditBase = _edits.validate_python(fields)
    return made


@cache
def populated(num: int, den: int) -> Document:
    """Every kind of clip, keys, a group, a transition, masks, effects, markers, several tracks."""
    document = empty_document(rate=FrameRate(num=num, den=den))
    for number, step in enumerate(_steps()):
        document = apply(document, edit(seed=f"made{number}", **step(document)))
    return document


def _steps() -> Iterator[Callable[[Document], dict[str, Any]]]:
    source = {"media": "m1", "source_in": SECOND, "source_length": 9 * SECOND}
    kinds: list[dict[str, Any]] = [
        {"kind": "video", "name": "first", "length": 3 * SECOND, **source},
        {"kind": "video", "name": "second", "length": 2 * SECOND, **source, "cutout": THROUGH},
        {"kind": "still", "name": "still", "length": SECOND, "media": "m2", "cutout": CUTOUT},
        {"kind": "sequence", "name": "row", "length": SECOND, "pictures": ["m1", "m2"], "each": 9},
        {"kind": "solid", "name": "inner", "length": SECOND},
        {"kind": "text", "name": "word", "length": SECOND},
    ]
    for clip in kinds:
        yield _placed(clip, "end")
    keys = [{"at": 0, "value": 0.2}, {"at": SECOND, "value": 1.0}]
    above = {"kind": "shape", "name": "above", "length": 2 * SECOND, "opacity": {"keys": keys}}
    yield _placed(above, "above", SECOND)
    yield _placed({"kind": "adjustment", "name": "over", "length": SECOND}, "above", 4 * SECOND)
    yield lambda document: _placed(_mouth(document), "above", 2 * SECOND)(document)
    yield lambda document: {
        "kind": "say",
        "clip": _ids(document, "Mouth")[0],
        "taps": [
            {"at": n * SECOND, "pose": p} for n, p in ((2, "open"), (3, "closed"), (4, "round"))
        ],
    }
    yield _placed({"kind": "sound", "name": "hum", "length": 4 * SECOND, **source}, "above")
    yield lambda document: {"kind": "group", "clips": _ids(document, "inner", "word")}
    yield lambda document: {
        "kind": "set_transition",
        "clip": _ids(document, "second")[0],
        "transition": {"kind": "dissolve", "length": SECOND // 2},
        "short": "shorten",
    }
    stroke = {"kind": "heal_stroke", "points": [[0, 0], [0.1, 0]]}
    for name, parts in (
        ("masks", [{"kind": "ellipse"}]),
        ("effects", [{"kind": "glow"}]),
        ("strokes", [stroke]),
    ):
        yield lambda document, name=name, parts=parts: {  # type: ignore[misc]
            "kind": "add_parts",
            "clips": _ids(document, "first"),
            "list": name,
            "parts": parts,
        }
    takes = [
        {"media": "m1", "name": f"camera {n}", "kind": kind, "length": (4 + n) * SECOND}
        for n, kind in enumerate(("video", "video", "sound"))
    ]
    yield lambda document: {"kind": "gather_angles", "takes": takes, "name": "cameras"}
    cuts = [{"at": at * SECOND, "angle": at % 2} for at in (12, 13)]
    yield lambda document: {"kind": "switch", "clip": _ids(document, "cameras")[0], "cuts": cuts}
    yield lambda document: {"kind": "add_marker", "at": SECOND, "clip": _ids(document, "first")[0]}
    yield lambda document: {"kind": "add_marker", "at": 2 * SECOND}


def _placed(clip: dict[str, Any], mode: str, at: int = 0) -> Callable[[Document], dict[str, Any]]:
    return lambda document: {"kind": "place", "clip": clip, "mode": mode, "at": at}


def _ids(document: Document, *names: str) -> list[str]:
    return [clip.id for _, clip in document.clips() if clip.name in names]


def _mouth(document: Document) -> dict[str, Any]:
    """With three poses that can move from one to the next."""
    length = document.rate.exact.frame_ticks * 20
    poses = {
        name: {"kind": "shape", "name": name, "length": length, "opacity": opacity}
        for name, opacity in (("closed", 0.2), ("open", 1.0), ("round", 0.6))
    }
    tracks = [
        {"kind": "picture" if place else "main", "name": name, "clips": [pose]}
        for place, (name, pose) in enumerate(poses.items())
    ]
    way = {"kind": "moving"}
    return {"kind": "mouth", "name": "Mouth", "length": 3 * SECOND, "way": way, "tracks": tracks}

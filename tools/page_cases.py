"""Writes what the core makes of motion, for the page's own quick answers to be held against."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from kitecore.document.ease import Ease
from kitecore.document.paths import PathKeys
from kitecore.document.properties import (
    ColourKeys,
    CurveKeys,
    Keys,
    LatticeKeys,
    NumberKeys,
    PointKeys,
    TripleKeys,
)
from kitecore.motion import value_at
from kitecore.motion.easing import eased

FOLDER = Path(__file__).parents[1] / "web/src/motion"
EASES: list[dict[str, Any]] = [
    {"kind": "hold"},
    {"kind": "steady"},
    {"kind": "bezier", "x1": 0.42, "y1": 0, "x2": 0.58, "y2": 1},
    {"kind": "bezier", "x1": 0.3, "y1": 1.5, "x2": 0.6, "y2": 1},
    {"kind": "steps", "count": 4},
    {"kind": "steps", "count": 3, "backwards": True},
    {"kind": "bounce", "count": 3, "kept": 0.3},
    {"kind": "bounce", "count": 2, "kept": 0.5, "backwards": True},
    {"kind": "spring", "stiffness": 320, "damping": 16},
    {"kind": "spring", "stiffness": 100, "damping": 20},
    {"kind": "spring", "stiffness": 60, "damping": 40, "backwards": True},
]
SHARES = (0.0, 0.07, 0.21, 0.37, 0.52, 0.68, 0.83, 0.96, 1.0)

BACK = {"kind": "bezier", "x1": 0.3, "y1": 1.5, "x2": 0.6, "y2": 1}
KITE = [[0, -9], [5, 0], [0, 12], [-5, 0]]
ROUND = {"join": "smooth", "before": [-3, 1], "after": [3, -1]}


def _contour(points: list[list[float]], closed: bool = True, **node: Any) -> dict[str, Any]:
    return {"nodes": [{"at": point, **node} for point in points], "closed": closed}


def _keys(first: Any, second: Any, ease: dict[str, Any] | None = None, **more: Any) -> Any:
    begin = {"at": 100, "value": first, "ease": ease or {"kind": "steady"}, **more}
    return {"keys": [begin, {"at": 1100, "value": second}]}


PROPERTIES: list[tuple[type[Keys[Any]], Any]] = [
    (NumberKeys, _keys(2, -7, BACK)),
    (TripleKeys, _keys([0, 1, 2], [3, 1, -2])),
    (ColourKeys, _keys("#ff8a6b", "#17406a")),
    (ColourKeys, _keys("#000000", "#ffffff", BACK)),
    (ColourKeys, _keys("#00ff00", "#ff00ff")),
    (PointKeys, _keys([0, 0], [100, 40], BACK)),
    (PointKeys, _keys([0, 0], [100, 0], after=[0, 60])),
    (PointKeys, _keys([0, 0], [100, 0], BACK, after=[40, 90])),
    (LatticeKeys, _keys([[0, 0], [1, 1]], [[2, 0], [1, 5]])),
    (CurveKeys, _keys([[0, 0], [1, 1]], [[0, 0.2], [1, 0.7]])),
    (CurveKeys, _keys([[0, 0], [1, 1]], [[0, 0.1], [0.4, 0.6], [0.8, 0.7], [1, 1]])),
    (PathKeys, _keys([_contour(KITE)], [_contour(KITE, **ROUND)])),
    (PathKeys, _keys([_contour(KITE[:3])], [_contour(KITE, **ROUND)])),
    (PathKeys, _keys([_contour(KITE, **ROUND)], [_contour(KITE[:2], closed=False)])),
    (PathKeys, _keys([_contour(KITE)], [_contour(KITE), _contour([[20, 20], [30, 24]])])),
    (PathKeys, _keys([_contour([[1, 2]]), _contour(KITE)], [_contour(KITE)])),
]
TICKS = (0, 100, 180, 350, 600, 777, 1099, 1100, 5000)


def easings() -> list[dict[str, Any]]:
    adapter: TypeAdapter[Any] = TypeAdapter(Ease)
    return [
        {
            "ease": plain,
            "at": [[share, eased(adapter.validate_python(plain), share)] for share in SHARES],
        }
        for plain in EASES
    ]


def values() -> list[dict[str, Any]]:
    """Properties as the page has them, and what they are at some ticks."""
    return [
        {
            "kind": model.__name__,
            "prop": prop.model_dump(mode="json"),
            "at": [[tick, _plain(value_at(prop, tick))] for tick in TICKS],
        }
        for model, plain in PROPERTIES
        for prop in [model.model_validate(plain)]
    ]


def _plain(value: Any) -> Any:
    if isinstance(value, tuple):
        return [_plain(item) for item in value]
    return value.model_dump(mode="json") if hasattr(value, "model_dump") else value


def main() -> None:
    for name, cases in (("easing", easings()), ("keys", values())):
        (FOLDER / f"{name}.cases.json").write_text(json.dumps(cases, indent=1) + "\n")


if __name__ == "__main__":
    main()

"""Writes what the core makes of motion, for the page's own quick answers to be held against."""

from __future__ import annotations

import json
from itertools import product
from pathlib import Path
from typing import Any

import numpy as np
from pydantic import TypeAdapter

from kitecore.document import Place, StillClip, VideoClip
from kitecore.document.cell import Cell
from kitecore.document.ease import Ease
from kitecore.document.masks import MASKS
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
from kitecore.motion.curve import around, curve_at
from kitecore.motion.easing import eased
from kitecore.motion.posing import pose_at
from kitecore.picture.masks import distances
from kitecore.render.placing import land
from kitecore.sound.ramps import FADES

WEB = Path(__file__).parents[1] / "web/src"
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


SECOND = 705_600_000
STEP = SECOND // 30
SPEEDS: list[dict[str, Any]] = [
    {"points": [{"at": 0, "speed": 1.0}]},
    {"points": [{"at": 0, "speed": 2.5}]},
    {"points": [{"at": 0, "speed": -0.75}]},
    {"points": [{"at": 0, "speed": 0.0}]},
    {"points": [{"at": 0, "speed": 0.5}, {"at": SECOND, "speed": 3.0}]},
    {
        "points": [
            {"at": 0, "speed": 0.5, "soft": False},
            {"at": SECOND // 2, "speed": 3.0, "soft": True},
            {"at": SECOND, "speed": 1.0},
        ]
    },
    {"points": [{"at": -SECOND, "speed": 0.4}, {"at": SECOND // 2, "speed": 1.7}], "soft": False},
    {"points": [{"at": 0, "speed": -2.0}, {"at": SECOND, "speed": -0.5}]},
    {
        "points": [
            {"at": 0, "speed": 1.0},
            {"at": SECOND // 3, "speed": 4.0},
            {"at": SECOND, "speed": 0.25},
        ]
    },
]
ENDLESS = 2**50


def speeds() -> list[dict[str, Any]]:
    """Clips with speeds: source ticks passed at some moments, and how far their ends can go."""
    return [
        {
            "clip": clip.model_dump(mode="json"),
            "at": [[tick, clip.speed.offset(tick)] for tick in (-SECOND, 0, SECOND // 7, SECOND)],
            "reach": [None if far > ENDLESS else far // STEP * STEP for far in clip.reach],
        }
        for number, speed in enumerate(SPEEDS)
        for clip in [
            VideoClip.model_validate(
                {
                    "id": f"c{number}",
                    "media": "m",
                    "length": SECOND,
                    "source_in": 4 * SECOND,
                    "source_length": 9 * SECOND,
                    "speed": speed,
                }
            )
        ]
    ]


LAYOUTS: list[dict[str, Any]] = [
    {"rows": [1, 2], "place": 2, "gap": 20, "margin": 10},
    {"rows": [3], "place": 1, "slant": 25},
    {"rows": [2, 3, 1], "place": 3, "gap": 7.5, "margin": 3, "slant": -40},
    {"rows": [2, 2], "place": 1, "upright": True, "slant": 10},
    {"rows": [1, 1, 1], "place": 1, "slant": 15},
    {"rows": [1, 1, 1], "place": 1, "slant": -9, "row_shares": [1, 3, 2]},
    {
        "rows": [2, 3],
        "place": 3,
        "slant": 8,
        "row_shares": [30, 70],
        "cell_shares": [[1, 1], [20, 50, 30]],
    },
    {"rows": [1, 2], "place": 2, "upright": True, "cell_shares": [[1], [3, 1]]},
]


def cells() -> list[dict[str, Any]]:
    """Cells of split screens and their corners on a canvas."""
    return [
        {
            "cell": cell.model_dump(mode="json"),
            "canvas": [width, height],
            "corners": cell.corners(width, height),
        }
        for layout in LAYOUTS
        for width, height in ((1080, 1920), (1920, 1080))
        for cell in [Cell.model_validate({"screen": "s", **layout})]
    ]


CURVES: list[list[list[float]]] = [
    [[0, 0.3]],
    [[0, 0], [1, 1]],
    [[0, 0.1], [0.4, 0.6], [0.8, 0.7], [1, 1]],
    [[0.1, 0.9], [0.3, 0.2], [0.5, 0.8], [0.9, 0.1]],
]


def curves() -> list[dict[str, Any]]:
    """Curves through points: their heights, along a line and around a circle.

    Around one, 0 and 1 are the same place: curves with both go along a line only.
    """
    xs = [-0.2, 0.0, 0.07, 0.33, 0.5, 0.79, 1.0, 1.3]
    return [
        {
            "points": points,
            "at": list(zip(xs, curve_at(_pairs(points), np.array(xs)).tolist(), strict=True)),
            "around": _heights_around(points, [x for x in xs if 0 <= x < 1]),
        }
        for points in CURVES
    ]


def _heights_around(points: list[list[float]], xs: list[float]) -> list[tuple[float, float]]:
    if {0, 1} <= {x for x, _ in points}:
        return []
    return list(zip(xs, around(_pairs(points), np.array(xs)).tolist(), strict=True))


def _pairs(points: list[list[float]]) -> tuple[tuple[float, float], ...]:
    return tuple((x, y) for x, y in points)


MASKED: list[tuple[dict[str, Any], tuple[float, ...]]] = [
    ({"kind": "ellipse", "size": [0.3, 0.3]}, (0.0, 0.1, -0.05)),
    ({"kind": "ellipse", "size": [0.5, 0.12]}, (0.0, 0.05, 0.2)),
    ({"kind": "rectangle", "size": [0.4, 0.2]}, (0.0, 0.08, -0.05)),
    ({"kind": "rectangle", "size": [0.2, 0.35], "radius": 0.12}, (0.0, 0.1, -0.05, -0.15)),
    ({"kind": "rectangle", "size": [0.2, 0.1], "radius": 0.4}, (0.0, 0.05)),
]


def outlines() -> list[dict[str, Any]]:
    """Masks, and how far from their middle the distance to their edge is a level."""
    return [
        {
            "mask": mask.model_dump(mode="json"),
            "level": level,
            "reach": [[angle, _reach(mask, angle, level)] for angle in range(3, 360, 24)],
        }
        for plain, levels in MASKED
        for mask in [MASKS[plain["kind"]].model_validate({"id": "m", **plain})]
        for level in levels
    ]


def _reach(mask: Any, degrees: float, level: float) -> float:
    """By halving: along a ray from the middle the distance only grows."""
    cos, sin = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    low, high = 0.0, 3.0
    for _ in range(40):
        half = (low + high) / 2
        there = distances[mask.kind](mask, np.float64([[half * cos]]), np.float64([[half * sin]]))
        low, high = (half, high) if float(there[0, 0]) < level else (low, half)
    return round(low, 6)


PLACES: list[dict[str, Any]] = [
    {},
    {"fit": "fill", "position": [30, -40]},
    {"fit": "own", "size": [0.5, 2], "turn": 33, "pivot": [20, 10]},
    {"size": [0.7, 0.4], "turn": -120, "lean": 25, "pivot": [-60, 90], "mirrored": True},
    {"upside_down": True, "size": [1.3, 1.3], "position": [-200, 5]},
    {"position": _keys([0, 0], [300, 90], after=[0, 200]), "turn": _keys(0, 90, BACK)},
]


def corners() -> list[dict[str, Any]]:
    """Places of pictures, and where their corners are on the canvas at a moment."""
    return [
        {
            "number": number,
            "place": clip.place.model_dump(mode="json"),
            "tick": 600,
            "picture": picture,
            "canvas": canvas,
            "corners": _corners(clip, 600, picture, canvas),
        }
        for number, (plain, picture, canvas) in enumerate(product(PLACES, PICTURES, CANVASES))
        for clip in [StillClip(id="s", media="m", length=SECOND, place=Place(**plain))]
    ]


PICTURES = ((1920.0, 1080.0), (300.0, 700.0))
CANVASES = ((1080.0, 1920.0), (1920.0, 1080.0))


def _corners(clip: StillClip, tick: int, picture: Any, canvas: Any) -> list[list[float]]:
    landing = land(clip.place, pose_at(clip, tick, canvas), picture, canvas, np.eye(3))
    width, height = landing.pixels
    spots = np.array([[0, 0, 1], [width, 0, 1], [width, height, 1], [0, height, 1]])
    return np.round((landing.matrix @ spots.T).T[:, :2], 5).tolist()  # type: ignore[no-any-return]


def fade_cases() -> list[dict[str, Any]]:
    """How loud fades are on their way out of silence."""
    return [
        {"shape": shape, "share": share, "level": float(level(np.float64(share)))}
        for shape, level in FADES.items()
        for share in SHARES
    ]


CASES = {
    "timeline/fades": fade_cases,
    "motion/easing": easings,
    "motion/keys": values,
    "motion/curve": curves,
    "motion/speed": speeds,
    "picture/cells": cells,
    "picture/masks": outlines,
    "picture/placing": corners,
}


def main() -> None:
    for name, cases in CASES.items():
        (WEB / f"{name}.cases.json").write_text(json.dumps(cases(), indent=1) + "\n")


if __name__ == "__main__":
    main()

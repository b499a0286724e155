"""A drawn mouth with all poses, as one begins with: lips, what is between them, teeth, tongue."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

from kitecore.document.poses import POSES
from kitecore.ticks import TICKS_PER_SECOND

CANVAS: Final = {"width": 480, "height": 360}
LENGTH: Final = 3 * TICKS_PER_SECOND
_SMOOTH: Final = 1 / 6
"""Of the way between the points beside it, for the handles of a point (Catmull and Rom 1974)."""

Spot = tuple[float, float]


@dataclass(frozen=True)
class _Lips:
    """Lengths in pixels from the middle of the mouth: half its width, how far the lips are above and

    below, how thick they are, how far the corners are raised, how low the teeth reach, how high the
    tongue.
    """

    half: float
    above: float
    below: float
    thick: float = 24.0
    raised: float = 0.0
    teeth: float = 0.0
    tongue: float = 0.0


_DRAWN: Final = {
    "closed": _Lips(108, 2, 2, raised=2),
    "small": _Lips(100, 14, 20, teeth=10, tongue=6),
    "open": _Lips(104, 30, 88, thick=26, teeth=18, tongue=34),
    "wide": _Lips(146, 20, 34, thick=22, raised=8, teeth=16, tongue=12),
    "round": _Lips(56, 36, 46, thick=32, tongue=14),
    "teeth": _Lips(112, 16, 4, thick=22, teeth=20),
    "tongue": _Lips(108, 22, 44, teeth=12, tongue=56),
    "smile": _Lips(142, 14, 20, thick=20, raised=14, teeth=40),
}
_LIPS, _DARK, _WHITE, _ROSE = "#b3473f", "#3a1620", "#fbf4e6", "#d9787c"


def mouth() -> dict[str, Any]:
    """The clip as data."""
    tracks = _rows([(name, _pose(name, _DRAWN[name])) for name in POSES])
    return {
        "kind": "mouth",
        "canvas": CANVAS,
        "place": {"fit": "own"},
        "way": {"kind": "moving"},
        "tracks": tracks,
    }


def _pose(name: str, lips: _Lips) -> dict[str, Any]:
    outer = _ring(lips.half + 0.9 * lips.thick, lips.above, lips.below, lips, lips.thick)
    inner = _ring(lips.half, lips.above, lips.below, lips, 0)
    top = -lips.above - 12
    teeth = _plate(lips.half - 8, top, top + 12 + lips.teeth)
    low = lips.below + 14
    tongue = _plate(lips.half * 0.72, low - 14 - lips.tongue, low + 30)
    within = {"clipped": "alpha"}
    layers = [
        ("Lips", _layer("Lips", outer, _LIPS)),
        ("Inside", _layer("Inside", inner, _DARK)),
        ("Tongue", _layer("Tongue", tongue, _ROSE) | within),
        ("Teeth", _layer("Teeth", teeth, _WHITE) | within),
    ]
    group = {"kind": "group", "name": name, "length": LENGTH, "canvas": CANVAS}
    return group | {"tracks": _rows(layers)}


def _rows(held: Sequence[tuple[str, dict[str, Any]]]) -> list[dict[str, Any]]:
    """A track for each, the first as the main one."""
    return [
        {"kind": "picture" if place else "main", "name": name, "clips": [clip]}
        for place, (name, clip) in enumerate(held)
    ]


def _layer(name: str, points: Sequence[Spot], colour: str) -> dict[str, Any]:
    return {
        "kind": "shape",
        "name": name,
        "length": LENGTH,
        "form": {"kind": "path", "contours": [_smooth(points)]},
        "fill": {"kind": "plain", "colour": colour},
        "stroke": None,
    }


def _ring(half: float, above: float, below: float, lips: _Lips, thick: float) -> list[Spot]:
    """Eight points around the mouth from its left corner on; the upper lip dips in its middle."""
    up, down, corner = above + thick, below + 1.15 * thick, -lips.raised
    dip = 0.18 * thick
    return [
        (-half, corner),
        (-0.5 * half, 0.45 * corner - 0.92 * up),
        (0.0, -up + dip),
        (0.5 * half, 0.45 * corner - 0.92 * up),
        (half, corner),
        (0.55 * half, 0.3 * corner + 0.86 * down),
        (0.0, down),
        (-0.55 * half, 0.3 * corner + 0.86 * down),
    ]


def _plate(half: float, top: float, low: float) -> list[Spot]:
    middle = (top + low) / 2
    return [
        (-half, middle),
        (-0.8 * half, top),
        (0.8 * half, top),
        (half, middle),
        (0.7 * half, low),
        (-0.7 * half, low),
    ]


def _smooth(points: Sequence[Spot]) -> dict[str, Any]:
    nodes = []
    for before, at, after in zip(
        (*points[-1:], *points), points, (*points[1:], points[0]), strict=False
    ):
        x, y = ((after[n] - before[n]) * _SMOOTH for n in (0, 1))
        nodes.append(
            {
                "at": [round(at[0], 2), round(at[1], 2)],
                "before": [round(-x, 2), round(-y, 2)],
                "after": [round(x, 2), round(y, 2)],
                "join": "smooth",
            }
        )
    return {"nodes": nodes, "closed": True}

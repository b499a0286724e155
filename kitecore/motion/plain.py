"""Properties whose keys have been resolved (see `kitecore.motion.still_at`), as plain values."""

from __future__ import annotations

from kitecore.document.clips.text import WordsKeys
from kitecore.document.masks import BrushMask, Strokes
from kitecore.document.paths import Contours, Path
from kitecore.document.properties import (
    Axes,
    Colour,
    Curve,
    CurvePoints,
    Keys,
    Number,
    Point,
    Vector,
)


def number(prop: Number) -> float:
    assert not isinstance(prop, Keys)
    return float(prop)


def pair(prop: Point) -> Vector:
    assert not isinstance(prop, Keys | Axes)
    return prop


def points(prop: Curve) -> CurvePoints:
    assert not isinstance(prop, Keys)
    return prop


def colour(prop: Colour) -> str:
    assert not isinstance(prop, Keys)
    return prop


def contours(prop: Path) -> Contours:
    assert not isinstance(prop, Keys)
    return prop


def words(prop: str | WordsKeys) -> str:
    assert not isinstance(prop, Keys)
    return prop


def painted_by(mask: BrushMask) -> Strokes:
    assert not isinstance(mask.strokes, Keys)
    return mask.strokes

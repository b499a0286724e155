"""Gradients of a drawing as fills (SVG 1.1, chapter 13)."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final
from xml.etree.ElementTree import Element

import numpy as np
from svgelements import Color
from svgelements import Matrix as Transform

from kitecore.document.fills import MOST_STOPS, PlainFill, RoundFill, Stop, StraightFill
from kitecore.exchange.svg.sheet import Matrix, Sheet, matrix_of
from kitecore.exchange.svg.styles import (
    Style,
    by_id,
    children,
    linked,
    local_name,
    number,
    style_of,
)
from kitecore.motion.plain import number as plain_number

GRADIENTS: Final = ("linearGradient", "radialGradient")
_DEEPEST: Final = 8
_UNEVEN: Final = 1.05
"""Ratio of its axes from which on an oval gradient is said to come as a circle."""
Fill = PlainFill | StraightFill | RoundFill
Box = tuple[float, float, float, float]


@dataclass(frozen=True)
class Gradient:
    """``kind``, its attributes with those that it takes over, and its stops."""

    kind: str
    values: Style
    stops: tuple[Stop, ...]


def gradients_of(root: Element, rules: Mapping[str, Style]) -> dict[str, Gradient]:
    """All gradients of a drawing that have stops, by id."""
    elements = by_id(root)
    found = {}
    for name, element in elements.items():
        if local_name(element) in GRADIENTS:
            row = list(_inherited(element, elements))
            values: Style = {}
            for one in reversed(row):
                values |= one.attrib
            holder = next((one for one in row if [*children(one, "stop")]), None)
            if holder is not None:
                stops = tuple(_stops(holder, rules))[:MOST_STOPS]
                found[name] = Gradient(local_name(element), values, stops)
    return found


def _inherited(element: Element, elements: Mapping[str, Element]) -> Iterator[Element]:
    for _ in range(_DEEPEST):
        yield element
        following = elements.get(linked(element))
        if following is None or local_name(following) not in GRADIENTS:
            return
        element = following


def _stops(element: Element, rules: Mapping[str, Style]) -> Iterator[Stop]:
    least = 0.0
    for stop in children(element, "stop"):
        style = style_of(stop, rules)
        least = min(max(number(style.get("offset"), 0.0), least), 1.0)
        colour = Color(style.get("stop-color", "black"))
        alpha = 1.0 if colour.alpha is None else colour.alpha / 255
        opacity = alpha * min(max(number(style.get("stop-opacity"), 1.0), 0.0), 1.0)
        yield Stop(at=least, colour=hexadecimal(colour), opacity=round(opacity, 4))


def hexadecimal(colour: Color) -> str:
    return f"#{colour.red or 0:02x}{colour.green or 0:02x}{colour.blue or 0:02x}"


def gradient_fill(
    gradient: Gradient, box: Box, shown: Matrix, sheet: Sheet, opacity: float
) -> tuple[Fill, bool]:
    """The fill that a gradient is on a shape, and whether it is exactly that.

    Parameters
    ----------
    box
        Left, top, right and bottom of the shape in its own units.
    shown
        From those to the units of the drawing.
    opacity
        0..1, of the fill.
    """
    stops = tuple(
        stop.model_copy(update={"opacity": plain_number(stop.opacity) * opacity})
        for stop in gradient.stops
    )
    if len(stops) == 1:
        return PlainFill(colour=stops[0].colour, opacity=stops[0].opacity), True
    values = gradient.values
    within = matrix_of(Transform(values.get("gradientTransform", "")))
    if values.get("gradientUnits", "objectBoundingBox") == "objectBoundingBox":
        left, top, right, bottom = box
        within = np.array([[right - left, 0, left], [0, bottom - top, top], [0, 0, 1.0]]) @ within
    plain = values.get("spreadMethod", "pad") == "pad"
    make = _straight if gradient.kind == "linearGradient" else _round
    fill, exact = make(values, shown @ within, sheet, stops)
    return fill, exact and plain


def _straight(
    values: Style, shown: Matrix, sheet: Sheet, stops: tuple[Stop, ...]
) -> tuple[Fill, bool]:
    x1, y1 = number(values.get("x1"), 0.0), number(values.get("y1"), 0.0)
    x2, y2 = number(values.get("x2"), 1.0), number(values.get("y2"), 0.0)
    begin, end = ((shown @ (x, y, 1.0))[:2] for x, y in ((x1, y1), (x2, y2)))
    # Lines of one colour stay straight, but no longer square to the way from begin to end.
    level = shown[:2, :2] @ (y1 - y2, x2 - x1)
    square = np.array([level[1], -level[0]])
    length = float(square @ square)
    if length > 0:
        end = begin + square * float((end - begin) @ square) / length
    return StraightFill(begin=sheet.place(*begin), end=sheet.place(*end), stops=stops), True


def _round(
    values: Style, shown: Matrix, sheet: Sheet, stops: tuple[Stop, ...]
) -> tuple[Fill, bool]:
    cx, cy = number(values.get("cx"), 0.5), number(values.get("cy"), 0.5)
    radius = number(values.get("r"), 0.5)
    middle = (shown @ (cx, cy, 1.0))[:2]
    longest, shortest = np.linalg.svd(shown[:2, :2], compute_uv=False)
    rim = middle + np.array([radius * float(np.sqrt(longest * shortest)), 0.0])
    centred = all(
        abs(number(values.get(focus), here) - here) < 1e-3 * max(radius, 1e-6)
        for focus, here in (("fx", cx), ("fy", cy))
    )
    exact = centred and longest <= _UNEVEN * shortest
    return RoundFill(begin=sheet.place(*middle), end=sheet.place(*rim), stops=stops), exact

"""Forms as pen paths of the same outline."""

from __future__ import annotations

from collections.abc import Callable
from math import cos, pi, sin, tan
from typing import Any, Final

from kitecore.document.paths import Contour, Contours, Node, polygon
from kitecore.document.properties import Vector, has_keys
from kitecore.document.shapes import MOST_CORNERS, Form
from kitecore.errors import BadInput

_ARC: Final = 4 / 3 * tan(pi / 8)
"""Handles of a quarter of a circle, in radii: its middle lies on the circle."""


def outline_of(form: Form) -> Contours:
    """The pen paths of a form without keys.

    Raises
    ------
    BadInput
        If one of its measures has keys.
    """
    if any(has_keys(getattr(form, name)) for name in type(form).model_fields):
        raise BadInput(
            "A shape that moves by keys cannot become a path.", todo="Take its keys away first."
        )
    return _OUTLINES[form.kind](form)


def _rectangle(form: Any) -> Contours:
    (width, height), radius = form.size, form.radius
    x, y = width / 2, height / 2
    r = min(max(radius, 0), x, y)
    if r < 0.01:
        return (polygon(((-x, -y), (x, -y), (x, y), (-x, y))),)
    h = r * _ARC
    nodes = (
        _node((x - r, -y), after=(h, 0)),
        _node((x, -y + r), before=(0, -h)),
        _node((x, y - r), after=(0, h)),
        _node((x - r, y), before=(h, 0)),
        _node((-x + r, y), after=(-h, 0)),
        _node((-x, y - r), before=(0, h)),
        _node((-x, -y + r), after=(0, -h)),
        _node((-x + r, -y), before=(-h, 0)),
    )
    return (Contour(nodes=nodes),)


def _ellipse(form: Any) -> Contours:
    x, y = form.size[0] / 2, form.size[1] / 2
    a, b = x * _ARC, y * _ARC
    nodes = (
        Node(at=(0, -y), before=(-a, 0), after=(a, 0), join="smooth"),
        Node(at=(x, 0), before=(0, -b), after=(0, b), join="smooth"),
        Node(at=(0, y), before=(a, 0), after=(-a, 0), join="smooth"),
        Node(at=(-x, 0), before=(0, b), after=(0, -b), join="smooth"),
    )
    return (Contour(nodes=nodes),)


def _polygon(form: Any) -> Contours:
    return (_around([form.radius] * _count(form.corners)),)


def _star(form: Any) -> Contours:
    return (_around([form.radius, form.inner] * _count(form.points)),)


def _line(form: Any) -> Contours:
    return (polygon((form.begin, form.end), closed=False),)


def _path(form: Any) -> Contours:
    contours: Contours = form.contours
    return contours


_OUTLINES: Final[dict[str, Callable[[Any], Contours]]] = {
    "rectangle": _rectangle,
    "ellipse": _ellipse,
    "polygon": _polygon,
    "star": _star,
    "line": _line,
    "path": _path,
}


def _count(corners: float) -> int:
    """As many corners as can be told apart."""
    return round(min(max(corners, 3), MOST_CORNERS))


def _around(radii: list[float]) -> Contour:
    step = 2 * pi / len(radii)
    return polygon(tuple((r * sin(i * step), -r * cos(i * step)) for i, r in enumerate(radii)))


def _node(at: Vector, before: Vector = (0, 0), after: Vector = (0, 0)) -> Node:
    return Node(at=at, before=before, after=after, join="broken")

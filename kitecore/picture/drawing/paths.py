"""Pen paths and forms as Skia's paths."""

from __future__ import annotations

from typing import Any

import numpy as np
import skia

from kitecore.document.paths import Contour, Contours
from kitecore.document.shapes import (
    MOST_CORNERS,
    EllipseForm,
    Form,
    LineForm,
    PathForm,
    PolygonForm,
    RectangleForm,
    StarForm,
)
from kitecore.motion.plain import contours, number, pair
from kitecore.registry import Registry

forms: Registry[Any] = Registry("form")
"""By kind: ``path(form)``; forms come without keys."""


def path_of(form: Form) -> skia.Path:
    path: skia.Path = forms[form.kind](form)
    return path


def contours_path(given: Contours) -> skia.Path:
    """Filled by the even-odd rule."""
    path = skia.Path()
    path.setFillType(skia.PathFillType.kEvenOdd)
    for contour in given:
        _add(path, contour)
    return path


def _add(path: skia.Path, contour: Contour) -> None:
    nodes = contour.nodes
    path.moveTo(*nodes[0].at)
    following = [*nodes[1:], nodes[0]] if contour.closed else nodes[1:]
    for a, b in zip(nodes, following, strict=False):
        if a.after == (0.0, 0.0) and b.before == (0.0, 0.0):
            path.lineTo(*b.at)
        else:
            path.cubicTo(
                a.at[0] + a.after[0],
                a.at[1] + a.after[1],
                b.at[0] + b.before[0],
                b.at[1] + b.before[1],
                *b.at,
            )
    if contour.closed:
        path.close()


@forms.register("rectangle")
def _rectangle(form: RectangleForm) -> skia.Path:
    width, height = pair(form.size)
    radius = min(max(number(form.radius), 0), width / 2, height / 2)
    path = skia.Path()
    path.addRoundRect(skia.Rect.MakeXYWH(-width / 2, -height / 2, width, height), radius, radius)
    return path


@forms.register("ellipse")
def _ellipse(form: EllipseForm) -> skia.Path:
    width, height = pair(form.size)
    path = skia.Path()
    path.addOval(skia.Rect.MakeXYWH(-width / 2, -height / 2, width, height))
    return path


def _count(corners: float) -> int:
    """As many corners as can be told apart."""
    return round(min(max(corners, 3), MOST_CORNERS))


def _around(radii: list[float]) -> skia.Path:
    angles = np.arange(len(radii)) * 2 * np.pi / len(radii)
    points = [
        skia.Point(float(radius * np.sin(angle)), float(-radius * np.cos(angle)))
        for radius, angle in zip(radii, angles, strict=True)
    ]
    path = skia.Path()
    path.addPoly(points, True)
    return path


@forms.register("polygon")
def _polygon(form: PolygonForm) -> skia.Path:
    return _around([number(form.radius)] * _count(number(form.corners)))


@forms.register("star")
def _star(form: StarForm) -> skia.Path:
    return _around([number(form.radius), number(form.inner)] * _count(number(form.points)))


@forms.register("line")
def _line(form: LineForm) -> skia.Path:
    path = skia.Path()
    path.moveTo(*pair(form.begin))
    path.lineTo(*pair(form.end))
    return path


@forms.register("path")
def _path(form: PathForm) -> skia.Path:
    return contours_path(contours(form.contours))

"""Pen paths and forms as Skia's paths."""

from __future__ import annotations

import skia

from kitecore.document.outlines import outline_of
from kitecore.document.paths import Contour, Contours
from kitecore.document.shapes import Form


def path_of(form: Form) -> skia.Path:
    """The outline of a form without keys."""
    return contours_path(outline_of(form))


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

"""Outlines of a drawing as contours that a pen can change."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
import skia
from svgelements import Arc, Close, CubicBezier, Line, Move, Path, QuadraticBezier

from kitecore.document.paths import Contour, Node
from kitecore.document.properties import Vector
from kitecore.exchange.svg.sheet import Sheet

_SIDE: Final = 96
"""Pixels in which it is seen whether the two fill rules differ."""
_DIFFERENT: Final = 0.002


def contours_of(path: Path, sheet: Sheet, *, nonzero: bool) -> tuple[Contour, ...]:
    """The contours of a path, in canvas pixels from the middle of the drawing.

    Ours are filled by the even-odd rule: where the other one, which SVG takes by default, would fill
    more, overlapping outlines are united.
    """
    if nonzero and _rules_differ(path):
        path = Path(_united(path))
    return _contours(path, sheet)


def _contours(path: Path, sheet: Sheet) -> tuple[Contour, ...]:
    contours: list[Contour] = []
    nodes: list[dict[str, Any]] = []

    def finish(closed: bool) -> None:
        if closed and len(nodes) > 1 and nodes[0]["at"] == nodes[-1]["at"]:
            nodes[0]["before"] = nodes.pop().get("before", (0.0, 0.0))
        if len(nodes) > 1:
            made = tuple(Node(**{**node, "join": _join(node)}) for node in nodes)
            contours.append(Contour(nodes=made, closed=closed))
        nodes.clear()

    for segment in path:
        if isinstance(segment, Move):
            finish(False)
            nodes.append({"at": sheet.spot(segment.end)})
        elif isinstance(segment, Close):
            finish(True)
        elif isinstance(segment, Line):
            nodes.append({"at": sheet.spot(segment.end)})
        else:
            for curve in _cubics(segment):
                start, end = sheet.spot(curve.start), sheet.spot(curve.end)
                nodes[-1]["after"] = _away(sheet.spot(curve.control1), start)
                nodes.append({"at": end, "before": _away(sheet.spot(curve.control2), end)})
    finish(False)
    return tuple(contours)


def _cubics(segment: Any) -> list[CubicBezier]:
    if isinstance(segment, Arc):
        return list(segment.as_cubic_curves())
    if isinstance(segment, QuadraticBezier):
        start, control, end = segment.start, segment.control, segment.end
        return [
            CubicBezier(
                start, start + (control - start) * (2 / 3), end + (control - end) * (2 / 3), end
            )
        ]
    return [segment]


def _away(point: Vector, origin: Vector) -> Vector:
    return round(point[0] - origin[0], 3), round(point[1] - origin[1], 3)


def _join(node: dict[str, Any]) -> str:
    ax, ay = node.get("before", (0.0, 0.0))
    bx, by = node.get("after", (0.0, 0.0))
    lengths = (ax * ax + ay * ay) ** 0.5 * (bx * bx + by * by) ** 0.5
    if not lengths:
        return "corner"
    return "smooth" if (ax * bx + ay * by) / lengths < -0.99 else "broken"


def _drawn(path: Path, rule: skia.PathFillType) -> skia.Path:
    out = skia.Path()
    out.setFillType(rule)
    for segment in path:
        if isinstance(segment, Move):
            out.moveTo(segment.end.x, segment.end.y)
        elif isinstance(segment, Close):
            out.close()
        elif isinstance(segment, Line):
            out.lineTo(segment.end.x, segment.end.y)
        else:
            for curve in _cubics(segment):
                points = (curve.control1, curve.control2, curve.end)
                out.cubicTo(*(side for point in points for side in (point.x, point.y)))
    return out


def _rules_differ(path: Path) -> bool:
    both = (skia.PathFillType.kWinding, skia.PathFillType.kEvenOdd)
    one, other = (_coverage(_drawn(path, rule)) for rule in both)
    return float(np.abs(one - other).mean()) > _DIFFERENT


def _coverage(path: skia.Path) -> np.ndarray:
    box = path.computeTightBounds()
    surface = skia.Surface(_SIDE, _SIDE)
    canvas = surface.getCanvas()
    canvas.scale(_SIDE / max(box.width(), 1e-6), _SIDE / max(box.height(), 1e-6))
    canvas.translate(-box.left(), -box.top())
    canvas.drawPath(path, skia.Paint(Color=skia.ColorBLACK, AntiAlias=True))
    return np.asarray(surface.toarray()[..., 3], np.float32) / 255


def _united(path: Path) -> str:
    """SVG path data of the same filled shape without overlaps."""
    whole = skia.Simplify(_drawn(path, skia.PathFillType.kWinding))
    said = {
        skia.Path.Verb.kMove_Verb: ("M", 0),
        skia.Path.Verb.kLine_Verb: ("L", 1),
        skia.Path.Verb.kQuad_Verb: ("Q", 1),
        skia.Path.Verb.kCubic_Verb: ("C", 1),
        skia.Path.Verb.kClose_Verb: ("Z", 9),
    }
    out = []
    for verb, points in whole or ():
        if verb in said:
            letter, first = said[verb]
            out.append(letter + " ".join(f"{p.x():.4f},{p.y():.4f}" for p in points[first:]))
    return " ".join(out)

"""SVG files as editable shapes (W3C SVG 1.1: paths, basic shapes, fills, strokes, transforms)."""

from __future__ import annotations

import io
from typing import Any, Final

from svgelements import (
    SVG,
    Arc,
    Close,
    Color,
    CubicBezier,
    Line,
    Move,
    Path,
    QuadraticBezier,
    Shape,
)

from kitecore.document import GroupClip, Pictured, ShapeClip, Track
from kitecore.document.fills import PlainFill
from kitecore.document.paths import Contour, Node
from kitecore.document.properties import Vector
from kitecore.document.shapes import PathForm, Stroke
from kitecore.errors import BadInput

MOST_BYTES: Final = 2 * 2**20
MOST_SHAPES: Final = 60
MOST_NODES: Final = 8000

_REFUSED: Final = (b"<!ENTITY", b"<!entity")


def read_svg(data: bytes, name: str, length: int, fit: float) -> Pictured:
    """The drawing as one clip of ``length`` ticks: a shape, or a group of shapes.

    Parameters
    ----------
    fit
        Canvas pixels that its longer side gets.

    Raises
    ------
    BadInput
        If it is no SVG, holds no shapes, or too much.
    """
    shapes = _shapes(data)
    boxes = [path.bbox() for path, _ in shapes]
    left, top = min(box[0] for box in boxes), min(box[1] for box in boxes)
    right, bottom = max(box[2] for box in boxes), max(box[3] for box in boxes)
    scale = fit / max(right - left, bottom - top, 1e-6)
    middle = ((left + right) / 2, (top + bottom) / 2)
    clips = tuple(
        _clip(path, shape, middle, scale, f"{name} {number + 1}", length)
        for number, (path, shape) in enumerate(shapes)
    )
    if len(clips) == 1:
        return clips[0].model_copy(update={"name": name})
    tracks = tuple(
        Track(kind="main" if not number else "picture", name=clip.name, clips=(clip,))
        for number, clip in enumerate(clips)
    )
    return GroupClip(name=name, length=length, tracks=tracks)


def _shapes(data: bytes) -> list[tuple[Path, Shape]]:
    if any(word in data for word in _REFUSED):
        raise BadInput("This SVG file defines entities of its own, which are not read.")
    try:
        drawing = SVG.parse(io.BytesIO(data), reify=True)
        found = []
        for element in drawing.elements():
            if isinstance(element, Shape) and element.values.get("visibility") != "hidden":
                path = Path(element)
                path.reify()
                if len(path) > 1 and path.bbox() is not None:
                    found.append((path, element))
    except BadInput:
        raise
    except Exception as error:
        raise BadInput("This file is no SVG that can be read.") from error
    if not found:
        raise BadInput("There are no shapes in this SVG file.")
    if len(found) > MOST_SHAPES or sum(len(path) for path, _ in found) > MOST_NODES:
        raise BadInput(
            f"This drawing holds more than {MOST_SHAPES} shapes or {MOST_NODES} points.",
            todo="Simplify it, or bring it in as a picture.",
        )
    return found


def _clip(
    path: Path, shape: Shape, middle: Vector, scale: float, name: str, length: int
) -> ShapeClip:
    fill, line = _fill(shape.fill), _fill(shape.stroke)
    width = float(shape.stroke_width or 0) * scale
    return ShapeClip(
        name=name,
        length=length,
        form=PathForm(contours=_contours(path, middle, scale)),
        fill=fill,
        stroke=Stroke(fill=line, width=round(width, 2)) if line and width > 0 else None,
    )


def _fill(colour: Color) -> PlainFill | None:
    if colour is None or colour.value is None:
        return None
    red, green, blue = colour.red, colour.green, colour.blue
    return PlainFill(colour=f"#{red:02x}{green:02x}{blue:02x}", opacity=(colour.alpha or 0) / 255)


def _contours(path: Path, middle: Vector, scale: float) -> tuple[Contour, ...]:
    contours: list[Contour] = []
    nodes: list[dict[str, Any]] = []

    def at(point: Any) -> Vector:
        return round((point.x - middle[0]) * scale, 3), round((point.y - middle[1]) * scale, 3)

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
            nodes.append({"at": at(segment.end)})
        elif isinstance(segment, Close):
            finish(True)
        elif isinstance(segment, Line):
            nodes.append({"at": at(segment.end)})
        else:
            for curve in _cubics(segment):
                start, end = at(curve.start), at(curve.end)
                nodes[-1]["after"] = _away(at(curve.control1), start)
                nodes.append({"at": end, "before": _away(at(curve.control2), end)})
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

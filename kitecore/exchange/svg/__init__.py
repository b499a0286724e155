"""SVG files as editable shapes (W3C SVG 1.1): shapes, fills, gradients, strokes, opacity, text."""

from __future__ import annotations

import io
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Final
from xml.etree import ElementTree
from xml.etree.ElementTree import Element

import numpy as np
from svgelements import SVG, Path, Shape

from kitecore.document import GroupClip, Model, ShapeClip, Track
from kitecore.document.fills import PlainFill
from kitecore.document.shapes import PathForm, Stroke
from kitecore.errors import BadInput
from kitecore.exchange.svg.contours import contours_of
from kitecore.exchange.svg.gradients import Fill, Gradient, gradient_fill, gradients_of, hexadecimal
from kitecore.exchange.svg.lettering import lettered
from kitecore.exchange.svg.remarks import OVAL, remarks_of
from kitecore.exchange.svg.sheet import Sheet, matrix_of
from kitecore.exchange.svg.styles import named, number, rules_of

MOST_BYTES: Final = 2 * 2**20
MOST_SHAPES: Final = 60
MOST_NODES: Final = 8000
MOST_DASHES: Final = 8

_REFUSED: Final = (b"<!ENTITY", b"<!entity")


class Drawing(Model):
    """A drawing as a clip; ``remarks`` say what of it could not be taken."""

    clip: ShapeClip | GroupClip
    remarks: tuple[str, ...] = ()


@dataclass(frozen=True)
class _Leaf:
    """A shape, its outline in the units of the drawing, and how much of it is seen."""

    shape: Shape
    path: Path
    opacity: float


@dataclass(frozen=True)
class _Branch:
    """Shapes that are seen through together."""

    parts: tuple[_Leaf | _Branch, ...]
    opacity: float


def read_svg(data: bytes, name: str, length: int, fit: float) -> Drawing:
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
    root = _parsed(data)
    rules = rules_of(root)
    remarks = remarks_of(root, rules)
    gradients = gradients_of(root, rules)
    lettered(root, rules)
    branch = _branch_of(ElementTree.tostring(root))
    boxes = [leaf.path.bbox() for leaf in _leaves(branch)]
    left, top = min(box[0] for box in boxes), min(box[1] for box in boxes)
    right, bottom = max(box[2] for box in boxes), max(box[3] for box in boxes)
    scale = fit / max(right - left, bottom - top, 1e-6)
    sheet = Sheet(((left + right) / 2, (top + bottom) / 2), scale)
    making = _Making(sheet, gradients, length)
    clip = making.clip(branch, name)
    if making.odd:
        remarks = (*remarks, OVAL)
    return Drawing(clip=clip, remarks=remarks)


def _parsed(data: bytes) -> Element:
    if any(word in data for word in _REFUSED):
        raise BadInput("This SVG file defines entities of its own, which are not read.")
    try:
        return ElementTree.fromstring(data)  # noqa: S314 (without entities it cannot grow)
    except ElementTree.ParseError as error:
        raise BadInput("This file is no SVG that can be read.") from error


def _branch_of(data: bytes) -> _Branch:
    try:
        drawing = SVG.parse(io.BytesIO(data), reify=False)
        branch = _Branch(tuple(_parts(drawing)), 1.0)
    except BadInput:
        raise
    except Exception as error:
        raise BadInput("This file is no SVG that can be read.") from error
    leaves = list(_leaves(branch))
    if not leaves:
        raise BadInput("There are no shapes in this SVG file.")
    if len(leaves) > MOST_SHAPES or sum(len(leaf.path) for leaf in leaves) > MOST_NODES:
        raise BadInput(
            f"This drawing holds more than {MOST_SHAPES} shapes or {MOST_NODES} points.",
            todo="Simplify it, or bring it in as a picture.",
        )
    return branch


def _parts(container: Any) -> Iterator[_Leaf | _Branch]:
    """What a group shows, from the back to the front; groups that are opaque are left out."""
    for element in container:
        opacity = _own_opacity(element)
        if isinstance(element, Shape):
            if element.values.get("visibility") != "hidden":
                path = Path(element)
                path.reify()
                if len(path) > 1 and path.bbox() is not None:
                    yield _Leaf(element, path, opacity)
        elif isinstance(element, list):
            parts = tuple(_parts(element))
            if opacity == 1:
                yield from parts
            elif parts:
                yield _Branch(parts, opacity)


def _own_opacity(element: Any) -> float:
    """How much of an element is seen, without what it lies in."""
    own = (getattr(element, "values", None) or {}).get("attributes") or {}
    return min(max(number(own.get("opacity"), 1.0), 0.0), 1.0)


def _leaves(branch: _Branch) -> Iterator[_Leaf]:
    for part in branch.parts:
        if isinstance(part, _Leaf):
            yield part
        else:
            yield from _leaves(part)


@dataclass
class _Making:
    """Clips of a drawing as they are made; ``odd`` once a gradient came otherwise than it is."""

    sheet: Sheet
    gradients: dict[str, Gradient]
    length: int
    odd: bool = False

    def clip(self, part: _Leaf | _Branch, name: str) -> ShapeClip | GroupClip:
        if isinstance(part, _Leaf):
            return self._shape(part, name)
        if len(part.parts) == 1:
            clip = self.clip(part.parts[0], name)
            assert isinstance(clip.opacity, float)
            return clip.model_copy(update={"opacity": clip.opacity * part.opacity})
        clips = [self.clip(one, f"{name} {place + 1}") for place, one in enumerate(part.parts)]
        tracks = tuple(
            Track(kind="main" if not place else "picture", name=clip.name, clips=(clip,))
            for place, clip in enumerate(clips)
        )
        return GroupClip(name=name, length=self.length, tracks=tracks, opacity=part.opacity)

    def _shape(self, leaf: _Leaf, name: str) -> ShapeClip:
        values = leaf.shape.values
        nonzero = values.get("fill-rule", "nonzero") != "evenodd"
        return ShapeClip(
            name=name,
            length=self.length,
            form=PathForm(contours=contours_of(leaf.path, self.sheet, nonzero=nonzero)),
            fill=self._fill(leaf, "fill"),
            stroke=self._stroke(leaf),
            opacity=leaf.opacity,
        )

    def _fill(self, leaf: _Leaf, what: str) -> Fill | None:
        shape, values = leaf.shape, leaf.shape.values
        gradient = self.gradients.get(named(values.get(what)) or "")
        if gradient is not None:
            box = Path(shape).bbox(transformed=False)
            opacity = number(values.get(f"{what}-opacity"), 1.0)
            shown = matrix_of(shape.transform)
            fill, exact = gradient_fill(gradient, box, shown, self.sheet, opacity)
            self.odd = self.odd or not exact
            return fill
        colour = getattr(shape, what)
        if named(values.get(what)) is not None or colour is None or colour.value is None:
            return None
        return PlainFill(colour=hexadecimal(colour), opacity=(colour.alpha or 0) / 255)

    def _stroke(self, leaf: _Leaf) -> Stroke | None:
        fill = self._fill(leaf, "stroke")
        values = leaf.shape.values
        by = abs(float(np.linalg.det(matrix_of(leaf.shape.transform)[:2, :2]))) ** 0.5
        unit = by * self.sheet.scale
        width = float(leaf.shape.stroke_width or 0) * unit
        if fill is None or width <= 0:
            return None
        dashes = (
            number(one, 0.0)
            for one in str(values.get("stroke-dasharray")).replace(",", " ").split()
        )
        lengths = tuple(round(one * unit, 2) for one in dashes if one > 0)[:MOST_DASHES]
        cap, join = values.get("stroke-linecap", "butt"), values.get("stroke-linejoin", "miter")
        return Stroke(
            fill=fill,
            width=round(width, 2),
            cap=cap if cap in ("butt", "round", "square") else "butt",
            join=join if join in ("miter", "round", "bevel") else "miter",
            dashes=lengths if len(lengths) % 2 == 0 else lengths * 2,
            dash_shift=round(number(values.get("stroke-dashoffset"), 0.0) * unit, 2),
        )

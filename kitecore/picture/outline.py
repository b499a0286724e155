"""Masks from pen paths and brush strokes, on a grid of pixels over a picture."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, Final

import cv2
import numpy as np
import skia
from numpy.typing import NDArray

from kitecore.arrays import Box, Coverage, Size
from kitecore.document.brushes import Brushed
from kitecore.document.masks import BrushStroke
from kitecore.document.paths import Contours
from kitecore.document.properties import Vector
from kitecore.picture.drawing.paths import contours_path

Array = NDArray[Any]

Disc = tuple[float, float, float]
"""Middle and radius."""

_THINNEST: Final = 5e-4
"""Radius in heights of the picture of what a pen draws that hardly touches."""
_HARDEST: Final = 0.02
"""Softness of a stroke below which it is drawn without a blur."""


@dataclass(frozen=True)
class Grid:
    """Pixels over a picture that is ``aspect`` wide and 1 high, counted from its middle."""

    width: int
    height: int
    aspect: float

    @property
    def pixel(self) -> float:
        """Height of a pixel."""
        return 1 / self.height

    @property
    def x(self) -> Array:
        columns = (np.arange(self.width, dtype=np.float32) + 0.5) / self.width - 0.5
        return (columns * self.aspect)[None, :]

    @property
    def y(self) -> Array:
        return ((np.arange(self.height, dtype=np.float32) + 0.5) / self.height - 0.5)[:, None]

    def matrix(self, centre: Vector, turn: float) -> skia.Matrix:
        """From a mask's own measure to pixels."""
        matrix = skia.Matrix.Translate(self.width / 2, self.height / 2)
        matrix.preScale(self.width / self.aspect, self.height)
        matrix.preTranslate(*centre)
        matrix.preRotate(turn)
        return matrix


def signed_distance(path: Contours, centre: Vector, turn: float, grid: Grid) -> Array:
    """Distance of each pixel to the edge of a path, in picture heights, negative inside.

    By the exact Euclidean distance transform of the path's pixels (P. Felzenszwalb and
    D. Huttenlocher, "Distance Transforms of Sampled Functions", 2012), with the share of a pixel
    that the path covers in place of the distance where that is under one pixel.
    """
    cover = _coverage(path, grid.matrix(centre, turn), grid)
    inside = (cover >= 0.5).astype(np.uint8)
    out = cv2.distanceTransform(1 - inside, cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    within = cv2.distanceTransform(inside, cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    # From middle to middle of pixels on both sides of the edge, which lies between them.
    distance = np.where(inside, 0.5 - within, out - 0.5)
    edge = (cover > 0) & (cover < 1)
    distance = np.where(edge, 0.5 - cover, distance)
    return np.asarray(distance * grid.pixel, np.float32)


def _coverage(path: Contours, matrix: skia.Matrix, grid: Grid) -> Array:
    inside = skia.Paint(Color=0xFFFFFFFF, AntiAlias=True)
    return _drawn(grid, matrix, [(contours_path(path), inside)])


def painted(strokes: tuple[BrushStroke, ...], centre: Vector, turn: float, grid: Grid) -> Array:
    """Coverage 0..1 of brush strokes, one after the other."""
    lines = [(_line(stroke), _brush(stroke, erase=stroke.erase)) for stroke in strokes]
    return _drawn(grid, grid.matrix(centre, turn), lines)


def painted_part(stroke: Brushed, grid: Grid, box: Box) -> Coverage:
    """How far one brush stroke covers the pixels of a part of the grid, 0..255."""
    left, top, right, bottom = box
    matrix = skia.Matrix.Translate(-left, -top).preConcat(grid.matrix((0.0, 0.0), 0.0))
    return _pixels((right - left, bottom - top), matrix, [(_line(stroke), _brush(stroke))])


def _line(stroke: Brushed) -> skia.Path:
    if stroke.pressures:
        return _pressed(stroke)
    path = skia.Path()
    path.moveTo(*stroke.points[0])
    for point in stroke.points[1:] or stroke.points:
        path.lineTo(*point)
    return path


def _pressed(stroke: Brushed) -> skia.Path:
    """The outline of a brush whose width changes: discs at the points, and what lies between two."""
    path = skia.Path()
    path.setFillType(skia.PathFillType.kWinding)
    half = stroke.width * (1 - stroke.softness / 2) / 2
    discs = [
        (x, y, max(half * share, _THINNEST))
        for (x, y), share in zip(stroke.points, stroke.pressures, strict=True)
    ]
    for x, y, radius in discs:
        path.addCircle(x, y, radius)
    for one, other in pairwise(discs):
        path.addPoly(_between(one, other), close=True)
    return path


def _between(one: Disc, other: Disc) -> list[skia.Point]:
    """The quadrilateral between the outer tangents of two discs, clockwise as circles are."""
    (x, y, radius), (to_x, to_y, to_radius) = one, other
    far = math.hypot(to_x - x, to_y - y)
    if far <= abs(radius - to_radius):
        return []
    along = math.atan2(to_y - y, to_x - x)
    lean = math.acos((radius - to_radius) / far)
    left, right = along - lean, along + lean
    return [
        skia.Point(x + radius * math.cos(left), y + radius * math.sin(left)),
        skia.Point(to_x + to_radius * math.cos(left), to_y + to_radius * math.sin(left)),
        skia.Point(to_x + to_radius * math.cos(right), to_y + to_radius * math.sin(right)),
        skia.Point(x + radius * math.cos(right), y + radius * math.sin(right)),
    ]


def _brush(stroke: Brushed, *, erase: bool = False) -> skia.Paint:
    """Soft over a share of its width: the blur takes as much inwards as outwards."""
    pressed = bool(stroke.pressures)
    paint = skia.Paint(
        Color=0xFFFFFFFF,
        AntiAlias=True,
        Style=skia.Paint.kFill_Style if pressed else skia.Paint.kStroke_Style,
        StrokeCap=skia.Paint.kRound_Cap,
        StrokeJoin=skia.Paint.kRound_Join,
        StrokeWidth=stroke.width * (1 - stroke.softness / 2),
    )
    if stroke.softness > _HARDEST:
        width = stroke.width * (float(np.mean(stroke.pressures)) if pressed else 1)
        sigma = max(width, 2 * _THINNEST) * stroke.softness / 6
        paint.setMaskFilter(skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, sigma))
    if erase:
        paint.setBlendMode(skia.BlendMode.kDstOut)
    return paint


def _drawn(grid: Grid, matrix: skia.Matrix, paths: list[tuple[skia.Path, skia.Paint]]) -> Array:
    """How far each pixel is covered, 0..1."""
    return _pixels((grid.width, grid.height), matrix, paths).astype(np.float32) / 255


def _pixels(size: Size, matrix: skia.Matrix, paths: list[tuple[skia.Path, skia.Paint]]) -> Coverage:
    width, height = size
    pixels = np.zeros((height, width), np.uint8)
    info = skia.ImageInfo.MakeA8(width, height)
    surface = skia.Surface.MakeRasterDirect(info, pixels)
    canvas = surface.getCanvas()
    canvas.concat(matrix)
    for path, paint in paths:
        canvas.drawPath(path, paint)
    return pixels

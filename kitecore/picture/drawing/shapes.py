"""A form with its fill and stroke."""

from __future__ import annotations

from typing import Final

import skia

from kitecore.arrays import Size
from kitecore.document import ShapeClip
from kitecore.document.shapes import Stroke
from kitecore.motion.plain import number
from kitecore.picture.drawing.fills import paint_of
from kitecore.picture.drawing.paths import path_of
from kitecore.picture.drawing.surface import drawn
from kitecore.picture.layer import Rgba

_CAPS: Final = {
    "butt": skia.Paint.kButt_Cap,
    "round": skia.Paint.kRound_Cap,
    "square": skia.Paint.kSquare_Cap,
}
_JOINS: Final = {
    "miter": skia.Paint.kMiter_Join,
    "round": skia.Paint.kRound_Join,
    "bevel": skia.Paint.kBevel_Join,
}
MITER: Final = 4.0
SHORTEST_DASH: Final = 0.5


def extent_of_shape(shape: ShapeClip) -> tuple[float, float]:
    """Width and height, in canvas pixels, of what is drawn and of as much on its other side."""
    box = path_of(shape.form).computeTightBounds()
    line = number(shape.stroke.width) / 2 if shape.stroke else 0.0
    if shape.stroke and shape.stroke.join == "miter":
        line *= MITER
    reach_x = max(abs(box.left()), abs(box.right())) + line + 1
    reach_y = max(abs(box.top()), abs(box.bottom())) + line + 1
    return 2 * reach_x, 2 * reach_y


def body_of_shape(shape: ShapeClip) -> tuple[float, float, float, float]:
    """Left, top, right and bottom of its outline, in canvas pixels from the middle."""
    box = path_of(shape.form).computeTightBounds()
    return box.left(), box.top(), box.right(), box.bottom()


def draw_shape(shape: ShapeClip, size: Size, rounding: float | None = None) -> Rgba:
    """The shape, without keys, in ``size`` pixels over its extent; ``rounding`` as for `drawn`."""
    path = path_of(shape.form)

    def draw(canvas: skia.Canvas) -> None:
        if shape.fill is not None and shape.form.kind != "line":
            canvas.drawPath(path, paint_of(shape.fill))
        if shape.stroke is not None and number(shape.stroke.width) > 0:
            canvas.drawPath(path, _stroke_paint(shape.stroke, path))

    return drawn(size, extent_of_shape(shape), draw, rounding)


def _stroke_paint(stroke: Stroke, path: skia.Path) -> skia.Paint:
    paint = paint_of(stroke.fill)
    paint.setStyle(skia.Paint.kStroke_Style)
    paint.setStrokeWidth(number(stroke.width))
    paint.setStrokeCap(_CAPS[stroke.cap])
    paint.setStrokeJoin(_JOINS[stroke.join])
    paint.setStrokeMiter(MITER)
    effects = []
    if stroke.dashes:
        # A dash needs its gap: an odd row goes through twice.
        given = tuple(max(number(one), SHORTEST_DASH) for one in stroke.dashes)
        row = given if len(given) % 2 == 0 else given * 2
        effects.append(skia.DashPathEffect.Make(list(row), number(stroke.dash_shift)))
    begin, end = (min(max(number(share), 0.0), 1.0) for share in (stroke.begin, stroke.end))
    if (begin, end) != (0.0, 1.0):
        if end <= begin:
            paint.setAlpha(0)
        else:
            effects.append(skia.TrimPathEffect.Make(begin, end))
    if effects:
        outer, *inner = effects
        paint.setPathEffect(skia.PathEffect.MakeCompose(outer, inner[0]) if inner else outer)
    return paint

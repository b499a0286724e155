"""Fills as paints. Models come without keys (see `kitecore.motion.still_at`)."""

from __future__ import annotations

import skia

from kitecore.document.fills import Fill, PlainFill, Stop, StraightFill
from kitecore.motion.plain import colour, number, pair
from kitecore.oklab import rgb_of


def paint_of(fill: Fill) -> skia.Paint:
    """A paint that fills with it; gradients go straight in sRGB, premultiplied."""
    if isinstance(fill, PlainFill):
        return skia.Paint(
            Color4f=_colour(colour(fill.colour), number(fill.opacity)), AntiAlias=True
        )
    return skia.Paint(Shader=_shader(fill), AntiAlias=True, Dither=True)


def _shader(fill: Fill) -> skia.Shader:
    stops = sorted(fill.stops, key=lambda stop: number(stop.at))  # type: ignore[union-attr]
    colours = [_stop_colour(stop) for stop in stops]
    places = [min(max(number(stop.at), 0.0), 1.0) for stop in stops]
    if len(stops) == 1:
        return skia.Shaders.Color(colours[0])
    begin, end = pair(fill.begin), pair(fill.end)  # type: ignore[union-attr]
    if isinstance(fill, StraightFill):
        ends = [skia.Point(*begin), skia.Point(*end)]
        return skia.GradientShader.MakeLinear(ends, colours, places)
    radius = max(((end[0] - begin[0]) ** 2 + (end[1] - begin[1]) ** 2) ** 0.5, 1e-3)
    return skia.GradientShader.MakeRadial(skia.Point(*begin), radius, colours, places)


def _stop_colour(stop: Stop) -> int:
    shown: int = _colour(colour(stop.colour), number(stop.opacity)).toColor()
    return shown


def _colour(rgb: str, opacity: float) -> skia.Color4f:
    red, green, blue = (channel / 255 for channel in rgb_of(rgb))
    return skia.Color4f(red, green, blue, min(max(opacity, 0.0), 1.0))

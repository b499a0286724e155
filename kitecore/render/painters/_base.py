from __future__ import annotations

from collections.abc import Callable
from typing import Any

from kitecore.document import Canvas, Pictured
from kitecore.picture.layer import Layer, Rgba
from kitecore.registry import Registry
from kitecore.render.placing import Size, land
from kitecore.render.sources import Sources

Painter = Callable[[Any, int, Canvas, Size, Sources], Layer]
painters: Registry[Painter] = Registry("painter")


def landed(
    clip: Pictured,
    tick: int,
    picture: Size,
    canvas: Canvas,
    output: Size,
    fetch: Callable[[Size], Rgba],
) -> Layer:
    """A picture of size ``picture``, fetched as large as its place draws it, where that puts it."""
    landing = land(clip.place, tick, picture, canvas, output)
    return Layer(fetch(landing.pixels), landing.matrix, landing.density)

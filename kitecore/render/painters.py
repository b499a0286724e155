"""How each kind of clip becomes a layer. To add a kind: its painter here, by name."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from kitecore.document import Canvas, ClipBase, Pictured, SolidClip, StillClip, VideoClip
from kitecore.motion import value_at
from kitecore.motion.oklab import rgb_of
from kitecore.picture.layer import Layer, Rgba, solid
from kitecore.registry import Registry
from kitecore.render.placing import Size, land
from kitecore.render.sources import Sources

Painter = Callable[[Any, int, Canvas, Size, Sources], Layer]
painters: Registry[Painter] = Registry("painter")


def paint(clip: ClipBase, tick: int, canvas: Canvas, output: Size, sources: Sources) -> Layer:
    """The clip as a layer at ``tick`` (counted from its start) for an output of this size."""
    return painters[clip.kind](clip, tick, canvas, output, sources)


def _landed(
    clip: Pictured,
    tick: int,
    picture: Size,
    canvas: Canvas,
    output: Size,
    fetch: Callable[[Size], Rgba],
) -> Layer:
    landing = land(clip.place, tick, picture, canvas, output)
    return Layer(fetch(landing.pixels), landing.matrix, landing.density)


@painters.register("video")
def paint_video(
    clip: VideoClip, tick: int, canvas: Canvas, output: Size, sources: Sources
) -> Layer:
    info = sources.picture(clip.media)

    def fetch(size: Size) -> Rgba:
        return sources.video(clip.media, clip.source_in + tick, clip.id, size)

    return _landed(clip, tick, (info.width, info.height), canvas, output, fetch)


@painters.register("still")
def paint_still(
    clip: StillClip, tick: int, canvas: Canvas, output: Size, sources: Sources
) -> Layer:
    info = sources.picture(clip.media)

    def fetch(size: Size) -> Rgba:
        return sources.still(clip.media, size)

    return _landed(clip, tick, (info.width, info.height), canvas, output, fetch)


@painters.register("solid")
def paint_solid(
    clip: SolidClip, tick: int, canvas: Canvas, output: Size, sources: Sources
) -> Layer:
    colour = value_at(clip.colour, tick)

    def fetch(size: Size) -> Rgba:
        return sources.cache.get((colour, size), lambda: solid(*size, rgb_of(colour)))

    return _landed(clip, tick, (canvas.width, canvas.height), canvas, output, fetch)

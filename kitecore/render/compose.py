"""Tracks at a moment, drawn onto a picture from the back to the front."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Final

import numpy as np

from kitecore.arrays import Coverage
from kitecore.document import HOLDOUTS, AdjustmentClip, Pictured, Track, TransitionBase
from kitecore.document.effects import Beside, Timed
from kitecore.motion import text_at
from kitecore.motion.easing import eased
from kitecore.motion.posing import opacity_at
from kitecore.picture.cells import cell_mask
from kitecore.picture.composite import lay
from kitecore.picture.effects import Other, Reads, apply_effects
from kitecore.picture.layer import Layer, Rgba, moved, solid
from kitecore.picture.mixing import luma_of, masked
from kitecore.picture.transitions import cross
from kitecore.picture.transitions._base import mixed
from kitecore.render.adjusting import Around, adjust
from kitecore.render.covering import first_seen, whole_picture
from kitecore.render.exposing import exposed
from kitecore.render.painters import paint
from kitecore.render.showing import Crossing, Showing, seen_tracks, showing_at
from kitecore.render.stage import Stage
from kitecore.render.trimming import trimmed

_UNDER: Final = 1.0
"""Pixels that a cell reaches under the next."""
_FLAT: Final = 1e-9
"""A picture that is squeezed to less has no pixels to look at."""


def draw_tracks(canvas: Rgba, tracks: tuple[Track, ...], tick: int, stage: Stage) -> None:
    """Draw what shows at ``tick`` onto ``canvas``, in place."""
    draw_showing(canvas, showing_at(tracks, tick), tick, replace(stage, tracks=tracks))


def picture_of(
    all_showing: list[Showing], tick: int, stage: Stage, colour: tuple[int, int, int]
) -> Rgba:
    """What shows over a canvas of one colour: RGBA, opaque but where holes are cut."""
    stage = replace(stage, ground=(*colour, 255))
    seen = all_showing[first_seen(all_showing, tick, stage) :]
    canvas = whole_picture(seen[0], tick, stage) if seen else None
    if canvas is None:
        canvas = solid(*stage.size, colour)
        _draw_all(canvas, seen, tick, stage)
    else:
        _draw_all(canvas, seen[1:], tick, stage, seen[0])
    return canvas


def draw_showing(canvas: Rgba, all_showing: list[Showing], tick: int, stage: Stage) -> None:
    """Draw some of what shows, from the back to the front, as far as it can be seen."""
    stage = replace(stage, ground=tuple(canvas[0, 0].tolist()))
    _draw_all(canvas, all_showing[first_seen(all_showing, tick, stage) :], tick, stage)


def _draw_all(
    canvas: Rgba, seen: list[Showing], tick: int, stage: Stage, base: Showing | None = None
) -> None:
    """``base``: what lies below the first of them."""
    for showing in seen:
        stage.sources.checkpoint()
        if isinstance(showing, Pictured) and showing.clipped:
            if base is not None:
                _draw_clipped(canvas, showing, base, tick, stage)
            continue
        base = showing
        _draw(canvas, showing, tick, stage)


def solitary(clip: Pictured, tick: int, stage: Stage) -> Rgba:
    """A clip alone, on nothing."""
    picture = np.zeros((stage.size[1], stage.size[0], 4), np.uint8)
    if not isinstance(clip, AdjustmentClip):
        _draw_clip(picture, clip, tick, stage, blend="normal")
    return picture


def _draw(
    canvas: Rgba, showing: Showing, tick: int, stage: Stage, blend: str | None = None
) -> None:
    if isinstance(showing, Crossing):
        _draw_crossing(canvas, showing, tick, stage, blend)
    elif isinstance(showing, AdjustmentClip):
        _adjust(canvas, showing, tick, stage)
    else:
        _draw_clip(canvas, showing, tick, stage, blend)


def _adjust(
    canvas: Rgba, clip: AdjustmentClip, tick: int, stage: Stage, within: Coverage | None = None
) -> None:
    around = Around(partial(_below, clip, stage), partial(_other, clip, stage))
    adjust(canvas, clip, tick, stage, around, within)


def _below(clip: AdjustmentClip, stage: Stage, tick: int, lane: str) -> Rgba:
    """What lies below an adjustment at another tick of it; each lane reads on by itself."""
    seen = seen_tracks(stage.tracks)
    own = (number for number, track in enumerate(seen) if clip.id in {c.id for c in track.clips})
    under = {track.id for track in seen[: next(own, 0)]}
    tracks = tuple(
        track.model_copy(update={"hidden": track.id not in under}) for track in stage.tracks
    )
    canvas = np.empty((stage.size[1], stage.size[0], 4), np.uint8)
    canvas[:] = np.array(stage.ground, np.uint8)
    there = clip.start + min(max(tick, 0), clip.length - 1)
    draw_tracks(canvas, tracks, there, replace(stage, lane=f"{stage.lane} {clip.id}-{lane}"))
    return canvas


def _draw_clipped(canvas: Rgba, clip: Pictured, base: Showing, tick: int, stage: Stage) -> None:
    """A layer only where the one below it is, by that one's alpha or luma."""
    ground = np.zeros_like(canvas)
    if not isinstance(base, AdjustmentClip):
        _draw(ground, base, tick, stage, blend="normal")
    cover = ground[..., 3] if clip.clipped == "alpha" else luma_of(ground)
    if isinstance(clip, AdjustmentClip):
        _adjust(canvas, clip, tick, stage, within=np.ascontiguousarray(cover))
        return
    own = np.zeros_like(canvas)
    _draw_clip(own, clip, tick, stage, blend="normal")
    picture = masked(own, np.ascontiguousarray(cover))
    lay(canvas, Layer(picture, moved(0, 0)), 1.0, clip.blend)


def _draw_crossing(
    canvas: Rgba, crossing: Crossing, tick: int, stage: Stage, blend: str | None = None
) -> None:
    a, b = np.zeros_like(canvas), np.zeros_like(canvas)
    # Blending with what lies below is done once, by the picture that comes out.
    _draw_clip(a, crossing.before, tick, stage, blend="normal")
    _draw_clip(b, crossing.after, tick, stage, blend="normal")
    # The middle of each frame's time: the first is not all one, the last not all the other.
    done = (tick - crossing.begin + stage.step / 2) / crossing.transition.length
    share = eased(crossing.transition.ease, min(max(done, 0.0), 1.0))
    picture = _crossed(a, b, min(max(share, 0.0), 1.0), crossing.transition, stage)
    lay(canvas, Layer(picture, moved(0, 0)), 1.0, blend or crossing.after.blend)


def _crossed(a: Rgba, b: Rgba, share: float, transition: TransitionBase, stage: Stage) -> Rgba:
    """Crossed on the canvas; what lies beyond it is only mixed."""
    if stage.margin == (0.0, 0.0):
        return cross(a, b, share, transition, stage.scale[0])
    x, y = (round(side * by) for side, by in zip(stage.margin, stage.scale, strict=True))
    picture = mixed(a, b, share)
    within = np.s_[y : picture.shape[0] - y, x : picture.shape[1] - x]
    before, after = np.ascontiguousarray(a[within]), np.ascontiguousarray(b[within])
    picture[within] = cross(before, after, share, transition, stage.scale[0])
    return picture


def _draw_clip(
    canvas: Rgba, clip: Pictured, tick: int, stage: Stage, blend: str | None = None
) -> None:
    local = tick - clip.start
    opacity = opacity_at(clip, local)
    if isinstance(clip, AdjustmentClip):
        return _adjust(canvas, clip, tick, stage)
    if opacity <= 0:
        return None
    if clip.cell is not None:
        if not clip.cell.corners(stage.canvas.width, stage.canvas.height):
            return None
        layer = _in_cell(clip, local, stage)
    else:
        layer = exposed(clip, local, stage, affected)
    blend = blend or clip.blend
    lay(canvas, layer if blend in HOLDOUTS else trimmed(layer, clip, stage), opacity, blend)
    return None


def affected(clip: Pictured, local: int, stage: Stage) -> Layer:
    """The clip's layer after its effects, kept if neither it nor they change."""
    layer = paint(clip, local, stage)
    if not clip.effects:
        return layer
    tables = stage.sources.tables.of_look
    if layer.constant is None or any(isinstance(effect, Timed | Beside) for effect in clip.effects):
        before, others = partial(_earlier, clip, stage), partial(_other, clip, stage)
        done = apply_effects(layer, clip.effects, local, Reads(before, others, tables))
        return replace(done, constant=None)
    now = tuple(text_at(effect, local) for effect in clip.effects)
    name = (layer.constant, now, layer.density)

    def make() -> Rgba:
        return apply_effects(layer, clip.effects, local, Reads(tables=tables)).pixels

    pixels = stage.sources.cache.get(name, make)
    border = (pixels.shape[0] - layer.pixels.shape[0]) // 2
    matrix = layer.matrix @ moved(-border, -border)
    return replace(layer, pixels=pixels, matrix=matrix, constant=name)


def _other(clip: Pictured, stage: Stage, name: str, tick: int) -> Other | None:
    """Another clip's picture at the same moment, before effects that read others in their turn.

    One that is over, or has not begun, is as it is at its nearest end.
    """
    other = stage.clips.get(name)
    if not isinstance(other, Pictured) or isinstance(other, AdjustmentClip) or name == clip.id:
        return None
    own = tuple(one for one in other.effects if not isinstance(one, Beside))
    there = min(max(clip.start + tick - other.start, 0), other.length - 1)
    shown = affected(other.model_copy(update={"effects": own}), there, stage)
    return lambda layer: _over(shown, layer)


def _over(shown: Layer, layer: Layer) -> Rgba:
    """A layer's pixels as they lie over those of another."""
    pixels = np.zeros_like(layer.pixels)
    if abs(np.linalg.det(layer.matrix)) > _FLAT:
        lay(pixels, replace(shown, matrix=np.linalg.inv(layer.matrix) @ shown.matrix))
    return pixels


def _earlier(clip: Pictured, stage: Stage, count: int, tick: int, lane: int) -> Layer:
    """The clip after its first effects at another tick; each lane reads on by itself."""
    there = min(max(tick, 0), clip.length - 1)
    other = clip.model_copy(
        update={"id": f"{clip.id}-{count}-{lane}", "effects": clip.effects[:count]}
    )
    return affected(other, there, stage)


def _in_cell(clip: Pictured, local: int, stage: Stage) -> Layer:
    """The clip fitted into its cell of the canvas, and let through only there."""
    assert clip.cell is not None
    canvas, (across, down) = stage.canvas, stage.scale
    left, top, wide, high = clip.cell.box(canvas.width, canvas.height)
    layer = affected(clip, local, stage.within((wide, high)))
    # Whole pixels around the cell, so that the result is laid without sampling it again.
    (before, above), begin = stage.margin, (left * across, top * down)
    x, y = int(np.floor(begin[0] + before * across)), int(np.floor(begin[1] + above * down))
    width = int(np.ceil((before + left + wide) * across + _UNDER)) - x
    height = int(np.ceil((above + top + high) * down + _UNDER)) - y
    pixels = np.zeros((height, width, 4), np.uint8)
    there = replace(layer, matrix=moved(begin[0] - x, begin[1] - y) @ layer.matrix)
    lay(pixels, there, snug=_UNDER + 1)
    outline = clip.cell.corners(canvas.width, canvas.height, _UNDER / min(across, down))
    corners = (np.array(outline).reshape(-1, 2) + stage.margin) * (across, down) - (x, y)
    radius = clip.cell.radius * across

    key = (corners.tobytes(), radius, width, height)
    mask = stage.sources.cache.get(key, lambda: cell_mask(corners, radius, width, height))
    return Layer(masked(pixels, mask), moved(x, y), layer.density)

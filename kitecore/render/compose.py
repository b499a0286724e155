"""Tracks at a moment, drawn onto a picture from the back to the front."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from kitecore.document import ClipBase, Pictured, Track, TransitionBase
from kitecore.motion import value_at
from kitecore.motion.easing import eased
from kitecore.picture.cells import cell_mask, masked
from kitecore.picture.composite import lay
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.picture.transitions import cross
from kitecore.render.painters import paint
from kitecore.render.stage import Stage


@dataclass(frozen=True)
class Crossing:
    """Two clips in the course of a transition."""

    before: Pictured
    after: Pictured
    transition: TransitionBase
    begin: int


Showing = Pictured | Crossing


def draw_tracks(canvas: Rgba, tracks: tuple[Track, ...], tick: int, stage: Stage) -> None:
    """Draw what shows at ``tick`` onto ``canvas``, in place."""
    draw_showing(canvas, showing_at(tracks, tick), tick, stage)


def draw_showing(canvas: Rgba, all_showing: list[Showing], tick: int, stage: Stage) -> None:
    """Draw some of what shows, from the back to the front."""
    for showing in all_showing:
        if isinstance(showing, Crossing):
            _draw_crossing(canvas, showing, tick, stage)
        else:
            _draw_clip(canvas, showing, tick, stage)


def showing_at(tracks: tuple[Track, ...], tick: int) -> list[Showing]:
    """What shows at ``tick``, from the back to the front."""
    seen = [track for track in tracks if track.kind != "sound" and not track.hidden]
    if any(track.solo for track in seen):
        seen = [track for track in seen if track.solo]
    return [showing for track in seen for showing in _on_track(track.clips, tick)]


def _on_track(clips: tuple[ClipBase, ...], tick: int) -> Iterator[Showing]:
    index = _index_at(clips, tick)
    if index is None:
        return
    clip = clips[index]
    for later in (index, index + 1):
        if not 0 < later < len(clips):
            continue
        before, after = clips[later - 1], clips[later]
        transition = after.transition
        if transition is None or before.end != after.start:
            continue
        begin = after.start - transition.half
        both = isinstance(before, Pictured) and isinstance(after, Pictured)
        if both and begin <= tick < begin + transition.length:
            yield Crossing(before, after, transition, begin)  # type: ignore[arg-type]
            return
    if isinstance(clip, Pictured) and value_at(clip.opacity, tick - clip.start) > 0:
        yield clip


def _index_at(clips: tuple[ClipBase, ...], tick: int) -> int | None:
    """Index of the clip of an ordered row that covers ``tick``."""
    low, high = 0, len(clips)
    while low < high:
        middle = (low + high) // 2
        if clips[middle].end <= tick:
            low = middle + 1
        else:
            high = middle
    return low if low < len(clips) and clips[low].start <= tick else None


def _draw_crossing(canvas: Rgba, crossing: Crossing, tick: int, stage: Stage) -> None:
    a, b = np.zeros_like(canvas), np.zeros_like(canvas)
    # Blending with what lies below is done once, by the picture that comes out.
    _draw_clip(a, crossing.before, tick, stage, blend="normal")
    _draw_clip(b, crossing.after, tick, stage, blend="normal")
    # The middle of each frame's time: the first is not all one, the last not all the other.
    done = (tick - crossing.begin + stage.step / 2) / crossing.transition.length
    share = eased(crossing.transition.ease, min(max(done, 0.0), 1.0))
    picture = cross(a, b, min(max(share, 0.0), 1.0), crossing.transition, stage.scale[0])
    lay(canvas, Layer(picture, moved(0, 0)), 1.0, crossing.after.blend)


def _draw_clip(
    canvas: Rgba, clip: Pictured, tick: int, stage: Stage, blend: str | None = None
) -> None:
    local = tick - clip.start
    opacity = value_at(clip.opacity, local)
    if opacity <= 0:
        return
    if clip.cell is not None:
        if not clip.cell.corners(stage.canvas.width, stage.canvas.height):
            return
        layer = _in_cell(clip, local, stage)
    else:
        layer = apply_effects(paint(clip, local, stage), clip.effects, local)
    lay(canvas, layer, opacity, blend or clip.blend)


def _in_cell(clip: Pictured, local: int, stage: Stage) -> Layer:
    """The clip fitted into its cell of the canvas, and let through only there."""
    assert clip.cell is not None
    canvas, (across, down) = stage.canvas, stage.scale
    left, top, wide, high = clip.cell.box(canvas.width, canvas.height)
    layer = apply_effects(paint(clip, local, stage.within((wide, high))), clip.effects, local)
    # Whole pixels around the cell, so that the result is laid without sampling it again.
    x, y = int(np.floor(left * across)), int(np.floor(top * down))
    width = max(1, int(np.ceil((left + wide) * across)) - x)
    height = max(1, int(np.ceil((top + high) * down)) - y)
    pixels = np.zeros((height, width, 4), np.uint8)
    lay(pixels, replace(layer, matrix=moved(left * across - x, top * down - y) @ layer.matrix))
    shape = np.array(clip.cell.corners(canvas.width, canvas.height)).reshape(-1, 2)
    corners = shape * (across, down) - (x, y)
    radius = clip.cell.radius * across

    key = (corners.tobytes(), radius, width, height)
    mask = stage.sources.cache.get(key, lambda: cell_mask(corners, radius, width, height))
    return Layer(masked(pixels, mask), moved(x, y), layer.density)

"""The layers of a frame one by one: which lies under a finger, what each looks like."""

from __future__ import annotations

from base64 import b64encode
from typing import Any, Final

import cv2
import numpy as np

from kitecore.document import AdjustmentClip, Document, Pictured, VideoClip
from kitecore.document.moves import Moves
from kitecore.document.warps import PinWarp
from kitecore.media.pixels import fitting
from kitecore.motion.following import solid_frame
from kitecore.motion.matrices import Matrix
from kitecore.motion.posing import pose_at
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.render.bending import bending, pins_at, seen_of
from kitecore.render.compose import solitary
from kitecore.render.frame import stage_of
from kitecore.render.painters import paint
from kitecore.render.painters.drawn import body_of, extent_of
from kitecore.render.showing import Crossing, showing_at
from kitecore.render.sources import Sources
from kitecore.render.stage import Stage
from kitecore.render.still import as_jpeg

SIDE: Final = 360
"""Pixels of the longer side of the pictures in which a finger is looked for."""
FINGER: Final = 5
"""Pixels around the spot that count as touched."""
SEEN: Final = 24
"""Alpha, 0..255, from which on a layer counts as being there."""
_CHECKS: Final = (58, 74)
_CHECK: Final = 8
_SMALLEST: Final = 40
_ROOM: Final = 6
"""Pixels around what is seen of a layer in its small picture, and the least that is shown."""


def under_finger(
    document: Document, tick: int, spot: tuple[float, float], sources: Sources
) -> dict[str, Any]:
    """Ids of the clips at a spot (canvas pixels), the front one first; adjustments come last."""
    canvas = document.canvas
    size = fitting(canvas.width, canvas.height, SIDE)
    stage = stage_of(document, size, sources)
    column, row = int(spot[0] * stage.scale[0]), int(spot[1] * stage.scale[1])
    if not (0 <= column < size[0] and 0 <= row < size[1]):
        return {"clips": []}
    around = np.s_[
        max(row - FINGER, 0) : row + FINGER + 1, max(column - FINGER, 0) : column + FINGER + 1
    ]
    found, whole = [], []
    for clip in _clips_at(document, tick):
        if isinstance(clip, AdjustmentClip):
            whole.append(clip.id)
        elif solitary(clip, tick, stage)[around][..., 3].max() >= SEEN:
            found.append(clip.id)
    return {"clips": [*reversed(found), *reversed(whole)]}


def extents(document: Document, tick: int, sources: Sources) -> dict[str, Any]:
    """Width and height in canvas pixels of what the program draws at a tick, by clip; where in it
    that lies (``bodies``, see `body_of`); and where layers really are that do not lie as their own
    place says.

    ``moved`` are the six numbers a, b, c, d, e, f that lead from canvas pixels by the place alone to
    those where it is shown: x' = a x + c y + e, y' = b x + d y + f; ``led`` what of it is done by what
    a layer follows, and not by its own motions.
    """
    stage = stage_of(document, (16, 16), sources)
    clips = _clips_at(document, tick, clear=True)
    sizes = {clip.id: extent_of(clip, tick - clip.start, stage) for clip in clips}
    bodies = {clip.id: body_of(clip, tick - clip.start, stage) for clip in clips}
    shifts = {clip.id: _moved(clip, tick - clip.start, stage) for clip in clips}
    led = {clip.id: stage.carried(clip, tick - clip.start) for clip in clips}
    return {
        "extents": {name: size for name, size in sizes.items() if size is not None},
        "bodies": {name: body for name, body in bodies.items() if body is not None},
        "moved": {name: shift for name, shift in shifts.items() if shift is not None},
        "led": {name: _six(frame) for name, frame in led.items() if frame is not None},
    }


def _moved(clip: Pictured, local: int, stage: Stage) -> list[float] | None:
    held = isinstance(clip, VideoClip) and clip.steady is not None
    if clip.moves.at_rest and not held:
        return None
    plain = clip.model_copy(update={"moves": Moves()})
    own = solid_frame(pose_at(plain, local, stage.area), stage.area)
    shown = stage.frame_of(clip, local)
    # Frames count from the pivot: both from the same one.
    return _six(shown @ np.linalg.inv(own))


def _six(frame: Matrix) -> list[float]:
    return [float(number) for number in frame[:2].T.ravel()]


def bending_lines(document: Document, tick: int, clip_id: str, sources: Sources) -> dict[str, Any]:
    """The mesh of a clip's warp at a tick: points in heights of its picture, pairs of them that are
    joined by lines, the same points at rest, where its pins are, and around what is seen of it.
    """
    _, clip = document.find_clip(clip_id)
    nothing: dict[str, Any] = {"points": [], "rest": [], "lines": [], "pins": [], "seen": None}
    if not isinstance(clip, Pictured) or isinstance(clip, AdjustmentClip) or clip.warp is None:
        return nothing
    local = min(max(tick - clip.start, 0), clip.length - 1)
    canvas = document.canvas
    stage = stage_of(document, fitting(canvas.width, canvas.height, SIDE), sources)
    layer = paint(clip.model_copy(update={"warp": None}), local, stage)
    found = bending(layer, clip, local, layer.pixels.shape[1] / layer.pixels.shape[0])
    if found is None:
        return nothing
    pins = pins_at(clip.warp, local) if isinstance(clip.warp, PinWarp) else np.zeros((0, 2))
    return {
        "points": np.round(found.points, 5).tolist(),
        "rest": np.round(found.mesh.points, 5).tolist(),
        "lines": found.lines.tolist(),
        "pins": np.round(pins, 5).tolist(),
        "seen": seen_of(layer),
    }


def layer_pictures(document: Document, tick: int, side: int, sources: Sources) -> dict[str, str]:
    """Each clip that lies at ``tick``, hidden ones too, alone and small: by id, as a ``data:`` URL."""
    found: dict[str, str] = {}
    for track in document.tracks:
        clip = next((one for one in track.clips if one.start <= tick < one.end), None)
        if isinstance(clip, Pictured):
            jpeg = _layer_picture(document, tick, clip, side, sources)
            found[clip.id] = f"data:image/jpeg;base64,{b64encode(jpeg).decode()}"
    return found


def _layer_picture(
    document: Document, tick: int, clip: Pictured, side: int, sources: Sources
) -> bytes:
    """JPEG of a clip alone on a neutral ground of checks."""
    canvas = document.canvas
    size = fitting(canvas.width, canvas.height, SIDE)
    shown = clip.model_copy(update={"opacity": 1.0})
    picture = _framed(solitary(shown, tick, stage_of(document, size, sources)))
    factor = side / max(picture.shape[:2])
    wide, high = (max(1, round(length * factor)) for length in (picture.shape[1], picture.shape[0]))
    ground = checks((wide, high))
    small = cv2.resize(picture, (wide, high), interpolation=cv2.INTER_AREA)
    lay(ground, Layer(np.asarray(small), moved(0, 0)))
    return as_jpeg(ground)


def _framed(picture: Rgba) -> Rgba:
    """The part of a picture in which something is seen, with a little room; all of it if nothing."""
    rows = np.flatnonzero(picture[..., 3].max(axis=1) >= SEEN)
    columns = np.flatnonzero(picture[..., 3].max(axis=0) >= SEEN)
    if not len(rows) or not len(columns):
        return picture
    height, width = picture.shape[:2]
    side = max(rows[-1] - rows[0], columns[-1] - columns[0], _SMALLEST) // 2 + _ROOM
    y, x = (rows[0] + rows[-1]) // 2, (columns[0] + columns[-1]) // 2
    top, left = max(0, min(y - side, height - 2 * side)), max(0, min(x - side, width - 2 * side))
    return np.ascontiguousarray(picture[top : top + 2 * side, left : left + 2 * side])


def _clips_at(document: Document, tick: int, *, clear: bool = False) -> list[Pictured]:
    """Clips that show, from the back to the front; of a transition both. ``clear``: also those of
    which nothing is seen.
    """
    found: list[Pictured] = []
    for showing in showing_at(document.tracks, tick, clear=clear):
        found += [showing.before, showing.after] if isinstance(showing, Crossing) else [showing]
    return found


def checks(size: tuple[int, int]) -> Rgba:
    """A neutral ground of dark squares."""
    x, y = np.arange(size[0]) // _CHECK, np.arange(size[1]) // _CHECK
    grey = np.where((x[None, :] + y[:, None]) % 2, *_CHECKS).astype(np.uint8)
    return np.dstack([grey, grey, grey, np.full_like(grey, 255)])

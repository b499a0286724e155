"""Which layers hide all that lies below them: that need be neither decoded nor drawn."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np

from kitecore.document import Pictured, SolidClip, StillClip, VideoClip
from kitecore.document.fills import PlainFill
from kitecore.motion import value_at
from kitecore.motion.posing import opacity_at, pose_at
from kitecore.picture.composite import lay
from kitecore.picture.layer import Rgba, solid
from kitecore.picture.leaning import leans
from kitecore.render.layering import is_plain
from kitecore.render.painters import paint
from kitecore.render.placing import Area, land
from kitecore.render.stage import Stage

_NEAR: Final = 1e-6


def first_seen(all_showing: Sequence[object], tick: int, stage: Stage) -> int:
    """Index of the lowest of some layers, from the back to the front, that can be seen."""
    for index in range(len(all_showing) - 1, 0, -1):
        one = all_showing[index]
        if isinstance(one, Pictured) and covers(one, tick - one.start, stage):
            return index
    return 0


def covers(clip: Pictured, local: int, stage: Stage) -> bool:
    """Whether a clip, at a tick of its own, is opaque on every pixel of the output."""
    if not is_plain(clip) or clip.blend != "normal" or opacity_at(clip, local) < 1:
        return False
    picture = _opaque(clip, local, stage)
    if picture is None:
        return False
    pose = pose_at(clip, local, stage.area)
    landing = land(clip.place, pose, picture, stage.area, stage.onto)
    if leans(landing.matrix) or abs(np.linalg.det(landing.matrix)) < _NEAR:
        return False
    right, bottom = stage.size
    corners = np.array([[0, right, 0, right], [0, 0, bottom, bottom], [1, 1, 1, 1]], float)
    within = (np.linalg.inv(landing.matrix) @ corners)[:2]
    most = np.array(landing.pixels, float)[:, None]
    return bool((within > -_NEAR).all() and (within < most + _NEAR).all())


def whole_picture(one: object, tick: int, stage: Stage) -> Rgba | None:
    """The output as it is once a clip that covers all of it is drawn; to be drawn on. None of any other.

    Nothing of what lies below is needed, and where the clip's pixels are those of the output they
    are not even copied.
    """
    if not isinstance(one, Pictured) or not covers(one, tick - one.start, stage):
        return None
    layer = paint(one, tick - one.start, stage)
    width, height = stage.size
    if layer.pixels.shape[:2] == (height, width) and np.abs(layer.matrix - np.eye(3)).max() < _NEAR:
        own = layer.constant is None and layer.pixels.flags.writeable
        return layer.pixels if own else layer.pixels.copy()
    canvas = solid(width, height, (0, 0, 0))
    lay(canvas, layer)
    return canvas


def _opaque(clip: Pictured, local: int, stage: Stage) -> Area | None:
    """Size of a clip's picture if all of it is opaque; None if not, or if that is not known."""
    if isinstance(clip, VideoClip | StillClip):
        info = stage.sources.picture(clip.media)
        return None if info.alpha else (float(info.width), float(info.height))
    if isinstance(clip, SolidClip) and isinstance(clip.fill, PlainFill):
        # The solid's picture has the size of what it is fitted into, in whole pixels.
        solid = value_at(clip.fill.opacity, local) >= 1
        return (max(1, round(stage.area[0])), max(1, round(stage.area[1]))) if solid else None
    return None

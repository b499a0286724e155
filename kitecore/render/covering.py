"""Which layers hide all that lies below them: that need be neither decoded nor drawn."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np

from kitecore.document import Pictured, SolidClip, StillClip, VideoClip
from kitecore.document.fills import PlainFill
from kitecore.motion import value_at
from kitecore.motion.posing import opacity_at, pose_at
from kitecore.picture.leaning import leans
from kitecore.render.layering import is_plain
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

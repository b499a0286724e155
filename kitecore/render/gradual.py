"""Clips whose colours go over into each other: in films of 10 bits they have more than 8 to give."""

from __future__ import annotations

from kitecore.document import ClipBase, ShapeClip, SolidClip
from kitecore.document.fills import Gradient
from kitecore.render.sources import TO_NEAREST
from kitecore.render.stage import Stage


def is_gradual(clip: ClipBase) -> bool:
    """Whether it is a surface or a shape with a gradient."""
    if isinstance(clip, SolidClip):
        return isinstance(clip.fill, Gradient)
    if not isinstance(clip, ShapeClip):
        return False
    line = clip.stroke.fill if clip.stroke else None
    return isinstance(clip.fill, Gradient) or isinstance(line, Gradient)


def rounding_of(clip: ClipBase, stage: Stage) -> float | None:
    """How what is drawn of it is cut to 8 bits (see `kitecore.picture.drawing.surface`)."""
    rounding = stage.sources.rounding
    return None if rounding == TO_NEAREST or not is_gradual(clip) else rounding

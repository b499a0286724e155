"""What effects would do to a layer, as small moving pictures: the list to choose from shows them."""

from __future__ import annotations

import math
from typing import Final

import cv2
import numpy as np

from kitecore.document import AdjustmentClip, Document, Pictured
from kitecore.document.controls import Control, controls_of
from kitecore.document.effects import Beside, EffectBase, Running, Timed, effect_kinds
from kitecore.errors import BadInput
from kitecore.media.pixels import fitting
from kitecore.picture.composite import lay
from kitecore.picture.effects import Reads, apply_effects
from kitecore.picture.layer import Layer, moved
from kitecore.render.compose import affected
from kitecore.render.frame import render, stage_of
from kitecore.render.layers import checks
from kitecore.render.sources import Sources
from kitecore.render.still import as_jpeg
from kitecore.ticks import TICKS_PER_SECOND

STEPS: Final = 8
"""Pictures beside each other in one sample."""
SIDE: Final = 128
"""Pixels of the longer side of each."""
_DRAWN: Final = 360
"""Pixels in which they are drawn: what is fine would be lost in smaller ones."""
_LONG: Final = 1.2
"""Seconds that they show of what runs by itself."""


def effect_sample(
    document: Document, tick: int, clip_id: str, kind: str, sources: Sources
) -> bytes:
    """JPEG of `STEPS` pictures in a row: a clip's layer with one more effect, which comes and goes,
    or runs.

    Raises
    ------
    BadInput
        If there is no such effect, or the clip has no picture.
    """
    _, clip = document.find_clip(clip_id)
    if kind not in effect_kinds or not isinstance(clip, Pictured):
        raise BadInput("There is no such effect for this clip.")
    canvas = document.canvas
    size, small = (fitting(canvas.width, canvas.height, side) for side in (_DRAWN, SIDE))
    stage = stage_of(document, size, sources)
    local = min(max(tick - clip.start, 0), clip.length - 1)
    under = None
    if isinstance(clip, AdjustmentClip):
        under = Layer(render(document, tick, size, sources), moved(0, 0), stage.scale[0], True)
    shots = []
    for step in range(STEPS):
        effect, later = shown(kind, step / STEPS, local)
        if isinstance(effect, Beside):
            effect = effect.model_copy(update={"layer": _other(document, clip_id, tick)})
        picture, there = checks(size), min(local + later, clip.length - 1)
        with_it = clip.model_copy(update={"effects": (*clip.effects, effect)})
        if under is None:
            lay(picture, affected(with_it, there, stage))
        elif _looks_around(effect):
            film = document.with_clip(with_it)
            picture = render(film, clip.start + there, size, sources)
        else:
            reads = Reads(tables=sources.tables.of_look)
            lay(picture, apply_effects(under, (effect,), local, reads))
        shots.append(cv2.resize(picture, small, interpolation=cv2.INTER_AREA))
    return as_jpeg(np.ascontiguousarray(np.hstack(shots)))


def _looks_around(effect: EffectBase) -> bool:
    """Whether it needs more than the picture that it changes."""
    return isinstance(effect, Beside) or (isinstance(effect, Timed) and effect.looks_back > 0)


def _other(document: Document, clip_id: str, tick: int) -> str:
    """A layer that is seen at a moment besides a clip."""
    found = (
        clip.id
        for _, clip in document.clips()
        if isinstance(clip, Pictured) and clip.start <= tick < clip.end
        if clip.id != clip_id and not isinstance(clip, AdjustmentClip)
    )
    return next(found, "")


def shown(kind: str, share: float, local: int) -> tuple[EffectBase, int]:
    """An effect at a share of its sample, and how much later its clip is seen then.

    What runs by itself has run for a while; of any other its first number comes from its least, to
    what it is at first, and goes again.
    """
    model = effect_kinds[kind]
    later = round(share * _LONG * TICKS_PER_SECOND)
    if issubclass(model, Running):
        return model.model_validate({"since": local - later}), 0
    if issubclass(model, Timed):
        return model.model_validate({}), later
    swing = (1 - math.cos(2 * math.pi * share)) / 2
    main = next((one for one in controls_of(model) if _swings(one)), None)
    if main is None:
        return model.model_validate({"mix": swing}), 0
    value = main.low + (main.default - main.low) * swing  # type: ignore[operator]
    return model.model_validate({main.name: value}), 0


def _swings(control: Control) -> bool:
    fresh = control.name not in EffectBase.model_fields
    return fresh and isinstance(control.default, float) and control.default != control.low

"""Onion skin: a layer at its neighbouring keys, thin, over the picture."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

import numpy as np

from kitecore.document import AdjustmentClip, Document, Pictured
from kitecore.document.properties import keys_in
from kitecore.errors import NotThere
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.render.compose import solitary
from kitecore.render.stage import Stage

SKIN: Final = 0.34
"""Opacity."""
_TINT: Final = 0.45
_BEFORE: Final = (164, 132, 232)
_AFTER: Final = (240, 178, 92)


def lay_skins(canvas: Rgba, document: Document, clip_id: str, tick: int, stage: Stage) -> None:
    """Draw a clip as it is at the keys before and after ``tick`` onto ``canvas``, in place."""
    try:
        _, clip = document.find_clip(clip_id)
    except NotThere:
        return
    if not isinstance(clip, Pictured) or isinstance(clip, AdjustmentClip):
        return
    times = sorted(set(key_ticks(clip)))
    local = tick - clip.start
    near = (
        (max((at for at in times if at < local), default=None), _BEFORE),
        (min((at for at in times if at > local), default=None), _AFTER),
    )
    for at, tint in near:
        if at is not None:
            skin = _tinted(solitary(clip, clip.start + at, stage), tint)
            lay(canvas, Layer(skin, moved(0, 0)), SKIN)


def key_ticks(clip: Pictured) -> Iterator[int]:
    """Times of all keys that move or bend a clip."""
    parts = (clip.place, clip.warp, getattr(clip, "form", None))
    return (key.at for part in parts if part for keys in keys_in(part) for key in keys.keys)


def _tinted(pixels: Rgba, tint: tuple[int, int, int]) -> Rgba:
    alpha = pixels[..., 3:].astype(np.float32) / 255
    mixed = pixels[..., :3] * (1 - _TINT) + np.array(tint, np.float32) * alpha * _TINT
    return np.dstack([np.rint(mixed).astype(np.uint8), pixels[..., 3]])

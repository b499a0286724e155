"""A clip's own picture on the way to the canvas: keyed, graded, cropped, masked."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.document import Pictured, VideoClip
from kitecore.document.clips import Crop
from kitecore.motion import still_at
from kitecore.motion.plain import number
from kitecore.picture.keying import keyed
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import masked
from kitecore.render.cutting import works_on
from kitecore.render.grading import Ungraded, graded_picture
from kitecore.render.retouching import strokes_of
from kitecore.render.stage import Stage


def prepared(
    pixels: Ungraded, clip: Pictured, tick: int, stage: Stage, aspect: float, density: float
) -> Rgba:
    """The picture of a clip after its key, grade, crop and masks, before its effects.

    Parameters
    ----------
    pixels
        Other than RGBA of 8 bits only of a clip with a grade and no key.
    aspect
        Width of the picture for a height of 1.
    density
        Pixels to one of the canvas.
    """
    if clip.key is not None and clip.key.on:
        pixels = keyed(pixels, still_at(clip.key, tick), density)  # type: ignore[arg-type]
    shown = graded_picture(pixels, clip, tick, stage, aspect)
    mask = shown_part(clip, tick, shown.shape[1], shown.shape[0], stage, aspect)
    return shown if mask is None else masked(shown, mask)


def is_plain(clip: Pictured) -> bool:
    """Whether a clip's picture comes to the canvas as it is, but for its grade."""
    odd = clip.key or clip.crop or clip.masks or clip.effects or clip.cell or clip.clipped
    mended = strokes_of(clip) or works_on(clip) or (isinstance(clip, VideoClip) and clip.steady)
    return not odd and not mended and clip.warp is None and clip.moves.at_rest


def shown_part(
    clip: Pictured, tick: int, width: int, height: int, stage: Stage, aspect: float
) -> Coverage | None:
    """0..255 for each pixel: what crop and masks leave of a picture; None for all of it."""
    mask = None
    if any(one.on for one in clip.masks):
        masks = tuple(still_at(one, tick) for one in clip.masks)
        mask = stage.sources.coverage(masks, width, height, aspect)
    if clip.crop is not None:
        part = cropped(still_at(clip.crop, tick), width, height)
        mask = part if mask is None else (mask.astype(np.uint16) * part // 255).astype(np.uint8)
    return mask


def cropped(crop: Crop, width: int, height: int) -> Coverage:
    """What a crop leaves; a pixel that it cuts is left in part."""
    across = _between(number(crop.left), number(crop.right), width)
    down = _between(number(crop.top), number(crop.bottom), height)
    return np.asarray(np.rint(down[:, None] * across[None, :] * 255), np.uint8)


def _between(before: float, after: float, count: int) -> NDArray[np.float32]:
    edges = np.arange(count, dtype=np.float32)
    low, high = before * count, (1 - after) * count
    return np.asarray(np.clip(np.minimum(edges + 1, high) - np.maximum(edges, low), 0, 1))

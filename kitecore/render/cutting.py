"""Stills cut out, and without the pieces that were taken off them."""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.document import Pictured, StillClip
from kitecore.document.cutouts import Cut, CutOut
from kitecore.media.pixels import fitting
from kitecore.motion.plain import number
from kitecore.picture.cutting import SIDE, CutFound, cut_found
from kitecore.picture.cutting.matting import enlarged
from kitecore.picture.layer import Rgba
from kitecore.picture.refining import refined
from kitecore.picture.retouch.completing import completed
from kitecore.picture.retouch.membrane import in_light
from kitecore.render.sources import Sources

_FOUND_AT: Final = 2 * SIDE
"""Pixels of the longer side of the picture that is looked at: alike in every size it is shown in."""
_FILLED_AT: Final = 480
"""Pixels of the longer side at which large holes are filled: there is no more detail in a guess."""
_MORE: Final = 0.0015
"""Heights of the picture by which a hole is larger than the piece that was in it."""
_SEEN: Final = 0.04
"""Alpha of a piece from which on it hides what lies behind."""


def works_on(clip: Pictured) -> tuple[Cut, ...]:
    """What is cut out of a clip's picture, or taken off it."""
    if not isinstance(clip, StillClip):
        return ()
    cutout = clip.cutout
    return (*clip.taken_off, *((cutout,) if cutout is not None and _cuts(cutout) else ()))


def _cuts(cutout: CutOut) -> bool:
    return cutout.on and cutout.finds


def found(media: str, cut: Cut, sources: Sources) -> CutFound:
    """What strokes mean on a take's picture; found once."""
    info = sources.picture(media)

    def find() -> CutFound:
        picture = sources.still(media, fitting(info.width, info.height, _FOUND_AT))
        return cut_found(picture, cut, info.width / info.height)

    key = (media, sources.stamp(media), "cut", cut.wanted.model_dump_json())
    known: CutFound = sources.cuts.get(key, find)
    return known


def without_pieces(pixels: Rgba, clip: StillClip, sources: Sources) -> Rgba:
    """The picture of a clip with what was taken off gone, and filled from around."""
    if not clip.taken_off:
        return pixels
    height, width = pixels.shape[:2]
    names = tuple(piece.wanted.model_dump_json() for piece in clip.taken_off)
    key = (clip.media, sources.stamp(clip.media), (width, height), "without", names)
    filled: Rgba = sources.cache.get(key, lambda: _without(pixels, clip, sources))
    return filled


def _without(pixels: Rgba, clip: StillClip, sources: Sources) -> Rgba:
    height, width = pixels.shape[:2]
    alpha = np.zeros((height, width), np.float32)
    for piece in clip.taken_off:
        small = found(clip.media, piece, sources).alpha
        alpha = np.maximum(alpha, cv2.resize(small, (width, height)))
    more = max(1, round(_MORE * height))
    hole = cv2.dilate((alpha > _SEEN).astype(np.uint8), np.ones((2 * more + 1,) * 2, np.uint8)) > 0
    size = fitting(width, height, min(_FILLED_AT, max(width, height)))
    small_hole = cv2.resize(hole.astype(np.uint8), size, interpolation=cv2.INTER_NEAREST) > 0
    small = cv2.resize(pixels, size, interpolation=cv2.INTER_AREA)
    filled = completed(np.asarray(small), small_hole)
    # Only what is covered of it means anything.
    lit = in_light(small, filled, small_hole.astype(np.uint8))
    filled[small_hole] = lit[small_hole]
    behind = cv2.resize(filled, (width, height), interpolation=cv2.INTER_CUBIC)
    behind[..., :3] = np.minimum(behind[..., :3], behind[..., 3:])
    share = cv2.blur(hole.astype(np.float32), (2 * more + 1,) * 2)[..., None]
    share = np.maximum(share, hole[..., None])
    return np.asarray(np.rint(pixels + (behind.astype(np.float32) - pixels) * share), np.uint8)


def cut_out(pixels: Rgba, clip: StillClip, cutout: CutOut, sources: Sources) -> Rgba:
    """What is left of a picture by a cut-out without keys."""
    if not _cuts(cutout):
        return pixels
    one = found(clip.media, cutout, sources)
    height, width = pixels.shape[:2]
    solid = np.maximum(pixels[..., 3:], 1).astype(np.float32)
    straight = np.asarray(pixels[..., :3] / solid, np.float32)
    alpha = enlarged(one.alpha, one.picture, straight)
    clean = min(max(number(cutout.clean), 0.0), 1.0)
    if clean and not cutout.invert and not number(cutout.rest):
        straight = _cleaned(straight, one, alpha, clean, (width, height))
    grow, soft = number(cutout.grow) * height, max(number(cutout.soft), 0.0) * height
    alpha = refined(alpha, grow, soft / 2, soft / 2)
    alpha = 1 - alpha if cutout.invert else alpha
    rest = min(max(number(cutout.rest), 0.0), 1.0)
    alpha = rest + (1 - rest) * alpha
    whole = alpha * pixels[..., 3]
    out = np.dstack([np.clip(straight, 0, 1) * whole[..., None], whole])
    return np.asarray(np.rint(out), np.uint8)


def _cleaned(
    straight: NDArray[Any], one: CutFound, alpha: NDArray[np.float32], clean: float, size: Size
) -> NDArray[Any]:
    """Colours moved to what they are without the ground, the more the clearer a pixel is."""
    change = cv2.resize(one.colours - one.picture, size, interpolation=cv2.INTER_LINEAR)
    return np.asarray(straight + change * (clean * np.sqrt(1 - alpha))[..., None])

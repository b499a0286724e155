"""Stills and videos cut out, and stills without the pieces that were taken off them."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Final

import cv2
import numpy as np

from kitecore.document import ClipBase, Model, Pictured, StillClip, VideoClip
from kitecore.document.cutouts import Cut, CutOut, CutThrough, CutView, Edged, Marks, MovingCutOut
from kitecore.media.pixels import fitting
from kitecore.motion.plain import number
from kitecore.picture.cutting import CutFound, cut_found
from kitecore.picture.cutting.leading import Matte, enlarged, laid
from kitecore.picture.cutting.marking import SIDE, made_small
from kitecore.picture.cutting.matting import colours_of
from kitecore.picture.layer import Rgba
from kitecore.picture.refining import refined
from kitecore.picture.retouch.completing import completed
from kitecore.picture.retouch.membrane import in_light
from kitecore.render.sources import Sources

_FOUND_AT: Final = 2 * SIDE
"""Pixels of the longer side of the still that is looked at: alike in every size it is shown in."""
_COARSER: Final = 2
"""By how much a frame is made smaller on which colours are cleaned, when it plays."""
_FILLED_AT: Final = 480
"""Pixels of the longer side at which large holes are filled: there is no more detail in a guess."""
_MORE: Final = 0.0015
"""Heights of the picture by which a hole is larger than the piece that was in it."""
_SEEN: Final = 0.04
"""Alpha of a piece from which on it hides what lies behind."""


def works_on(clip: Pictured) -> tuple[Model, ...]:
    """What is cut out of a clip's picture, or taken off it."""
    if not isinstance(clip, StillClip | VideoClip):
        return ()
    cutout = clip.cutout
    own = (cutout,) if cutout is not None and cutout.cuts else ()
    return (*clip.taken_off, *own) if isinstance(clip, StillClip) else own


def cuts_through(clips: Iterable[ClipBase]) -> list[tuple[str, CutThrough]]:
    """What has to be found in takes before clips can be drawn as they are meant."""
    return [
        (clip.media, clip.cutout.through)
        for clip in clips
        if isinstance(clip, VideoClip)
        and clip.cutout is not None
        and clip.cutout.cuts
        and clip.cutout.through is not None
    ]


def found(media: str, cut: Cut, sources: Sources) -> CutFound:
    """What strokes mean on a still."""

    def picture() -> Rgba:
        info = sources.picture(media)
        return sources.still(media, fitting(info.width, info.height, _FOUND_AT))

    return _found(media, 0, cut, sources, picture)


def _found(
    media: str, number: int, cut: Cut, sources: Sources, picture: Callable[[], Rgba]
) -> CutFound:
    """What marks mean on a frame of a take; found once, on a picture that is alike wherever it is shown:

    the least other edge may lead around something else.
    """
    info = sources.picture(media)

    def find() -> CutFound:
        return cut_found(picture(), cut, info.width / info.height)

    key = (media, sources.stamp(media), number, "cut", cut.wanted.model_dump_json())
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
    """What is left of a still by a cut-out without keys."""
    if not cutout.cuts:
        return pixels
    return lifted(pixels, found(clip.media, cutout, sources), cutout)


def cut_out_moving(
    pixels: Rgba, clip: VideoClip, cutout: MovingCutOut, tick: int, sources: Sources
) -> Rgba:
    """What is left of a video's picture at a tick of the file."""
    number = sources.frame_number(clip.media, tick)
    if cutout.through is not None:
        mattes = sources.mattes(clip.media, cutout.through)
        alpha = mattes.at(number) if mattes is not None else None
        return pixels if alpha is None else lifted(pixels, on_picture(pixels, alpha), cutout)
    for view in cutout.views:
        if view.finds and sources.frame_number(clip.media, view.at) == number:
            return lifted(pixels, _found_on(clip, view, number, cutout.edge, sources), cutout)
    return pixels


def _found_on(
    clip: VideoClip, view: CutView, number: int, edge: float, sources: Sources
) -> CutFound:
    """What marks mean on their frame of a video."""
    marks = {name: getattr(view, name) for name in Marks.model_fields}
    lane = f"{clip.id} marked"
    return _found(
        clip.media,
        number,
        Cut(**marks, edge=edge),
        sources,
        lambda: sources.looked_at(clip.media, number, lane),
    )


def on_picture(pixels: Rgba, alpha: Matte) -> CutFound:
    """A matte that was found before, with the picture as it is now."""
    small, _ = made_small(pixels)
    if small.shape[:2] != alpha.shape:
        smaller = small.shape[0] < alpha.shape[0]
        how = cv2.INTER_AREA if smaller else cv2.INTER_LINEAR
        alpha = np.asarray(cv2.resize(alpha, small.shape[1::-1], interpolation=how))
    return CutFound(small, alpha, colours_of(small, alpha, _COARSER))


def lifted(pixels: Rgba, one: CutFound, shown: Edged) -> Rgba:
    """What is left of a picture by what was found on it."""
    height = pixels.shape[0]
    alpha = enlarged(one.alpha, one.picture, pixels)
    rest = min(max(number(shown.rest), 0.0), 1.0)
    clean = min(max(number(shown.clean), 0.0), 1.0)
    grow, soft = number(shown.grow) * height, max(number(shown.soft), 0.0) * height
    alpha = refined(alpha, grow, soft / 2, soft / 2)
    alpha = 1 - alpha if shown.invert else alpha
    if rest:
        alpha = rest + (1 - rest) * alpha
    cleans = clean and not shown.invert and not rest
    return laid(pixels, alpha, one.colours - one.picture if cleans else None, clean)

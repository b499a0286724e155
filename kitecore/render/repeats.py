"""Frames that look like the one before: they are not drawn again."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Iterator
from functools import partial
from typing import Final

import av

from kitecore.arrays import Size
from kitecore.document import (
    Document,
    Holding,
    Pictured,
    SequenceClip,
    TextClip,
    Track,
    VideoClip,
)
from kitecore.document.effects import Beside, Timed
from kitecore.document.properties import keys_in
from kitecore.kept import KeptOf
from kitecore.render.painters.saying import word_at
from kitecore.render.showing import showing_at
from kitecore.render.sources import Sources

DrawPlanes = Callable[[Document, int, Size, Sources], av.VideoFrame]

_steady: Final[KeptOf[bool]] = KeptOf(1024)


def frames_of(
    document: Document, numbers: Iterable[int], size: Size, sources: Sources, draw: DrawPlanes
) -> Iterator[av.VideoFrame]:
    """The planes of frames in a row; the same object again where nothing has changed."""
    rate = document.rate.exact
    before: Hashable = None
    frame: av.VideoFrame | None = None
    for number in numbers:
        tick = rate.start_of(number)
        look = look_at(document.tracks, tick, rate.frame_ticks, sources)
        if frame is None or look is None or look != before:
            frame = draw(document, tick, size, sources)
        before = look
        yield frame


def look_at(tracks: tuple[Track, ...], tick: int, step: int, sources: Sources) -> Hashable:
    """What shows at a tick: two moments of one document with the same look are the same picture.

    None if that is not known, as while anything moves by itself.
    """
    look = []
    for one in showing_at(tracks, tick, clear=True):
        if not isinstance(one, Pictured) or not _steady.get(one, partial(is_steady, one)):
            return None
        shown = _shown(one, tick - one.start, step, sources)
        if shown is None:
            return None
        look.append((one.id, shown))
    return tuple(look)


def is_steady(clip: Pictured) -> bool:
    """Whether nothing of a clip changes over time but what its source, or its group, shows."""
    running = any(isinstance(effect, Timed | Beside) for effect in clip.effects)
    hull = clip.model_copy(update={"tracks": ()}) if isinstance(clip, Holding) else clip
    return clip.moves.at_rest and not running and not keys_in(hull)


def _shown(clip: Pictured, local: int, step: int, sources: Sources) -> Hashable:
    """What a clip shows at a tick of its own; None if that is not known."""
    if isinstance(clip, VideoClip):
        source = clip.shown_at(local, step)
        if clip.between == "nearest":
            return sources.frame_number(clip.media, source)
        return sources.between(clip.media, source)
    if isinstance(clip, SequenceClip):
        return clip.media_at(local)
    if isinstance(clip, TextClip) and clip.lit is not None:
        return word_at(clip, local)
    if isinstance(clip, Holding):
        inner = clip.shown_at(local, step)
        # Between two of its frames a group may be mixed of both.
        return (
            None if inner % step else look_at(clip.seen(inner, inner + step), inner, step, sources)
        )
    return ""

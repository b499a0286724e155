"""A picture of another shape that stays on what is followed: the window goes along over the canvas."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

import numpy as np

from kitecore.document import Document, VideoClip
from kitecore.render.frame import stage_of
from kitecore.render.making.framing import Corner
from kitecore.render.making.work import Work
from kitecore.render.showing import seen_tracks
from kitecore.render.sources import Sources
from kitecore.render.spots import spot_of
from kitecore.ticks import TICKS_PER_SECOND, Span

Spot = tuple[float, float]
"""Across and down, in shares of the canvas."""

_CALM: Final = TICKS_PER_SECOND
"""Time over which the way of the window is evened out: small steps to and fro are not followed."""
_LOOKS: Final = 13
"""Moments within that time."""
_WEIGHTS: Final = np.hanning(_LOOKS + 2)[1:-1]


def followed(document: Document, span: Span) -> Iterator[VideoClip]:
    """Clips in which something is followed, the one in front first, as far as they are seen then."""
    for track in reversed(seen_tracks(document.tracks)):
        for clip in track.clips:
            if isinstance(clip, VideoClip) and clip.trackers and clip.span.overlaps(span):
                yield clip


def corner_at(work: Work, tick: int, sources: Sources) -> Corner:
    """Where the canvas lies in the picture at a tick: where it always does if nothing is followed then.

    At a cut it goes over at once.
    """
    if not work.framing.follows:
        return work.framing.at
    clip = next(followed(work.document, Span(tick, tick + 1)), None)
    if clip is None:
        return work.framing.at
    return work.framing.around(_calm_spot(work.document, clip, tick, sources))


def _calm_spot(document: Document, clip: VideoClip, tick: int, sources: Sources) -> Spot:
    stage = stage_of(document, (16, 16), sources)
    ticks = np.linspace(tick - _CALM / 2, tick + _CALM / 2, _LOOKS)
    there = np.clip(ticks, clip.start, clip.end - 1).astype(np.int64)
    thing = clip.trackers[0].id
    spots = np.array([spot_of(clip, thing, int(at) - clip.start, stage) for at in there])
    across, down = (spots * _WEIGHTS[:, None]).sum(axis=0) / _WEIGHTS.sum()
    return float(across) / document.canvas.width, float(down) / document.canvas.height


def facts_of(work: Work, span: Span) -> str:
    """What the window's way depends on besides what is seen in a span of the timeline."""
    if not work.framing.follows:
        return ""
    return "".join(clip.model_dump_json() for clip in followed(work.document, span))

"""By how much an insert turns the sound down, frame by frame: what its meter shows."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.document import Document, Paced, Sounding
from kitecore.document.inserts import InsertBase
from kitecore.errors import EditRefused
from kitecore.render.clipsound import plain_reader
from kitecore.render.paced import Read
from kitecore.render.samples import clips_of, mixed, source_reader
from kitecore.render.sources import Sources
from kitecore.sound.inserts import turned_down_by
from kitecore.sound.ramps import sample_at

MOST_FRAMES: Final = 300


def reductions(
    document: Document, owner: str, insert: str, tick: int, ticks: list[int], sources: Sources
) -> list[float]:
    """The largest reduction in dB within each frame from one moment to another.

    Parameters
    ----------
    owner
        Id of the clip or of the track whose chain has the insert; empty for the film.

    Raises
    ------
    EditRefused
        If there is no such insert, or it turns nothing down.
    """
    chain, read, begin = _before(document, owner, sources)
    rate = document.rate.exact
    first, last = rate.frame_at(tick), rate.frame_at(ticks[0])
    frames = range(first, min(last, first + MOST_FRAMES) + 1)
    bounds = np.array([sample_at(rate.start_of(number)) for number in frames])
    start, count = int(bounds[0]), int(bounds[-1] - bounds[0])
    if count < 1:
        return []
    less = turned_down_by(chain, insert, read, start - begin, count)
    if less is None:
        raise EditRefused("There is nothing that turns anything down.")
    most = np.maximum.reduceat(less, bounds[:-1] - start)
    return [round(float(one), 1) for one in most]


def _before(
    document: Document, owner: str, sources: Sources
) -> tuple[tuple[InsertBase, ...], Read, int]:
    """A chain, the sound that goes into it, and the sample that it counts from."""
    if not owner:
        tracks = document.tracks
        return document.strip.chain, lambda a, many: mixed(tracks, a, many, sources), 0
    track = next((one for one in document.tracks if one.id == owner), None)
    if track is not None:
        return track.strip.chain, lambda a, many: clips_of(track, a, many, sources), 0
    clip = next((clip for _, clip in document.clips() if clip.id == owner), None)
    if not isinstance(clip, Paced) or not isinstance(clip, Sounding):
        raise EditRefused("There is no such chain.")
    read = plain_reader(clip, source_reader(clip, sources), sources)
    return clip.chain, read, sample_at(clip.start)

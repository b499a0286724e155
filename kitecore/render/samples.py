"""Document and range to sound."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from kitecore.document import (
    ClipBase,
    Document,
    GroupClip,
    Paced,
    Sounding,
    Sourced,
    Track,
)
from kitecore.document.properties import Keys
from kitecore.document.track import transition_out, with_neighbours
from kitecore.media.soundcopy import CHANNELS, read_sound
from kitecore.motion import value_at
from kitecore.render.paced import SAMPLE_TICKS, Read, paced_samples
from kitecore.render.sources import Sources
from kitecore.sound.crossfade import equal_power
from kitecore.sound.limiter import REACH, limited
from kitecore.sound.ramps import DECLICK, Samples, edge_ramp, from_db

Positions = NDArray[np.int64]
_GAIN_STEP = 480
"""Samples between two looks at a gain that has keys."""


def sample_at(tick: int) -> int:
    """The sample nearest to a tick."""
    return (tick + SAMPLE_TICKS // 2) // SAMPLE_TICKS


def render_samples(document: Document, start: int, count: int, sources: Sources) -> Samples:
    """The sound of the timeline from sample ``start`` on.

    float32, shape (count, 2), full scale 1; the same samples however the range is cut.
    """
    around = mixed(document.tracks, start - REACH, count + 2 * REACH, sources)
    return limited(around)


def mixed(tracks: tuple[Track, ...], start: int, count: int, sources: Sources) -> Samples:
    """The sum of tracks, with nothing done about its level."""
    total = np.zeros((count, CHANNELS), np.float32)
    for track in audible(tracks):
        for before, clip, after in with_neighbours(track.clips):
            span = _heard_span(clip, after)
            if span[1] <= start or span[0] >= start + count or not _sounds(clip, sources):
                continue
            a, b = max(span[0], start), min(span[1], start + count)
            total[a - start : b - start] += _clip_samples(before, clip, after, a, b, sources)
    return total


def _heard_span(clip: ClipBase, after: ClipBase | None) -> tuple[int, int]:
    """First and last sample of a clip, with what of it is heard across its joins."""
    begin = clip.start - (clip.transition.half if clip.transition else 0)
    leaving = transition_out(clip, after)
    return sample_at(begin), sample_at(clip.end + (leaving.half if leaving else 0))


def audible(tracks: tuple[Track, ...]) -> list[Track]:
    solo = any(track.solo for track in tracks)
    return [t for t in tracks if not t.muted and (t.solo or not solo)]


def _sounds(clip: ClipBase, sources: Sources) -> bool:
    if not isinstance(clip, Sounding) or clip.muted:
        return False
    if isinstance(clip, Sourced):
        return sources.folder(clip.media).info.sound is not None
    return isinstance(clip, GroupClip)


def _reader(clip: Paced, sources: Sources) -> Read:
    """Where the clip's samples come from."""
    if isinstance(clip, GroupClip):
        return lambda start, count: mixed(clip.tracks, start, count, sources)
    assert isinstance(clip, Sourced)
    return lambda start, count: read_sound(sources.folder(clip.media), start, count)


def _continues(first: ClipBase | None, second: ClipBase | None) -> bool:
    """Whether the second goes on exactly where the first stops, as after a split."""
    return (
        isinstance(first, Paced)
        and isinstance(second, Paced)
        and isinstance(first, Sounding)
        and isinstance(second, Sounding)
        and first.end == second.start
        and second.transition is None
        and first.uses() == second.uses()
        and abs(first.source_at(first.length) - second.source_in) <= 1
        and _same_speed(first, second)
        and first.muted == second.muted
        and first.fade_out == second.fade_in == 0
        and value_at(first.gain, first.length) == value_at(second.gain, 0)
    )


def _same_speed(first: Paced, second: Paced) -> bool:
    """Of stretched sound each clip is made on its own, so only plain and varied speed go on."""
    if first.speed.plain and second.speed.plain:
        return True
    pitched = any(isinstance(clip, Sounding) and clip.keep_pitch for clip in (first, second))
    return not pitched and first.speed.moved(-first.length) == second.speed


def _clip_samples(
    before: ClipBase | None,
    clip: ClipBase,
    after: ClipBase | None,
    a: int,
    b: int,
    sources: Sources,
) -> Samples:
    """Samples ``a`` to ``b`` of the timeline, all where the clip is heard."""
    assert isinstance(clip, Paced) and isinstance(clip, Sounding)
    first = sample_at(clip.start)
    positions = np.arange(a - first, b - first)
    read = _reader(clip, sources)
    if clip.speed.plain:
        # Rounded once, from the difference, which a split does not change: no sample is lost there.
        samples = read(a + sample_at(clip.source_in - clip.start), b - a)
    else:
        samples = paced_samples(clip, a - first, b - a, read, sources.stretches)
    factor = _edges(before, clip, after, positions)
    return samples * (factor * _gain(clip, positions))[:, None]


def _edges(
    before: ClipBase | None, clip: ClipBase, after: ClipBase | None, positions: Positions
) -> Samples:
    """Fades, crossfades and the short ramps that keep cuts from clicking."""
    assert isinstance(clip, Sounding)
    length = sample_at(clip.end) - sample_at(clip.start)
    coming, leaving = clip.transition, transition_out(clip, after)
    rise = 0 if coming or _continues(before, clip) else max(DECLICK, sample_at(clip.fade_in))
    fall = 0 if leaving or _continues(clip, after) else max(DECLICK, sample_at(clip.fade_out))
    factor = edge_ramp(positions, length, min(rise, length), min(fall, length))
    if coming:
        half = sample_at(coming.half)
        factor = factor * equal_power(positions + half, 2 * half, rising=True)
    if leaving:
        half = sample_at(leaving.half)
        factor = factor * equal_power(positions - length + half, 2 * half, rising=False)
    return factor


def _gain(clip: Sounding, positions: NDArray[np.int64]) -> Samples | float:
    """Factor of the clip's gain at samples counted from its start."""
    if not isinstance(clip.gain, Keys):
        return from_db(clip.gain)
    first = int(positions[0]) // _GAIN_STEP * _GAIN_STEP
    grid = np.arange(first, int(positions[-1]) + 2 * _GAIN_STEP, _GAIN_STEP)
    looked = [from_db(value_at(clip.gain, int(at) * SAMPLE_TICKS)) for at in grid]
    return np.interp(positions, grid, looked).astype(np.float32)

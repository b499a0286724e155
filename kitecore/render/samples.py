"""Document and range to sound."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from kitecore.document import ClipBase, Document, Sounding, Sourced, Track
from kitecore.document.properties import Keys
from kitecore.media.soundcopy import CHANNELS, SOUND_RATE, read_sound
from kitecore.motion import value_at
from kitecore.render.sources import Sources
from kitecore.sound.ramps import DECLICK, edge_ramp, from_db, soft_limit
from kitecore.ticks import TICKS_PER_SECOND

Samples = NDArray[np.float32]
SAMPLE_TICKS = TICKS_PER_SECOND // SOUND_RATE
_GAIN_STEP = 480
"""Samples between two looks at a gain that has keys."""


def sample_at(tick: int) -> int:
    """The sample nearest to a tick."""
    return (tick + SAMPLE_TICKS // 2) // SAMPLE_TICKS


def render_samples(document: Document, start: int, count: int, sources: Sources) -> Samples:
    """The sound of the timeline from sample ``start`` on.

    float32, shape (count, 2), full scale 1; the same samples however the range is cut.
    """
    mixed = np.zeros((count, CHANNELS), np.float32)
    for track in audible_tracks(document):
        for before, clip, after in _with_neighbours(track.clips):
            first, last = sample_at(clip.start), sample_at(clip.end)
            if last <= start or first >= start + count or not _sounds(clip, sources):
                continue
            a, b = max(first, start), min(last, start + count)
            joined = (_continues(before, clip), _continues(clip, after))
            mixed[a - start : b - start] += _clip_samples(clip, a, b, joined, sources)
    return soft_limit(mixed)


def audible_tracks(document: Document) -> list[Track]:
    solo = any(track.solo for track in document.tracks)
    return [t for t in document.tracks if not t.muted and (t.solo or not solo)]


def _with_neighbours(
    clips: tuple[ClipBase, ...],
) -> Iterator[tuple[ClipBase | None, ClipBase, ClipBase | None]]:
    for index, clip in enumerate(clips):
        before = clips[index - 1] if index else None
        yield before, clip, clips[index + 1] if index + 1 < len(clips) else None


def _sounds(clip: ClipBase, sources: Sources) -> bool:
    return (
        isinstance(clip, Sounding)
        and isinstance(clip, Sourced)
        and not clip.muted
        and sources.folder(clip.media).info.sound is not None
    )


def _continues(first: ClipBase | None, second: ClipBase | None) -> bool:
    """Whether the second goes on exactly where the first stops, as after a split."""
    return (
        isinstance(first, Sourced)
        and isinstance(second, Sourced)
        and isinstance(first, Sounding)
        and isinstance(second, Sounding)
        and first.end == second.start
        and first.media == second.media
        and first.source_in + first.length == second.source_in
        and first.muted == second.muted
        and first.fade_out == second.fade_in == 0
        and value_at(first.gain, first.length) == value_at(second.gain, 0)
    )


def _clip_samples(
    clip: ClipBase, a: int, b: int, joined: tuple[bool, bool], sources: Sources
) -> Samples:
    """Samples ``a`` to ``b`` of the timeline, all within the clip."""
    assert isinstance(clip, Sourced) and isinstance(clip, Sounding)
    # Rounded once, from the difference, which a split does not change: no sample is lost there.
    offset = sample_at(clip.source_in - clip.start)
    samples = read_sound(sources.folder(clip.media), a + offset, b - a)
    first, length = sample_at(clip.start), sample_at(clip.end) - sample_at(clip.start)
    rise = 0 if joined[0] else max(DECLICK, sample_at(clip.fade_in))
    fall = 0 if joined[1] else max(DECLICK, sample_at(clip.fade_out))
    positions = np.arange(a - first, b - first)
    factor = edge_ramp(positions, length, min(rise, length), min(fall, length))
    return samples * (factor * _gain(clip, positions))[:, None]


def _gain(clip: Sounding, positions: NDArray[np.int64]) -> Samples | float:
    """Factor of the clip's gain at samples counted from its start."""
    if not isinstance(clip.gain, Keys):
        return from_db(clip.gain)
    first = int(positions[0]) // _GAIN_STEP * _GAIN_STEP
    grid = np.arange(first, int(positions[-1]) + 2 * _GAIN_STEP, _GAIN_STEP)
    looked = [from_db(value_at(clip.gain, int(at) * SAMPLE_TICKS)) for at in grid]
    return np.interp(positions, grid, looked).astype(np.float32)

"""Document and range to sound: clips, then tracks, then the film."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

import numpy as np

from kitecore.document import Document, GroupClip, Sourced, Track
from kitecore.document.clips import ClipBase
from kitecore.document.strips import Strip
from kitecore.document.track import with_neighbours
from kitecore.media.soundcopy import CHANNELS
from kitecore.render.audible import audible
from kitecore.render.clipsound import clip_samples, heard_span, sounds, take_reader
from kitecore.render.paced import Read, sample_at
from kitecore.render.sources import Sources
from kitecore.render.speaking import quieter
from kitecore.sound.inserts import Over, chain_reach, chained
from kitecore.sound.limiter import REACH, limited
from kitecore.sound.ramps import RATE, SAMPLE_TICKS, Samples, from_db, gains_of
from kitecore.sound.sides import panned
from kitecore.sound.stepping import STEP, reach

__all__ = ["audible", "mixed", "render_samples", "run_up", "sample_at"]


_SMALL_BLOCK: Final = 2 * RATE
_LARGE_BLOCK: Final = 10 * RATE
"""Samples that go through the chain of a track together: few where a piece is wanted."""
_UNHEARD: Final = {"name", "tag", "markers"}

Listen = Callable[[str, int, Samples], None]
"""``listen(track, start, samples)``: hears what a track gives to the mix."""


def render_samples(
    document: Document,
    start: int,
    count: int,
    sources: Sources,
    listen: Listen | None = None,
) -> Samples:
    """The sound of the timeline from sample ``start`` on.

    float32, shape (count, 2), full scale 1; the same samples, within -90 dB, however the range is cut.
    """
    strip = document.strip

    def read(first: int, many: int) -> Samples:
        return mixed(document.tracks, first, many, sources, listen)

    def after_chain(first: int, many: int) -> Samples:
        return chained(strip.chain, read, first, many)

    around = through_strip(strip, after_chain, start - REACH, count + 2 * REACH)
    return limited(around, from_db(strip.ceiling))


def mixed(
    tracks: tuple[Track, ...],
    start: int,
    count: int,
    sources: Sources,
    listen: Listen | None = None,
) -> Samples:
    """The sum of tracks, each through its strip, with nothing done about its level."""
    total = np.zeros((count, CHANNELS), np.float32)
    for track in audible(tracks):
        samples = track_samples(track, tracks, start, count, sources)
        if listen is not None:
            listen(track.id, start, samples)
        total += samples
    return total


def track_samples(
    track: Track, beside: tuple[Track, ...], start: int, count: int, sources: Sources
) -> Samples:
    """What a track gives to the mix, with those that lie ``beside`` it."""
    before, after = chain_reach(track.strip.chain)
    reach = (start - before, start + count + after)
    if not any(_sounding(track, *reach, sources)):
        return np.zeros((count, CHANNELS), np.float32)
    samples = through_strip(track.strip, _chained_blocks(track, sources), start, count)
    under = track.strip.under
    if under is None or not under.tracks:
        return samples
    less = quieter(under, beside, Over(start, count), sources)
    return samples * np.power(10.0, less / 20).astype(np.float32)[:, None]


def _chained_blocks(track: Track, sources: Sources) -> Read:
    """The clips of a track after its chain: by blocks, which are kept, since each runs up anew."""
    chain = track.strip.chain
    before, after = chain_reach(chain)

    def clips(first: int, many: int) -> Samples:
        return clips_of(track, first, many, sources)

    def block(number: int, size: int) -> Samples:
        first = number * size
        named = _named(track, first - before, first + size + after, sources)
        return sources.sound_blocks.get(
            (named, number, size), lambda: chained(chain, clips, first, size)
        )

    def read(first: int, many: int) -> Samples:
        size = _SMALL_BLOCK if many < _LARGE_BLOCK else _LARGE_BLOCK
        blocks = range(first // size, (first + many - 1) // size + 1)
        whole = np.concatenate([block(number, size) for number in blocks])
        begin = first - blocks.start * size
        return whole[begin : begin + many]

    return read if before + after else clips


def _named(track: Track, start: int, end: int, sources: Sources) -> tuple[str, ...]:
    """What a stretch of a track's sound follows from."""
    found = [track.strip.model_dump_json(include={"chain"})]
    for row in _sounding(track, start, end, sources):
        for clip in filter(None, row):
            stamps = ",".join(str(sources.stamp(media)) for media in sorted(clip.uses()))
            found.append(f"{clip.model_dump_json(exclude=_UNHEARD)}/{stamps}")
    return tuple(found)


def through_strip(strip: Strip, read: Read, start: int, count: int) -> Samples:
    """Sound that went through a chain, after the gain and pan of its strip."""
    samples = read(start, count)
    over = Over(start, count)
    gain = gains_of(over.each(strip.gain))
    if isinstance(gain, np.ndarray):
        samples = samples * gain[:, None]
    elif gain != 1:
        samples = samples * np.float32(gain)
    return panned(samples, over.each(strip.pan), mono=False)


def clips_of(track: Track, start: int, count: int, sources: Sources) -> Samples:
    """The clips of a track, before its strip."""
    total = np.zeros((count, CHANNELS), np.float32)
    for before, clip, after in _sounding(track, start, start + count, sources):
        low, high = heard_span(clip, after)
        a, b = max(low, start), min(high, start + count)
        source = _reader(clip, sources)
        total[a - start : b - start] += clip_samples(before, clip, after, a, b, source, sources)
    return total


def _sounding(
    track: Track, start: int, end: int, sources: Sources
) -> list[tuple[ClipBase | None, ClipBase, ClipBase | None]]:
    """The clips of a track that are heard between two samples, with their neighbours."""
    found = []
    for before, clip, after in with_neighbours(track.clips):
        low, high = heard_span(clip, after)
        if high > start and low < end and sounds(clip, sources):
            found.append((before, clip, after))
    return found


def _reader(clip: ClipBase, sources: Sources) -> Read:
    """Where the clip's samples come from."""
    if isinstance(clip, GroupClip):
        return lambda start, count: mixed(clip.tracks, start, count, sources)
    assert isinstance(clip, Sourced)
    return take_reader(clip.media, sources)


def run_up(document: Document) -> tuple[int, int]:
    """Ticks before and after a stretch that its sound depends on, by chains and the limiter."""
    before, after = (REACH + own for own in chain_reach(document.strip.chain))
    inner = [_track_reach(track) for track in document.tracks]
    before += max((one for one, _ in inner), default=0)
    after += max((other for _, other in inner), default=0)
    return before * SAMPLE_TICKS, after * SAMPLE_TICKS


def _track_reach(track: Track) -> tuple[int, int]:
    """Of a track's chain, those of its clips and of what is in its groups."""
    before, after = chain_reach(track.strip.chain)
    if under := track.strip.under:
        around = reach(under.fade, under.ahead) * STEP
        before, after = max(before, around), max(after, around)
    deepest = [(0, 0)]
    for clip in track.clips:
        chain = getattr(clip, "chain", ())
        if isinstance(clip, GroupClip):
            inner = [_track_reach(one) for one in clip.tracks] or [(0, 0)]
            own = chain_reach(chain)
            deepest.append((own[0] + max(b for b, _ in inner), own[1] + max(a for _, a in inner)))
        elif chain:
            deepest.append(chain_reach(chain))
    return before + max(b for b, _ in deepest), after + max(a for _, a in deepest)

"""Document and range to sound: clips, then tracks, then the film."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Final

import numpy as np

from kitecore.document import Document, Holding, Sourced, Track
from kitecore.document.clips import ClipBase
from kitecore.document.strips import Strip
from kitecore.document.track import with_neighbours
from kitecore.media.soundcopy import CHANNELS
from kitecore.render.audible import audible
from kitecore.render.clipsound import clip_samples, heard_span, sounds, take_reader
from kitecore.render.extract import clip_text
from kitecore.render.paced import Read
from kitecore.render.sources import Sources
from kitecore.render.speaking import quieter
from kitecore.sound.inserts import Over, chain_reach, chained
from kitecore.sound.limiter import REACH, limited
from kitecore.sound.ramps import RATE, SAMPLE_TICKS, Samples, from_db, gains_of, with_gain
from kitecore.sound.sides import panned
from kitecore.sound.stepping import stretches

_SMALL_BLOCK: Final = 2 * RATE
_LARGE_BLOCK: Final = 5 * RATE
"""Samples that go through the chain of a track together: few where a piece is wanted."""

Row = tuple[ClipBase | None, ClipBase, ClipBase | None]
"""A clip with those before and after it."""
Name = tuple[str, tuple[str, ...], int, int]
"""What a block is known by: the chain, what it is made of, where it begins, how long it is."""
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
    samples = through_strip(track.strip, _chained_blocks(track, sources), start, count)
    under = track.strip.under
    if under is None or not under.tracks or not samples.any():
        return samples
    return with_gain(samples, gains_of(quieter(under, beside, Over(start, count), sources)))


def _chained_blocks(track: Track, sources: Sources) -> Read:
    """The clips of a track after its chain: by blocks, which are kept, since each run of them runs up anew."""
    chain = track.strip.chain
    before, after = chain_reach(chain)
    text = track.strip.model_dump_json(include={"chain"})

    def clips(first: int, many: int) -> Samples:
        return clips_of(track, first, many, sources)

    def name(first: int, size: int) -> Name | None:
        rows = _sounding(track, first - before, first + size + after, sources)
        return (text, _named(rows, sources), first, size) if rows else None

    def read(first: int, many: int) -> Samples:
        size = _SMALL_BLOCK if many < _LARGE_BLOCK else _LARGE_BLOCK
        numbers = range(first // size, (first + many - 1) // size + 1)
        names = [name(number * size, size) for number in numbers]
        found = [sources.sound_blocks.find(one) if one else _silent(size) for one in names]
        for begin, end in stretches(np.array([one is None for one in found])):
            low = (numbers.start + begin) * size
            made = chained(chain, clips, low, (end - begin) * size)
            for at, block in enumerate(np.split(made, end - begin), begin):
                found[at] = block
                sources.sound_blocks.put(names[at], block)
        whole = np.concatenate([block for block in found if block is not None])
        start = first - numbers.start * size
        return whole[start : start + many]

    return read if before + after else clips


@cache
def _silent(count: int) -> Samples:
    samples = np.zeros((count, CHANNELS), np.float32)
    samples.flags.writeable = False
    return samples


def _named(rows: list[Row], sources: Sources) -> tuple[str, ...]:
    """What clips, and those beside them, give to their track, by what that follows from."""
    clips = [clip for row in rows for clip in row if clip is not None]
    stamps = {sources.stamp(media) for clip in clips for media in clip.uses()}
    return (*(clip_text(clip, heard=True) for clip in clips), *map(str, sorted(stamps)))


def through_strip(strip: Strip, read: Read, start: int, count: int) -> Samples:
    """Sound that went through a chain, after the gain and pan of its strip."""
    over = Over(start, count)
    samples = with_gain(read(start, count), gains_of(over.each(strip.gain)))
    return panned(samples, over.each(strip.pan), mono=False)


def clips_of(track: Track, start: int, count: int, sources: Sources) -> Samples:
    """The clips of a track, before its strip."""
    total = np.zeros((count, CHANNELS), np.float32)
    for before, clip, after in _sounding(track, start, start + count, sources):
        low, high = heard_span(clip, after)
        a, b = max(low, start), min(high, start + count)
        source = source_reader(clip, sources)
        if (a, b) == (start, start + count):
            return clip_samples(before, clip, after, a, b, source, sources)
        total[a - start : b - start] += clip_samples(before, clip, after, a, b, source, sources)
    return total


def _sounding(track: Track, start: int, end: int, sources: Sources) -> list[Row]:
    """The clips of a track that are heard between two samples, with their neighbours."""
    found = []
    for before, clip, after in with_neighbours(track.clips):
        low, high = heard_span(clip, after)
        if high > start and low < end and sounds(clip, sources):
            found.append((before, clip, after))
    return found


def source_reader(clip: ClipBase, sources: Sources) -> Read:
    """Where the clip's samples come from."""
    if isinstance(clip, Holding):
        return _held_reader(clip, sources)
    assert isinstance(clip, Sourced)
    return take_reader(clip.media, sources)


def _held_reader(clip: Holding, sources: Sources) -> Read:
    def read(start: int, count: int) -> Samples:
        low, high = start * SAMPLE_TICKS, (start + count) * SAMPLE_TICKS
        return mixed(clip.heard(low, high), start, count, sources)

    return read

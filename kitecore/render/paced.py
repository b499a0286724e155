"""The sound of clips that run at a speed of their own."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document import Holding, Paced, Sounding
from kitecore.kept import Kept
from kitecore.media.soundcopy import CHANNELS, SOUND_RATE
from kitecore.sound.ramps import SAMPLE_TICKS, Samples
from kitecore.sound.stretch import followed, stretched
from kitecore.sound.varispeed import interpolated, margin

Read = Callable[[int, int], Samples]
"""``read(start, count)``: samples of a source at 48 kHz; silence outside of it."""


_GRID: Final = 64
"""Samples between two exact looks at a speed curve; straight between them (error under 0.01)."""

WINDOW: Final = 20 * SOUND_RATE
"""Samples that are stretched in one go, so that hours of sound need no more memory."""

_LEAD: Final = SOUND_RATE // 2
_BLEND: Final = SOUND_RATE // 50
_FADE: Final = SOUND_RATE // 50
"""Samples over which sound goes silent where its source runs too slowly."""


def paced_samples(clip: Paced, first: int, count: int, read: Read, cache: Kept[Samples]) -> Samples:
    """Samples of a clip counted from its start (they may lie before it), at its speed.

    The same however the range is cut.
    """
    assert isinstance(clip, Sounding)
    if not clip.keep_pitch:
        samples = _varispeed(clip, first, count, read)
    else:
        samples = _pitch_kept(clip, first, count, read, cache)
    return samples * _loud_enough(clip, first, count)[:, None]


def source_positions(clip: Paced, first: int, count: int) -> NDArray[np.float64]:
    """Samples of the source at samples counted from the clip's start."""
    wanted = np.arange(first, first + count)
    constant = clip.speed.constant
    if constant is not None:
        return np.asarray(clip.source_in / SAMPLE_TICKS + wanted * constant)
    grid = np.arange(first // _GRID, (first + count) // _GRID + 2) * _GRID
    looked = [clip.source_at(int(at) * SAMPLE_TICKS) / SAMPLE_TICKS for at in grid]
    return np.interp(wanted, grid, looked)


def _speeds(clip: Paced, first: int, count: int) -> NDArray[np.float64]:
    constant = clip.speed.constant
    if constant is not None:
        return np.full(count, constant)
    grid = np.arange(first // _GRID, (first + count) // _GRID + 2) * _GRID
    looked = [clip.speed.at(int(at) * SAMPLE_TICKS) for at in grid]
    return np.interp(np.arange(first, first + count), grid, looked)


def _varispeed(clip: Paced, first: int, count: int, read: Read) -> Samples:
    positions, speeds = source_positions(clip, first, count), _speeds(clip, first, count)
    around = margin(float(np.abs(speeds).max(initial=1.0)))
    low = int(np.floor(positions.min())) - around
    high = int(np.ceil(positions.max())) + around
    return interpolated(read(low, high - low), positions - low, speeds)


def _pitch_kept(clip: Paced, first: int, count: int, read: Read, cache: Kept[Samples]) -> Samples:
    # Without place on the timeline and settings that do not matter here.
    held = clip.heard(*clip.used) if isinstance(clip, Holding) else None
    name = (clip.uses(), clip.source_in, clip.speed, held)

    def make(begin: int, many: int, lead: int) -> Samples:
        return _stretched(clip, begin, many, lead, read)

    return windowed(name, first, count, make, cache)


Make = Callable[[int, int, int], Samples]
"""``make(begin, count, lead)``: samples ``begin`` on, begun ``lead`` samples earlier."""


def windowed(name: Hashable, first: int, count: int, make: Make, cache: Kept[Samples]) -> Samples:
    """Samples that are made by whole windows, which are kept.

    Each goes on a little beyond its end, and crosses into the next there without a step.
    """

    def window(begin: int) -> Samples:
        return cache.get((name, begin), lambda: make(begin, WINDOW + _BLEND, _LEAD))

    out = np.empty((count, CHANNELS), np.float32)
    for begin in range(first // WINDOW * WINDOW, first + count, WINDOW):
        a, b = max(first, begin), min(first + count, begin + WINDOW)
        out[a - first : b - first] = window(begin)[a - begin : b - begin]
        crossed = min(b, begin + _BLEND)
        if begin and a < crossed:
            before = window(begin - WINDOW)[WINDOW + a - begin : WINDOW + crossed - begin]
            share = (np.arange(a, crossed) - begin).astype(np.float32)[:, None] / np.float32(_BLEND)
            mine = out[a - first : crossed - first]
            mine[:] = mine * share + before * (1 - share)
    return out


def _stretched(clip: Paced, begin: int, count: int, lead: int, read: Read) -> Samples:
    first, total = begin - lead, lead + count + _LEAD
    positions = source_positions(clip, first, total)
    low, high = int(np.floor(positions.min())) - 4096, int(np.ceil(positions.max())) + 4096
    constant = clip.speed.constant
    if constant is None or constant == 0:
        made = followed(read(low, high - low), positions - low)
        return made[lead : lead + count]
    start = round(float(positions[0] if constant > 0 else positions[-1]))
    span = max(1, round(total * abs(constant)))
    source = read(start, span)
    made = stretched(source if constant > 0 else source[::-1], abs(constant), SOUND_RATE)
    fitted = np.zeros((total, CHANNELS), np.float32)
    fitted[: min(total, len(made))] = made[:total]
    return fitted[lead : lead + count]


def _loud_enough(clip: Paced, first: int, count: int) -> Samples:
    """Factor 0..1: silent where the source runs too slowly, faded at the borders of that."""
    assert isinstance(clip, Sounding)
    constant = clip.speed.constant
    if constant is not None:
        return np.full(count, abs(constant) >= clip.silent_below, np.float32)
    half = _FADE // 2
    speeds = np.abs(_speeds(clip, first - half, count + 2 * half))
    heard = np.cumsum(np.concatenate([[0.0], speeds >= clip.silent_below]))
    return ((heard[2 * half :] - heard[: -2 * half])[:count] / (2 * half)).astype(np.float32)

"""Where on the timeline somebody speaks, and what steps back under it."""

from __future__ import annotations

from collections.abc import Callable, Collection
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.analysis.voice import VOICE_SAMPLES
from kitecore.document import ClipBase, Document, Holding, Paced, Sourced, Track
from kitecore.document.properties import Keys
from kitecore.document.strips import Strip, Under
from kitecore.errors import EditRefused
from kitecore.motion import value_at
from kitecore.render.audible import audible
from kitecore.render.clipsound import sounds
from kitecore.render.sources import Sources
from kitecore.sound.inserts import Over
from kitecore.sound.ramps import SAMPLE_TICKS, sample_at
from kitecore.sound.stepping import (
    BLIP,
    STEP,
    Flags,
    reach,
    spoken,
    stepped_back,
    steps,
    stretches,
)

_SURE: Final = 128
"""Of 255, from which on somebody speaks."""

Places = NDArray[np.float64]
Told = Callable[[str], tuple[NDArray[Any], int]]
"""Of a take: what is told of it, and how many samples each value is for."""


def told_at(tracks: tuple[Track, ...], places: Places, sources: Sources, told: Told) -> Places:
    """The highest of what is told of the takes heard on tracks, at places in samples; else 0."""
    found = np.zeros(len(places))
    for track in audible(tracks):
        for clip in track.clips:
            start, end = sample_at(clip.start), sample_at(clip.end)
            inside = (places >= start) & (places < end)
            if inside.any() and isinstance(clip, Paced) and sounds(clip, sources):
                there = in_source(clip, places[inside] - start)
                found[inside] = np.maximum(found[inside], _told_in(clip, there, sources, told))
    return found


def in_source(clip: Paced, local: Places) -> Places:
    """Samples of a clip's source at samples of its own."""
    constant = clip.speed.constant
    if constant is not None:
        return clip.source_in / SAMPLE_TICKS + local * constant
    ticks = (clip.source_at(int(at) * SAMPLE_TICKS) for at in local)
    return np.fromiter(ticks, np.float64, len(local)) / SAMPLE_TICKS


def _told_in(clip: ClipBase, places: Places, sources: Sources, told: Told) -> Places:
    if isinstance(clip, Holding):
        ticks = [int(place) * SAMPLE_TICKS for place in (places.min(), places.max() + 1)]
        return told_at(clip.heard(*ticks), places, sources, told)
    assert isinstance(clip, Sourced)
    values, samples = told(clip.media)
    steps = (places // samples).astype(np.int64)
    known = (steps >= 0) & (steps < len(values))
    found = np.zeros(len(places))
    found[known] = values[steps[known]]
    return found


def voice_at(tracks: tuple[Track, ...], places: Places, sources: Sources) -> Flags:
    """Whether somebody speaks on tracks that are heard, at places in samples."""
    surely = told_at(tracks, places, sources, lambda media: (sources.voice(media), VOICE_SAMPLES))
    return surely >= _SURE


def places_of(first: int, count: int) -> Places:
    """Samples of steps of the timeline."""
    return ((first + np.arange(count)) * STEP).astype(np.float64)


def _heard_among(tracks: tuple[Track, ...], ids: Collection[str]) -> tuple[Track, ...]:
    """Those of ``ids`` that are heard among all; by themselves none of them is alone any more."""
    found = (track for track in audible(tracks) if track.id in ids)
    return tuple(track.model_copy(update={"solo": False}) for track in found)


def stepping(
    under: Under, tracks: tuple[Track, ...], first: int, count: int, sources: Sources
) -> NDArray[np.float64]:
    """How far a strip has stepped back, 0..1, for steps (of 10 ms) of the timeline.

    Parameters
    ----------
    tracks
        Those that lie beside the strip's own.
    """
    around = reach(under.fade, under.ahead)
    places = places_of(first - around, count + 2 * around)
    voice = spoken(voice_at(_heard_among(tracks, under.tracks), places, sources))
    return stepped_back(voice, under.fade, under.ahead)[around : around + count]


def quieter(
    under: Under, tracks: tuple[Track, ...], over: Over, sources: Sources
) -> NDArray[np.float64]:
    """How much quieter a strip is at each sample because it steps back, in dB (0 and less)."""
    first = over.first // STEP
    count = (over.first + over.count) // STEP - first + 2
    line = stepping(under, tracks, first, count, sources)
    at = np.arange(over.first, over.first + over.count)
    return np.asarray(-under.amount * np.interp(at, (first + np.arange(count)) * STEP, line))


def spoken_stretches(
    document: Document, tracks: list[str], sources: Sources
) -> list[tuple[int, int]]:
    """Ticks from which and until which somebody speaks on tracks."""
    count = sample_at(document.length) // STEP + 1
    heard = _heard_among(document.tracks, tracks)
    found = stretches(spoken(voice_at(heard, places_of(0, count), sources)))
    step = STEP * SAMPLE_TICKS
    return [(int(begin) * step, int(end) * step) for begin, end in found]


def pauses(
    document: Document, clip: str, shortest: float, margin: float, sources: Sources
) -> list[tuple[int, int]]:
    """Ticks of the timeline between which nobody speaks in a clip, by whole frames.

    Parameters
    ----------
    shortest
        Seconds that a pause lasts at least.
    margin
        Seconds that are left of it before and after what is said.

    Raises
    ------
    EditRefused
        If it has no sound, or nobody speaks in it.
    """
    from scipy.ndimage import binary_opening  # slow to load

    track, found = document.find_clip(clip)
    if not isinstance(found, Paced) or not sounds(found, sources):
        raise EditRefused("This clip has no sound.", todo="Take a sound in hand.")
    start, end = sample_at(found.start), sample_at(found.end)
    first, count = start // STEP, (end - start) // STEP + 1
    alone = track.with_clips((found,)).model_copy(update={"muted": False, "solo": False})
    # Gaps between words are told apart here: the shortest pause is asked for.
    said = binary_opening(voice_at((alone,), places_of(first, count), sources), np.ones(BLIP))
    if not said.any():
        raise EditRefused("Nobody speaks in this clip.")
    spans = []
    for begin, after in stretches(~said):
        low = begin + (0 if begin == 0 else steps(margin))
        high = after - (0 if after == count else steps(margin))
        if (after - begin) >= steps(shortest) and high > low:
            spans.append(((first + low) * STEP, (first + high) * STEP))
    return _on_frames(document, found, spans)


def _on_frames(
    document: Document, clip: ClipBase, spans: list[tuple[int, int]]
) -> list[tuple[int, int]]:
    nearest, length = document.rate.exact.nearest, document.rate.exact.frame_ticks
    ticks = (
        (max(nearest(a * SAMPLE_TICKS), clip.start), min(nearest(b * SAMPLE_TICKS), clip.end))
        for a, b in spans
    )
    return [(a, b) for a, b in ticks if b - a >= length]


def stepping_keys(document: Document, track: str, sources: Sources) -> list[dict[str, float]]:
    """The gain of a track, with its stepping back, as keys: where the line bends, and its own.

    Raises
    ------
    EditRefused
        If it does not step back, or if nobody speaks.
    """
    strip = document.find_track(track).strip
    if strip.under is None:
        raise EditRefused("This track does not step back.")
    count = sample_at(document.length) // STEP + 1
    line = stepping(strip.under, document.tracks, 0, count, sources)
    if not line.any():
        raise EditRefused(
            "Nobody speaks on those tracks.", todo="Choose the tracks with the voice."
        )
    bends = {0, count - 1}
    for flags in (line > 0, line >= 1):
        for begin, end in stretches(flags):
            bends |= {max(begin - 1, 0), begin, end - 1, min(end, count - 1)}
    return _keys(strip, strip.under, line, _needed(line, sorted(bends)))


def _needed(line: NDArray[np.float64], bends: list[int]) -> list[int]:
    """Without those that lie on the straight line between their neighbours."""
    kept: list[int] = []
    for at in bends:
        while len(kept) > 1 and _straight(line, kept[-2], kept[-1], at):
            kept.pop()
        kept.append(at)
    return kept


def _straight(line: NDArray[np.float64], a: int, b: int, c: int) -> bool:
    between = line[a] + (line[c] - line[a]) * (b - a) / (c - a)
    return bool(abs(between - line[b]) < 1e-6)


def _keys(
    strip: Strip, under: Under, line: NDArray[np.float64], bends: list[int]
) -> list[dict[str, float]]:
    ticks = {at * STEP * SAMPLE_TICKS for at in bends}
    if isinstance(strip.gain, Keys):
        ticks |= {key.at for key in strip.gain.keys}
    steps = np.arange(len(line))
    found = []
    for tick in sorted(ticks):
        less = under.amount * float(np.interp(tick / SAMPLE_TICKS / STEP, steps, line))
        found.append({"at": tick, "value": round(value_at(strip.gain, tick) - less, 2)})
    return found

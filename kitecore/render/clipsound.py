"""What a clip gives to the mix."""

from __future__ import annotations

import numpy as np

from kitecore.document import ClipBase, Holding, Paced, Sounding, Sourced
from kitecore.document.track import transition_out
from kitecore.media.soundcopy import read_sound
from kitecore.motion import value_at
from kitecore.render.paced import Read, paced_samples
from kitecore.render.pitched import pitched_samples
from kitecore.render.sources import Sources
from kitecore.sound.crossfade import equal_power
from kitecore.sound.inserts import Over, chain_reach, chained
from kitecore.sound.ramps import DECLICK, Samples, edge_ramp, gains_of, sample_at, with_gain
from kitecore.sound.sides import chosen, panned


def sounds(clip: ClipBase, sources: Sources) -> bool:
    """Whether a clip has anything to be heard."""
    if not isinstance(clip, Sounding) or clip.silent or clip.muted:
        return False
    if isinstance(clip, Sourced):
        return sources.folder(clip.media).info.sound is not None
    return isinstance(clip, Holding)


def heard_span(clip: ClipBase, after: ClipBase | None) -> tuple[int, int]:
    """First and last sample of a clip, with what of it is heard across its joins."""
    begin = clip.start - (clip.transition.half if clip.transition else 0)
    leaving = transition_out(clip, after)
    return sample_at(begin), sample_at(clip.end + (leaving.half if leaving else 0))


def clip_samples(
    before: ClipBase | None,
    clip: ClipBase,
    after: ClipBase | None,
    a: int,
    b: int,
    source: Read,
    sources: Sources,
) -> Samples:
    """Samples ``a`` to ``b`` of the timeline, all where the clip is heard.

    Parameters
    ----------
    source
        Reads what the clip plays.
    """
    assert isinstance(clip, Paced) and isinstance(clip, Sounding)
    first = sample_at(clip.start)
    over = Over(a - first, b - a)
    samples = _chained(before, clip, after, over, source, sources)
    factor = _edges(before, clip, after, over) * gains_of(over.each(clip.gain))
    samples = with_gain(samples, factor)
    return panned(samples, over.each(clip.pan), mono=_is_mono(clip, sources))


def take_reader(media: str, sources: Sources) -> Read:
    return lambda start, count: read_sound(sources.folder(media), start, count)


def _is_mono(clip: ClipBase, sources: Sources) -> bool:
    assert isinstance(clip, Sounding)
    if clip.channels not in ("both", "swapped"):
        return True
    sound = sources.folder(clip.media).info.sound if isinstance(clip, Sourced) else None
    return sound is not None and sound.channels == 1


def plain_reader(clip: Paced, source: Read, sources: Sources) -> Read:
    """The clip's sound by samples counted from its start, before its chain."""
    assert isinstance(clip, Sounding)

    def paced(first: int, count: int) -> Samples:
        if clip.speed.plain:
            # Rounded once, from the difference, which a split does not change: no sample is lost there.
            begin = sample_at(clip.start)
            return source(begin + first + sample_at(clip.source_in - clip.start), count)
        return paced_samples(clip, first, count, source, sources.stretches)

    def read(first: int, count: int) -> Samples:
        samples = pitched_samples(clip, first, count, paced, sources.stretches)
        return chosen(samples, clip.channels)

    return read


def _chained(
    before: ClipBase | None,
    clip: Paced,
    after: ClipBase | None,
    over: Over,
    source: Read,
    sources: Sources,
) -> Samples:
    """The clip's sound after its chain, into which nothing comes from beyond its ends.

    Where it goes on as its neighbour does, that is no end.
    """
    assert isinstance(clip, Sounding)
    read = plain_reader(clip, source, sources)
    if not any(chain_reach(clip.chain)):
        return chained(clip.chain, read, over.first, over.count)
    lowest, highest = heard_span(clip, after)
    start = sample_at(clip.start)
    low = None if _continues(before, clip) else lowest - start
    high = None if _continues(clip, after) else highest - start

    def within(first: int, count: int) -> Samples:
        samples = read(first, count)
        if low is not None and first < low:
            samples[: min(low - first, count)] = 0
        if high is not None and first + count > high:
            samples[max(high - first, 0) :] = 0
        return samples

    return chained(clip.chain, within, over.first, over.count)


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
        and first.fade_out == second.fade_in == 0
        and all(getattr(first, name) == getattr(second, name) for name in ("muted", "channels"))
        and _same_chain(first, second)
        and all(
            value_at(getattr(first, name), first.length) == value_at(getattr(second, name), 0)
            for name in ("gain", "pan", "pitch")
        )
    )


def _same_chain(first: Sounding, second: Sounding) -> bool:
    def plain(clip: Sounding) -> list[dict[str, object]]:
        return [insert.model_dump(exclude={"id"}) for insert in clip.chain]

    return first.chain == second.chain or plain(first) == plain(second)


def _same_speed(first: Paced, second: Paced) -> bool:
    """Of stretched sound each clip is made on its own, so only plain and varied speed go on."""
    if first.speed.plain and second.speed.plain:
        return True
    pitched = any(isinstance(clip, Sounding) and clip.keep_pitch for clip in (first, second))
    return not pitched and first.speed.moved(-first.length) == second.speed


def _edges(
    before: ClipBase | None, clip: ClipBase, after: ClipBase | None, over: Over
) -> Samples | float:
    """Fades, crossfades and the short ramps that keep cuts from clicking; 1 where there are none."""
    assert isinstance(clip, Sounding)
    length = sample_at(clip.end) - sample_at(clip.start)
    coming, leaving = clip.transition, transition_out(clip, after)
    rise = 0 if coming or _continues(before, clip) else max(DECLICK, sample_at(clip.fade_in))
    fall = 0 if leaving or _continues(clip, after) else max(DECLICK, sample_at(clip.fade_out))
    rise, fall = min(rise, length), min(fall, length)
    inside = over.first >= rise and over.first + over.count <= length - fall
    if inside and not (coming or leaving):
        return 1.0
    positions = np.arange(over.first, over.first + over.count)
    shapes = (clip.fade_in_shape, clip.fade_out_shape)
    factor = edge_ramp(positions, length, rise, fall, shapes)
    if coming:
        half = sample_at(coming.half)
        factor = factor * equal_power(positions + half, 2 * half, rising=True)
    if leaving:
        half = sample_at(leaving.half)
        factor = factor * equal_power(positions - length + half, 2 * half, rising=False)
    return factor

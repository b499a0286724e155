"""What is found out about the sound of clips and tracks, on request."""

from __future__ import annotations

from typing import Any, Final

import numpy as np

from kitecore.analysis.beats import read_beats
from kitecore.document import Document, Paced, Sounding, Sourced, Track
from kitecore.errors import EditRefused
from kitecore.render.samples import clips_of
from kitecore.render.sources import Sources
from kitecore.sound import loudness
from kitecore.sound.beats import BAR
from kitecore.sound.inserts.denoise import learnt
from kitecore.sound.ramps import RATE, sample_at
from kitecore.sound.truepeak import true_levels

LONGEST: Final = 30 * 60 * RATE
"""Samples of a clip that are listened to."""
_AT_ONCE: Final = 20 * RATE


def clip_loudness(document: Document, clip: str, sources: Sources) -> dict[str, float]:
    """Loudness in LUFS and highest true peak in dB of a clip's sound, before its gain and fades."""
    track, bare = _alone(document, clip)
    start = sample_at(bare.start)
    count = min(sample_at(bare.end) - start, LONGEST)
    powers, peak = [], 0.0
    for at in range(0, count, _AT_ONCE):
        many = min(_AT_ONCE, count - at)
        parts = -(-many // loudness.PART) * loudness.PART
        sound = clips_of(track, start + at - loudness.LEAD, loudness.LEAD + parts, sources)
        powers.append(loudness.powers(sound))
        peak = max(peak, float(true_levels(sound[loudness.LEAD :]).max()))
    whole = loudness.whole(np.concatenate(powers))
    return {"whole": round(whole, 2), "peak": round(20 * np.log10(max(peak, 1e-6)), 2)}


def learnt_noise(
    document: Document, track: str, clip: str, tick: int, ticks: list[int], sources: Sources
) -> list[float]:
    """What a noise reduction learns of a clip, or of a track, from a moment to another."""
    start, end = sample_at(tick), sample_at(ticks[0])
    if end - start < RATE // 20:
        raise EditRefused("That is too short to learn from.", todo="Mark half a second or more.")
    found = _alone(document, clip)[0] if clip else document.find_track(track)
    sound = clips_of(found, start, min(end - start, _AT_ONCE), sources)
    if not np.abs(sound).max() > 0:
        raise EditRefused("There is no sound there.", todo="Mark a stretch with noise only.")
    return list(learnt(sound))


def clip_beats(document: Document, clip: str, sources: Sources) -> dict[str, Any]:
    """Ticks of the timeline of the beats within a clip, the first of them that begins a bar, the beats
    a minute as it plays, and the ticks of all ``onsets``.

    Raises
    ------
    EditRefused
        If the clip is none of a take, does not run steadily forwards, or has neither.
    """
    _, found = document.find_clip(clip)
    if not (isinstance(found, Sourced) and isinstance(found, Sounding)):
        raise EditRefused("Beats are found in a clip of a take.", todo="Take music in hand.")
    speed = found.speed.constant
    if speed is None or speed <= 0:
        raise EditRefused("Beats are found where a clip runs steadily forwards.")
    beats = read_beats(sources.folder(found.media))

    def placed(ticks: tuple[int, ...]) -> list[int]:
        return [found.start + round((at - found.source_in) / speed) for at in ticks]

    places = placed(beats.at)
    inside = [n for n, at in enumerate(places) if found.start <= at < found.end]
    begun = [at for at in placed(beats.onsets) if found.start <= at < found.end]
    if not (inside or begun):
        raise EditRefused("There are no beats in this clip.")
    return {
        "at": [places[number] for number in inside],
        "first": (beats.first - inside[0]) % BAR if inside else 0,
        "tempo": round(beats.tempo * speed, 1) if inside else 0.0,
        "onsets": begun,
    }


def _alone(document: Document, id: str) -> tuple[Track, Paced]:
    """A clip alone on its track, with nothing done to its level."""
    track, clip = document.find_clip(id)
    if not (isinstance(clip, Paced) and isinstance(clip, Sounding)):
        raise EditRefused("This clip has no sound.", todo="Take a sound in hand.")
    plain = {
        "gain": 0.0,
        "pan": 0.0,
        "fade_in": 0,
        "fade_out": 0,
        "muted": False,
        "transition": None,
    }
    bare = clip.model_copy(update=plain)
    return track.with_clips((bare,)), bare

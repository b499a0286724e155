"""Which angle of a multicam clip hears the one who speaks."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.analysis.power import POWER_SAMPLES
from kitecore.document import Document, MulticamClip
from kitecore.errors import EditRefused
from kitecore.render.sources import Sources
from kitecore.render.speaking import in_source, places_of, told_at, voice_at
from kitecore.sound.ramps import SAMPLE_TICKS, sample_at
from kitecore.sound.stepping import STEP, spoken
from kitecore.sound.turns import turns_of

_HEARD: Final = {"muted": False, "solo": False}


def turns(document: Document, clip: str, sources: Sources) -> list[dict[str, int]]:
    """Ticks of the timeline from which on an angle hears best who speaks, by its index.

    Raises
    ------
    EditRefused
        If it is no multicam clip, nobody speaks in it, or all its angles hear everybody alike.
    """
    _, found = document.find_clip(clip)
    if not isinstance(found, MulticamClip):
        raise EditRefused("Only a multicam clip has angles.")
    start = sample_at(found.start)
    local = places_of(0, (sample_at(found.end) - start) // STEP + 1)
    places = in_source(found, local)
    seen = found.shown
    alone = [(found.tracks[index].model_copy(update=_HEARD),) for index in seen]
    if not alone:
        raise EditRefused("None of its angles has a picture yet.")
    said = spoken(np.any([voice_at(track, places, sources) for track in alone], axis=0))
    if not said.any():
        raise EditRefused("Nobody speaks in this clip.")

    powers = np.stack(
        [
            told_at(track, places, sources, lambda media: (sources.power(media), POWER_SAMPLES))
            for track in alone
        ]
    )
    told = turns_of(powers, said)
    if not told:
        raise EditRefused(
            "All angles hear everybody alike, so it cannot be told who speaks.",
            todo="It takes cameras with microphones of their own, near different people.",
        )
    nearest = document.rate.exact.nearest
    return [
        {"at": max(found.start, nearest((start + at * STEP) * SAMPLE_TICKS)), "angle": seen[index]}
        for at, index in told
    ]

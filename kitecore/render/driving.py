"""Keys for a value that is led by the sound of the film, by what is followed in it, or by a wave."""

from __future__ import annotations

from typing import Annotated, Any, Final, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from kitecore.document import ClipBase, Document, Track
from kitecore.document.properties import MOST_KEYS
from kitecore.document.track import MOST_TRACKS
from kitecore.errors import EditRefused
from kitecore.model import Id, Model, Real, param
from kitecore.motion.thinning import plain_keys
from kitecore.render.leading import Measure, followed_shares
from kitecore.render.samples import mixed
from kitecore.render.sources import Sources
from kitecore.render.spots import spots_along
from kitecore.sound.beats import beats_of
from kitecore.sound.measures import HOP, LOOKS, led, powers_of, shares_of, struck, waving
from kitecore.sound.ramps import sample_at
from kitecore.ticks import TICKS_PER_SECOND

LONGEST: Final = 10 * 60
"""Seconds of a clip for which a value is led."""
_NEAR: Final = 0.02
"""Of the way from the least to the most: keys are left out that change less than that."""
_NEAR_SPOT: Final = 0.5
"""The same of a point, in pixels of the canvas."""

Numbers = NDArray[np.float64]


TrackIds = Annotated[tuple[Id, ...], Field(max_length=MOST_TRACKS)]


class Driving(Model):
    """What leads a value, and how quickly it is followed."""

    by: Literal["level", "low", "middle", "high", "beats", "wave", "followed"] = param(
        "level",
        help="What of the sound leads it, a wave, or something that is followed",
        control="choice",
    )
    tracker: Id | Literal[""] = param("", help="What is followed", control="tracker")
    measure: Measure = param("across", help="What of its way leads", control="choice")
    attack: float = param(
        0.02, help="How quickly it goes up", unit="s", low=0, high=1, step=0.01, ge=0, le=10
    )
    release: float = param(
        0.25, help="How quickly it goes back", unit="s", low=0, high=3, step=0.01, ge=0, le=30
    )
    rate: float = param(
        2.0, help="How often a wave goes", unit="Hz", low=0.1, high=20, step=0.1, gt=0, le=60
    )
    fading: float = param(
        0.0,
        help="Seconds in which it loses half; 0: none",
        unit="s",
        low=0,
        high=10,
        step=0.1,
        ge=0,
    )
    seed: int = param(1, help="Another wave", low=1, high=100, step=1)
    drawn: bool = False
    """Whether a point is of what is drawn, such as a gradient's, and grows with it; else as of effects."""
    tracks: TrackIds = ()
    """Whose sound; all that is heard where none is named."""
    low: Real = 0.0
    high: Real = 1.0


def driven(
    document: Document, clip: str, driving: dict[str, Any], sources: Sources
) -> list[dict[str, Any]]:
    """Keys of a value over the length of a clip, counted from its start; few, with easings.

    Of a point, where the place of what is followed leads: then ``low`` and ``high`` do not count.

    Raises
    ------
    EditRefused
        If nothing is heard, the clip is too long, or it would need too many keys.
    """
    wanted = Driving.model_validate(driving)
    _, found = document.find_clip(clip)
    if found.length > LONGEST * TICKS_PER_SECOND:
        raise EditRefused("That is too long to be led.", todo="Split the clip first.")
    step = document.rate.exact.frame_ticks
    ticks = [*range(0, found.length, step)]
    if wanted.by == "followed" and wanted.measure == "place":
        spots = np.round(spots_along(document, found, wanted.tracker, sources, wanted.drawn), 2)
        return _few(plain_keys(ticks, spots.tolist(), _NEAR_SPOT))
    shares = _shares(document, found, wanted, sources)
    at = (np.array(ticks) + step / 2) / TICKS_PER_SECOND * LOOKS
    values = wanted.low + (wanted.high - wanted.low) * np.interp(at, np.arange(len(shares)), shares)
    near = max(abs(wanted.high - wanted.low) * _NEAR, 1e-9)
    return _few(plain_keys(ticks, [round(float(value), 4) for value in values], near))


def _few(keys: list[dict[str, Any]]) -> list[dict[str, Any]]:
    if len(keys) > MOST_KEYS:
        raise EditRefused("That needs too many keys.", todo="Follow it more slowly.")
    return keys


def _shares(document: Document, clip: ClipBase, wanted: Driving, sources: Sources) -> Numbers:
    count = clip.length * LOOKS // TICKS_PER_SECOND + 1
    if wanted.by == "followed":
        frames = followed_shares(document, clip, wanted.tracker, wanted.measure, sources)
        step = document.rate.exact.frame_ticks
        at = (np.arange(len(frames)) + 0.5) * step / TICKS_PER_SECOND * LOOKS
        return np.interp(np.arange(count), at, frames)
    if wanted.by == "wave":
        return waving(count, wanted.rate, wanted.seed, wanted.fading)
    first = sample_at(clip.start)
    tracks = among(document.tracks, wanted.tracks)
    sound = mixed(tracks, first, count * HOP, sources).mean(axis=1)
    if not np.abs(sound).max() > 0:
        raise EditRefused("Nothing is heard under this clip.", todo="Choose tracks with sound.")
    if wanted.by == "beats":
        looks = [round(at / HOP) for at in beats_of(sound).at]
        if not looks:
            raise EditRefused("There are no beats under this clip.")
        return led(struck(count, looks), 0.0, wanted.release)
    return led(shares_of(powers_of(sound, wanted.by)), wanted.attack, wanted.release)


def among(tracks: tuple[Track, ...], ids: tuple[str, ...]) -> tuple[Track, ...]:
    """All tracks, or some of them, heard though others may be alone."""
    if not ids:
        return tracks
    chosen = (track for track in tracks if track.id in ids)
    return tuple(track.model_copy(update={"solo": False, "muted": False}) for track in chosen)

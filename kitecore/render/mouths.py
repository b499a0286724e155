"""What a mouth does with the voice of the film: poses proposed, pauses, pictures of both.

Moments are of the mouth's own time, wherever in groups it lies.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Any, Final, Literal

import cv2
import numpy as np
from numpy.typing import NDArray
from pydantic import AfterValidator, Field

from kitecore.document import Document, Holding, MouthClip, Paced, Pictured, Track
from kitecore.errors import EditRefused, NotThere
from kitecore.media.pixels import fitting
from kitecore.model import Model
from kitecore.picture.composite import lay
from kitecore.picture.layer import Rgba
from kitecore.render.compose import affected
from kitecore.render.driving import TrackIds, among
from kitecore.render.frame import stage_of
from kitecore.render.layers import checks
from kitecore.render.samples import mixed
from kitecore.render.sources import Sources
from kitecore.render.speaking import places_of, voice_at
from kitecore.render.stage import Stage
from kitecore.render.still import as_jpeg
from kitecore.sound.ramps import RATE, SAMPLE_TICKS, sample_at
from kitecore.sound.stepping import STEP, spoken, stretches
from kitecore.speech.features import Floats, energies_of
from kitecore.speech.mouthing import Posed, by_sound, by_words
from kitecore.speech.reading import LANGUAGES, MOST_LETTERS, read
from kitecore.ticks import TICKS_PER_SECOND

LONGEST: Final = 10 * 60
"""Seconds of a mouth that can be led at once; by words `LONGEST_READ`."""
LONGEST_READ: Final = 3 * 60
SIDE: Final = 144
"""Pixels of a side of the picture of a pose."""
_WAVE, _SPECTRUM = 44, 84
"""Pixels that the waveform and the spectrogram are high."""
_DEEP: Final = 55.0
"""Decibels below the loudest that are seen."""
_DARK, _LOW, _HIGH = (
    np.array(one, np.float32) for one in ((24, 20, 30), (47, 114, 104), (255, 214, 140))
)


def known_language(name: str) -> str:
    """A name of `LANGUAGES`. Raises `ValueError` for others."""
    if name not in LANGUAGES:
        raise ValueError(f"there is no language {name!r}; known: {', '.join(LANGUAGES)}")
    return name


class Voice(Model):
    """What leads a mouth: the sound of tracks alone, or with words that are said in it.

    All tracks that are heard where none is named. ``by`` pauses: only where nobody speaks is told.
    """

    by: Literal["sound", "words", "pauses"] = "sound"
    tracks: TrackIds = ()
    text: str = Field(default="", max_length=MOST_LETTERS)
    language: Annotated[str, AfterValidator(known_language)] = "en"


@dataclass(frozen=True)
class Seat:
    """Where in the film a mouth is: its time is that of the film plus ``later``, from ``low`` to ``high``.

    Both ends are of its own time.
    """

    mouth: MouthClip
    later: int
    low: int
    high: int

    def film(self, own: int) -> int:
        return own - self.later


def seat_of(document: Document, clip_id: str) -> Seat:
    """Where a mouth is, however deep in groups.

    Raises
    ------
    EditRefused
        If it, or what it lies in, has a speed of its own, or it is not to be seen.
    NotThere
        If there is no such mouth.
    """
    way = next(_ways(document.tracks, clip_id), None)
    if way is None or not isinstance(way[-1], MouthClip):
        raise NotThere("That mouth is not there any more.")
    later, low, high = 0, 0, document.length
    for clip in way:
        if not clip.speed.plain:
            raise EditRefused(
                "A mouth that is paced cannot be led by a voice.",
                todo="Set it, and the group it lies in, to normal speed.",
            )
        low, high = max(low, clip.start), min(high, clip.end)
        by = clip.source_in - clip.start
        later, low, high = later + by, low + by, high + by
    if high <= low:
        raise EditRefused("The mouth is not seen in the film.")
    return Seat(way[-1], later, low, high)


def _ways(tracks: tuple[Track, ...], clip_id: str) -> Iterator[list[Paced]]:
    """The clips that lead to one, from the outside in."""
    for track in tracks:
        for clip in track.clips:
            if clip.id == clip_id and isinstance(clip, Paced):
                yield [clip]
            elif isinstance(clip, Holding):
                yield from ([clip, *rest] for rest in _ways(clip.tracks, clip_id))


def mouthed(
    document: Document, clip: str, voice: dict[str, Any], sources: Sources
) -> dict[str, Any]:
    """Poses of a mouth by its voice: ``turns`` with how surely, ``until`` when; or ``pauses``.

    Raises
    ------
    EditRefused
        If nothing is heard while the mouth is seen, or it is too long.
    """
    wanted, seat = Voice.model_validate(voice), seat_of(document, clip)
    longest = LONGEST_READ if wanted.by == "words" else LONGEST
    if seat.high - seat.low > longest * TICKS_PER_SECOND:
        raise EditRefused(
            f"At most {longest // 60} minutes are led at once.", todo="Split the mouth first."
        )
    step = document.rate.exact.frame_ticks
    if wanted.by == "pauses":
        return {"turns": [], "pauses": _pauses(document, seat, wanted, sources), "until": seat.high}
    energies = energies_of(_heard(document, seat, wanted.tracks, sources), RATE)
    frames, rate = (seat.high - seat.low) // step, TICKS_PER_SECOND / step
    if wanted.by == "words":
        found = by_words(energies, read(wanted.text, wanted.language), frames, rate)
    else:
        found = by_sound(energies, frames, rate)
    return {"turns": _turns(found, seat, step), "pauses": [], "until": seat.high}


def _turns(found: list[Posed], seat: Seat, step: int) -> list[dict[str, Any]]:
    return [
        {"at": seat.low + one.begin * step, "pose": one.pose, "sure": min(max(one.sure, 0.0), 1.0)}
        for one in found
    ]


def _heard(document: Document, seat: Seat, tracks: tuple[str, ...], sources: Sources) -> Floats:
    """The sound of the film while the mouth is seen, of one channel."""
    first = sample_at(seat.film(seat.low))
    count = sample_at(seat.film(seat.high)) - first
    sound = mixed(among(document.tracks, tracks), first, count, sources).mean(axis=1)
    if not np.abs(sound).max(initial=0) > 1e-4:
        raise EditRefused("Nothing is heard under this mouth.", todo="Choose tracks with a voice.")
    return np.asarray(sound, np.float32)


def _pauses(
    document: Document, seat: Seat, wanted: Voice, sources: Sources
) -> list[tuple[int, int]]:
    """Where nobody speaks, by whole frames."""
    first = sample_at(seat.film(seat.low)) // STEP
    count = sample_at(seat.film(seat.high)) // STEP - first + 1
    heard = among(document.tracks, wanted.tracks)
    quiet = ~spoken(voice_at(heard, places_of(first, count), sources))
    nearest, spans = document.rate.exact.nearest, []
    for begin, end in stretches(quiet):
        low, high = (
            nearest((first + at) * STEP * SAMPLE_TICKS + seat.later) for at in (begin, end)
        )
        low, high = max(low, seat.low), min(high, seat.high)
        if high > low:
            spans.append((low, high))
    return spans


def voice_picture(
    document: Document,
    clip: str,
    ticks: tuple[int, int],
    tracks: list[str],
    width: int,
    sources: Sources,
) -> bytes:
    """JPEG of the sound between two moments of a mouth: its waveform above its spectrogram."""
    seat = seat_of(document, clip)
    low, high = ticks
    first, count = sample_at(seat.film(low)), sample_at(high - low)
    sound = np.zeros((max(count, 1), 2), np.float32)
    if first + count > 0 and count > 0:
        begin = max(first, 0)
        heard = mixed(among(document.tracks, tuple(tracks)), begin, first + count - begin, sources)
        sound[begin - first :] = heard
    mono = sound.mean(axis=1)
    drawn = np.concatenate([_waveform(mono, width), _spectrogram(mono, width)])
    return as_jpeg(
        np.ascontiguousarray(np.dstack([drawn, np.full(drawn.shape[:2], 255, np.uint8)]))
    )


def _waveform(sound: Floats, width: int) -> NDArray[np.uint8]:
    """The highest and lowest sample of each column, as high as there is room."""
    edges = np.linspace(0, len(sound), width + 1).astype(int)
    top = max(float(np.abs(sound).max()), 1e-3)
    places = np.minimum(edges[:-1], len(sound) - 1)
    high = np.maximum.reduceat(sound, places) / top
    low = np.minimum.reduceat(sound, places) / top
    rows = np.linspace(1, -1, _WAVE)[:, None]
    inside = (rows <= high + 1 / _WAVE) & (rows >= low - 1 / _WAVE)
    return np.where(inside[..., None], _HIGH, _DARK).astype(np.uint8)


def _spectrogram(sound: Floats, width: int) -> NDArray[np.uint8]:
    energies = energies_of(sound, RATE)
    shares = np.clip((energies - energies.max(initial=-60) + _DEEP) / _DEEP, 0, 1)
    tall = cv2.resize(shares.T[::-1], (width, _SPECTRUM), interpolation=cv2.INTER_LINEAR)[..., None]
    below, above = np.minimum(2 * tall, 1), np.maximum(2 * tall - 1, 0)
    return np.asarray(_DARK + (_LOW - _DARK) * below + (_HIGH - _LOW) * above).astype(np.uint8)


def pose_pictures(document: Document, clip: str, sources: Sources) -> bytes:
    """JPEG of all poses of a mouth beside each other, in the order of its tracks, over checks."""
    mouth = document.find_holding(clip)
    if not isinstance(mouth, MouthClip):
        raise NotThere("That mouth is not there any more.")
    canvas = mouth.canvas or document.canvas
    size = fitting(canvas.width, canvas.height, SIDE)
    stage = stage_of(document.model_copy(update={"canvas": canvas}), size, sources)
    row = [_pose_picture(pose, stage) for pose in mouth.poses.values()]
    return as_jpeg(np.ascontiguousarray(np.hstack(row)))


def _pose_picture(pose: Pictured, stage: Stage) -> Rgba:
    picture, size = checks((SIDE, SIDE)), stage.size
    inner = checks(size)
    lay(inner, affected(pose, 0, stage))
    left, top = (SIDE - size[0]) // 2, (SIDE - size[1]) // 2
    picture[top : top + size[1], left : left + size[0]] = inner
    return picture

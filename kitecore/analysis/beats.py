"""Beats of music and beginnings of sounds, by `kitecore.sound.beats` and `kitecore.sound.onsets`."""

from __future__ import annotations

from pathlib import Path
from typing import Final

from kitecore.analysis._base import (
    Analysis,
    NoParameters,
    analyses,
    read_found,
    sounds,
    write_found,
)
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import SOUND_RATE, read_mono, sound_length
from kitecore.model import Model
from kitecore.programs import Tell
from kitecore.sound.beats import beats_of
from kitecore.sound.onsets import onsets_of
from kitecore.ticks import TICKS_PER_SECOND

LONGEST: Final = 20 * 60
"""Seconds of music that are listened to."""


class BeatsFound(Model):
    """Ticks of the file at which beats are, which of the first begins a bar, beats a minute.

    ``onsets`` are those at which anything begins, in music or not.
    """

    at: tuple[int, ...]
    first: int
    tempo: float
    onsets: tuple[int, ...] = ()


def find_beats(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    """Raises `BadInput` for a take that is longer than `LONGEST`."""
    if sound_length(folder) > LONGEST * TICKS_PER_SECOND:
        raise BadInput("Beats are found in music of up to twenty minutes.")
    tell("beats", 0.1)
    sound = read_mono(folder)
    found, ticks = beats_of(sound), TICKS_PER_SECOND // SOUND_RATE
    told = BeatsFound(
        at=tuple(at * ticks for at in found.at),
        first=found.first,
        tempo=found.tempo,
        onsets=tuple(at * ticks for at in onsets_of(sound)),
    )
    write_found(out, "beats", told)


def read_beats(folder: MediaFolder) -> BeatsFound:
    """What was found, or is found now."""
    return read_found(folder, "beats", BeatsFound)


analyses.register("beats")(Analysis(version=2, fits=sounds, run=find_beats))

"""Beats of music, by `kitecore.sound.beats`."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Final

import numpy as np

from kitecore.analysis._base import Analysis, NoParameters, analyse, analyses
from kitecore.document import Model
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import CHANNELS, SOUND_RATE
from kitecore.programs import Tell
from kitecore.sound.beats import beats_of
from kitecore.ticks import TICKS_PER_SECOND

BEATS: Final = "beats.json"
LONGEST: Final = 20 * 60
"""Seconds of music that are listened to."""


class BeatsFound(Model):
    """Ticks of the file at which beats are, which of the first begins a bar, beats a minute."""

    at: tuple[int, ...]
    first: int
    tempo: float


def find_beats(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    """Raises `BadInput` for a take that is longer than `LONGEST`."""
    mono = np.zeros(0, np.float32)
    if folder.sound.stat().st_size:
        everything = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
        if len(everything) > LONGEST * SOUND_RATE:
            raise BadInput("Beats are found in music of up to twenty minutes.")
        mono = np.asarray(everything).mean(axis=1)
    tell("beats", 0.1)
    found = beats_of(mono)
    ticks = TICKS_PER_SECOND // SOUND_RATE
    told = BeatsFound(at=tuple(at * ticks for at in found.at), first=found.first, tempo=found.tempo)
    (out / BEATS).write_text(told.model_dump_json())


def read_beats(folder: MediaFolder) -> BeatsFound:
    """What was found, or is found now."""
    return BeatsFound.model_validate(json.loads((analyse(folder, "beats") / BEATS).read_text()))


analyses.register("beats")(
    Analysis(version=1, fits=lambda info: info.sound is not None, run=find_beats)
)

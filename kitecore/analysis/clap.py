"""The clap of a take, by `kitecore.sound.claps`."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Final

import numpy as np

from kitecore.analysis._base import Analysis, NoParameters, analyse, analyses
from kitecore.analysis.match import LONGEST
from kitecore.document import Model
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import CHANNELS, SOUND_RATE
from kitecore.programs import Tell
from kitecore.sound.claps import clap_of
from kitecore.ticks import TICKS_PER_SECOND

_CLAP: Final = "clap.json"


class ClapFound(Model):
    """The tick of the file at which somebody claps, none if nothing is heard; ``rise`` in dB."""

    at: int | None = None
    rise: float = 0.0


def find_clap(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    tell("listening", 0.0)
    sound = np.zeros(0, np.float32)
    if folder.sound.stat().st_size:
        everything = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
        sound = np.asarray(everything[: LONGEST * SOUND_RATE]).mean(axis=1)
    found = clap_of(sound, SOUND_RATE)
    told = ClapFound()
    if found is not None:
        told = ClapFound(at=round(found.at * TICKS_PER_SECOND), rise=found.rise)
    (out / _CLAP).write_text(told.model_dump_json())


def read_clap(folder: MediaFolder) -> ClapFound:
    """What was found, or is found now."""
    return ClapFound.model_validate(json.loads((analyse(folder, "clap") / _CLAP).read_text()))


analyses.register("clap")(
    Analysis(version=1, fits=lambda info: info.sound is not None, run=find_clap)
)

"""The clap of a take, by `kitecore.sound.claps`."""

from __future__ import annotations

from pathlib import Path

from kitecore.analysis._base import (
    Analysis,
    NoParameters,
    analyses,
    read_found,
    sounds,
    write_found,
)
from kitecore.analysis.match import LONGEST
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import SOUND_RATE, read_mono
from kitecore.model import Model
from kitecore.programs import Tell
from kitecore.sound.claps import clap_of
from kitecore.ticks import TICKS_PER_SECOND


class ClapFound(Model):
    """The tick of the file at which somebody claps, none if nothing is heard; ``rise`` in dB."""

    at: int | None = None
    rise: float = 0.0


def find_clap(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    tell("listening", 0.0)
    found = clap_of(read_mono(folder, LONGEST), SOUND_RATE)
    told = ClapFound()
    if found is not None:
        told = ClapFound(at=round(found.at * TICKS_PER_SECOND), rise=found.rise)
    write_found(out, "clap", told)


def read_clap(folder: MediaFolder) -> ClapFound:
    """What was found, or is found now."""
    return read_found(folder, "clap", ClapFound)


analyses.register("clap")(Analysis(version=1, fits=sounds, run=find_clap))

"""Where a take lies in another recording of the same thing, by `kitecore.sound.alignment`."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Final

import numpy as np
from pydantic import Field

from kitecore.analysis._base import (
    Analysis,
    NoParameters,
    analyse,
    analyses,
    read_found,
    sounds,
    write_found,
)
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import SOUND_RATE, read_mono
from kitecore.model import Model
from kitecore.programs import Tell
from kitecore.sound.alignment import Mono, aligned, heard
from kitecore.ticks import TICKS_PER_SECOND

_HEARD: Final = "heard.f32"
LONGEST: Final = 6 * 3600
"""Seconds of a take that are listened to."""


class Other(Model):
    """The take that is compared with, in the same library."""

    other: Annotated[str, Field(max_length=40)] = ""


class Match(Model):
    """Where the take begins in the other, in ticks of that; none if nothing says that it does.

    ``drift``, ``confidence`` and ``middle`` (in ticks) as of `kitecore.sound.alignment.Alignment`.
    """

    at: int | None = None
    drift: float = 0.0
    confidence: float = 0.0
    middle: int = 0


def hear(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    """A take's sound in the form in which it is compared, so that this is done once."""
    tell("listening", 0.0)
    heard(read_mono(folder, LONGEST), SOUND_RATE).tofile(out / _HEARD)


def find_match(folder: MediaFolder, wanted: Other, out: Path, tell: Tell) -> None:
    mine = _heard(folder)
    tell("comparing", 0.3)
    theirs = _heard(MediaFolder(folder.path.parent / wanted.other))
    tell("comparing", 0.5)
    found = aligned(mine, theirs)
    match = Match()
    if found is not None:
        match = Match(
            at=round(found.offset * TICKS_PER_SECOND),
            drift=found.drift,
            confidence=found.confidence,
            middle=max(0, round(found.middle * TICKS_PER_SECOND)),
        )
    write_found(out, "match", match)


def _heard(folder: MediaFolder) -> Mono:
    return np.fromfile(analyse(folder, "heard") / _HEARD, np.float32)


def read_match(folder: MediaFolder, other: str) -> Match:
    """What was found, or is found now."""
    return read_found(folder, "match", Match, Other(other=other))


analyses.register("heard")(Analysis(version=1, fits=sounds, run=hear))
analyses.register("match")(Analysis(version=2, fits=sounds, run=find_match, parameters=Other))

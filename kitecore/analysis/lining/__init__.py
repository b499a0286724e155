"""Where the files of several cameras and recorders lie in one time."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Final, Literal, Protocol

from pydantic import Field

from kitecore.analysis.clap import ClapFound, read_clap
from kitecore.analysis.match import Match, read_match
from kitecore.document import Model
from kitecore.document.clips.multicam import MOST_ANGLES
from kitecore.document.references import TakeId
from kitecore.media.folder import MediaFolder
from kitecore.media.info import Clock
from kitecore.model import Tick
from kitecore.programs import Tell, tell_nobody
from kitecore.registry import Registry
from kitecore.ticks import TICKS_PER_SECOND

Way = Literal["auto", "sound", "clap", "marker", "timecode", "clock", "hand"]


class Unplaced(Model):
    """A file of an angle, where it lies now, and by what it is to be lined up.

    ``marker`` is the tick of the file at which somebody has set one.
    """

    angle: Annotated[int, Field(ge=0, lt=MOST_ANGLES)]
    file: int = Field(default=0, ge=0, lt=500)
    take: TakeId
    at: Tick = 0
    way: Way = "auto"
    marker: Tick | None = None


class Found(Model):
    """Where a file goes, by what, and how surely (0..1); without ``at`` it stays where it is.

    ``drift`` is how much faster its clock runs, as a share of one, and ``middle`` the tick of the file
    at which ``at`` holds whatever its clock does. ``clap`` is the tick at which somebody claps, where
    that was told by it.
    """

    angle: int
    file: int
    at: int | None = None
    way: str = ""
    confidence: float = 0.0
    drift: float = 0.0
    middle: int = 0
    clap: int | None = None


class Facts(Model):
    """What is known of a take besides its sound."""

    clock: Clock = Clock()
    sounds: bool = False


class Ears(Protocol):
    """What takes sound like."""

    def match(self, one: str, other: str) -> Match:
        """Where a take lies in another."""

    def clap(self, take: str) -> ClapFound:
        """Where somebody claps in a take."""


Guess = Callable[[Unplaced, Unplaced, Mapping[str, Facts], Ears], Found | None]
"""Where the first lies if the second lies at its ``at``; none if that cannot be told."""

guesses: Registry[Guess] = Registry("way to line up")
"""In the order in which they are tried by themselves."""
_ASKED_FOR: Final = frozenset({"clap", "marker"})
"""Ways that are only gone when they are chosen: a door may slam where nobody claps, and a marker may
mean anything."""
_CLAPS: Final = 15.0
"""dB by which a clap stands out at least."""
_SURE_TIMECODE: Final = 0.95
_SURE_CLOCK: Final = 0.2
"""Clocks of files tell whole seconds and are set by hand: a first guess."""


@guesses.register("sound")
def _by_sound(
    file: Unplaced, other: Unplaced, facts: Mapping[str, Facts], ears: Ears
) -> Found | None:
    if file.take == other.take or not (facts[file.take].sounds and facts[other.take].sounds):
        return None
    match = ears.match(file.take, other.take)
    if match.at is None:
        return None
    found = _found(file, other.at + match.at, "sound", match.confidence)
    return found.model_copy(update={"drift": match.drift, "middle": match.middle})


@guesses.register("clap")
def _by_clap(
    file: Unplaced, other: Unplaced, facts: Mapping[str, Facts], ears: Ears
) -> Found | None:
    if not (facts[file.take].sounds and facts[other.take].sounds):
        return None
    mine, theirs = ears.clap(file.take), ears.clap(other.take)
    if mine.at is None or theirs.at is None or min(mine.rise, theirs.rise) < _CLAPS:
        return None
    sure = min(1.0, (min(mine.rise, theirs.rise) - _CLAPS) / _CLAPS)
    clap = other.at + theirs.at
    found = _found(file, clap - mine.at, "clap", 0.4 + 0.4 * sure)
    return found.model_copy(update={"clap": clap})


@guesses.register("marker")
def _by_marker(
    file: Unplaced, other: Unplaced, facts: Mapping[str, Facts], ears: Ears
) -> Found | None:
    if file.marker is None or other.marker is None:
        return None
    return _found(file, other.at + other.marker - file.marker, "marker", 1.0)


@guesses.register("timecode")
def _by_timecode(
    file: Unplaced, other: Unplaced, facts: Mapping[str, Facts], ears: Ears
) -> Found | None:
    mine, theirs = facts[file.take].clock.timecode, facts[other.take].clock.timecode
    if mine is None or theirs is None:
        return None
    return _found(file, other.at + mine - theirs, "timecode", _SURE_TIMECODE)


@guesses.register("clock")
def _by_clock(
    file: Unplaced, other: Unplaced, facts: Mapping[str, Facts], ears: Ears
) -> Found | None:
    mine, theirs = facts[file.take].clock.made_at, facts[other.take].clock.made_at
    if mine is None or theirs is None:
        return None
    by = round((mine - theirs) * TICKS_PER_SECOND)
    return _found(file, other.at + by, "clock", _SURE_CLOCK)


def _found(file: Unplaced, at: int, way: str, confidence: float) -> Found:
    return Found(angle=file.angle, file=file.file, at=at, way=way, confidence=confidence)


def lined_up(
    files: list[Unplaced],
    first: int,
    facts: Mapping[str, Facts],
    ears: Ears,
    tell: Callable[[float], None] = lambda share: None,
) -> list[Found]:
    """Where files go, in their order; the one of index ``first`` stays.

    Each is held against the first, and against those that have found their place already. What
    nothing is known of stays where it is, and says so.
    """
    here = files[first]
    found: dict[int, Found] = {first: _found(here, here.at, "first", 1.0)}
    for index, file in enumerate(files):
        if file.way == "hand" and index != first:
            found[index] = _found(file, file.at, "hand", 1.0)
    for way in guesses:
        progress = True
        while progress:
            progress = False
            for index, file in enumerate(files):
                if index in found or not _goes(file, way):
                    continue
                best = _best(way, file, files, found, facts, ears)
                if best is not None:
                    found[index], progress = best, True
                tell(len(found) / len(files))
    nothing = {n: Found(angle=f.angle, file=f.file) for n, f in enumerate(files)}
    return [found.get(index, nothing[index]) for index in range(len(files))]


def _goes(file: Unplaced, way: str) -> bool:
    return file.way == way or (file.way == "auto" and way not in _ASKED_FOR)


def _best(
    way: str,
    file: Unplaced,
    files: list[Unplaced],
    found: Mapping[int, Found],
    facts: Mapping[str, Facts],
    ears: Ears,
) -> Found | None:
    """The surest of the places that those already placed give a file; the first sure one will do."""
    best: Found | None = None
    for index, known in found.items():
        if known.at is None or known.way == "hand":
            continue
        placed = files[index].model_copy(update={"at": known.at})
        guess = guesses[way](file, placed, facts, ears)
        if guess is not None:
            guess = _by_its_clock(guess, known)
        if guess is not None and (best is None or guess.confidence > best.confidence):
            best = guess
        if best is not None and best.confidence > 0.8:
            break
    return best


def _by_its_clock(guess: Found, other: Found) -> Found:
    """A guess held against a file whose own clock runs otherwise than that of the first."""
    if guess.at is None or other.at is None or not other.drift:
        return guess
    there = guess.at + guess.middle - other.at
    moment = other.at + other.middle + (there - other.middle) / (1 + other.drift)
    drift = (1 + guess.drift) * (1 + other.drift) - 1 if guess.way == "sound" else guess.drift
    return guess.model_copy(update={"at": round(moment) - guess.middle, "drift": drift})


class Lining(Model):
    """Files, which of them stays, and what is known of each take, by its id."""

    files: tuple[Unplaced, ...]
    first: int
    facts: dict[str, Facts]

    def found(self, media: Path, tell: Tell = tell_nobody) -> list[Found]:
        """Where the files go; matches that are not kept yet are found now."""
        files, ears = list(self.files), Kept(media)
        return lined_up(files, self.first, self.facts, ears, lambda share: tell("comparing", share))


@dataclass(frozen=True)
class Kept:
    """What takes below a folder sound like: as it was found before, or is found now."""

    media: Path

    def match(self, one: str, other: str) -> Match:
        return read_match(MediaFolder(self.media / one), other)

    def clap(self, take: str) -> ClapFound:
        return read_clap(MediaFolder(self.media / take))

"""What every check has in common."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from kitecore.document import Document, Model
from kitecore.model import Tick
from kitecore.registry import Registry
from kitecore.render.checking.pictures import PictureFacts
from kitecore.render.checking.sounds import SoundFacts
from kitecore.render.checking.within import Lies, everywhere
from kitecore.render.destinations import Destination
from kitecore.render.making.work import Work
from kitecore.render.sources import Sources

Grade = Literal["bad", "doubt"]
"""What is wrong anywhere, or what a person should look at."""


class Finding(Model):
    """Something found before a film goes out.

    Attributes
    ----------
    at, until
        Where, in ticks of the timeline; None for all of the film.
    clip
        Id of the clip that it is about.
    mend
        A step that would mend it, as it is sent to the project.
    """

    check: str
    grade: Grade
    message: str
    at: Tick | None = None
    until: Tick | None = None
    clip: str | None = None
    mend: dict[str, Any] | None = None


@dataclass(frozen=True)
class Film:
    """A film as checks see it, on its way to a destination."""

    document: Document
    work: Work
    destination: Destination
    pictures: PictureFacts
    sound: SoundFacts
    sources: Sources

    @cached_property
    def lies(self) -> tuple[Lies, ...]:
        """All clips that are on at some frame, wherever they lie."""
        return tuple(everywhere(self.document))

    @property
    def kind(self) -> str:
        return self.destination.settings.recipe.kind

    @property
    def seconds(self) -> float:
        return float(len(self.work.numbers) / self.work.rate.fraction)

    def tick(self, frame: int) -> int:
        return self.document.rate.exact.start_of(frame)

    def frames(self, seconds: float) -> int:
        """At least one."""
        return max(1, round(seconds * float(self.document.rate.exact.fraction)))

    def stretch(self, first: int, last: int) -> dict[str, int]:
        """Where frames ``first`` up to ``last`` lie, for a finding."""
        return {"at": self.tick(first), "until": self.tick(last)}


@dataclass(frozen=True)
class Check:
    """``label`` says what is well if it finds nothing; ``of`` what it looks at."""

    label: str
    of: Literal["picture", "sound", "file"]
    run: Callable[[Film], Iterator[Finding]]


checks: Registry[Check] = Registry("check")


def runs(flags: NDArray[np.bool_], least: int = 1) -> Iterator[tuple[int, int]]:
    """First and last-but-one of each row of at least ``least`` true values."""
    edges = np.flatnonzero(np.diff(np.concatenate([[0], flags.astype(np.int8), [0]])))
    for first, last in zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True):
        if last - first >= least:
            yield first, last


def clock(film: Film, frames: int) -> str:
    """A length for people: ``1.4 s``."""
    return f"{frames / float(film.document.rate.exact.fraction):.1f} s"


def together(numbers: Iterable[int], step: int) -> list[tuple[int, int]]:
    """Looks in a row, each of which stands for a step, as stretches from one frame up to another."""
    found: list[tuple[int, int]] = []
    for number in numbers:
        joins = found and number <= found[-1][1]
        begin = found.pop()[0] if joins else number
        found.append((begin, number + step))
    return found

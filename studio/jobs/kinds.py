"""What kinds of jobs there are. An app that has one registers it in its module ``work``."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Protocol

from kitecore.registry import Registry
from studio.jobs.models import Job

WAITED_FOR, PUT_TOGETHER, IN_PARTS, IN_THE_BACKGROUND = 30, 20, 10, 0
"""How urgent: a person waits for it now; only joining is left; one part of many; it may come later."""


class Note(Protocol):
    """Takes down how far a job is.

    Raises `Superseded` when nobody wants it any more, or another worker has it.
    """

    def __call__(self, share: float, doing: str = "") -> None: ...


@dataclass(frozen=True)
class Part:
    """A job that is part of another."""

    kind: str
    subject: str
    args: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class InParts:
    """What a job answers that others have to be done for first; then it is run once more."""

    parts: list[Part]


@dataclass(frozen=True)
class Later:
    """What a job answers that can only go on after so many seconds; then it is run once more."""

    seconds: float
    doing: str = ""


Outcome = Mapping[str, Any] | InParts | Later | None
"""The result as JSON, if there is any."""


def _nothing(job: Job) -> None:
    """For kinds whose end changes nothing besides."""


def _no_problem(job: Job, problem: Mapping[str, str]) -> None:
    """For kinds whose failing changes nothing besides."""


@dataclass(frozen=True)
class JobKind:
    """How a kind of job is done.

    Attributes
    ----------
    run
        Does it; may be run again after a worker died in the middle, and must mind that.
    failed
        Hears of a job that came to nothing, failed or cancelled.
    again
        Hears of a job that is about to be tried once more.
    attempts
        Times that a worker may die over it: so many that a bad hour of the machine ends nothing.
    """

    run: Callable[[Job, Note], Outcome]
    priority: int
    failed: Callable[[Job, Mapping[str, str]], None] = _no_problem
    again: Callable[[Job], None] = _nothing
    attempts: int = 8


job_kinds: Registry[JobKind] = Registry("kind of job")

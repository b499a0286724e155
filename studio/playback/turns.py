"""Who is next: requests for a render process, taken from each person in turn."""

from __future__ import annotations

from collections import OrderedDict, deque
from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import dataclass, field
from threading import Condition
from typing import Final

from kitecore.errors import Superseded, TookTooLong
from kitecore.kept import Kept
from kitecore.render.questions import Request

MOST_WAITING: Final = 24
"""Requests of one person that wait; a page that is used by hand has a few."""
SITE: Final = 0
"""The person whom the site's own requests count as."""


@dataclass
class Job:
    """A request of a person that waits for a render process.

    Of a person's ``lane`` only the newest ``turn`` is wanted: older ones are dropped, or stopped.
    """

    request: Request
    document: Callable[[], str]
    person: int
    lane: str = ""
    turn: int = 0
    future: Future[bytes] = field(default_factory=Future)

    @property
    def whose(self) -> tuple[int, str]:
        return self.person, self.lane


class Turns:
    """Jobs that wait. Each person's keep their order; people are served one after another."""

    def __init__(self) -> None:
        self._waiting: OrderedDict[int, deque[Job]] = OrderedDict()
        self._newest: Kept[int] = Kept(1000)
        self._wake = Condition()

    def put(self, job: Job) -> None:
        """Raises `TookTooLong` if too many of the same person wait."""
        with self._wake:
            if job.lane:
                self._newest.put(job.whose, max(job.turn, self._newest.find(job.whose) or 0))
            mine = self._waiting.setdefault(job.person, deque())
            self._drop_unwanted(mine)
            if len(mine) >= MOST_WAITING:
                raise TookTooLong("Too much is being drawn for you at once.")
            mine.append(job)
            self._wake.notify()

    def take(self) -> Job:
        """The next one that is still wanted; waits for it."""
        while True:
            with self._wake:
                self._wake.wait_for(lambda: bool(self._waiting))
                person, mine = self._waiting.popitem(last=False)
                self._drop_unwanted(mine)
                job = mine.popleft() if mine else None
                if mine:
                    self._waiting[person] = mine
            if job is not None and job.future.set_running_or_notify_cancel():
                return job

    def _drop_unwanted(self, mine: deque[Job]) -> None:
        for job in [one for one in mine if self.is_unwanted(one)]:
            mine.remove(job)
            if job.future.set_running_or_notify_cancel():
                job.future.set_exception(Superseded("A newer picture was asked for."))

    def is_unwanted(self, job: Job) -> bool:
        """Whether something newer was asked for in its lane."""
        newest = self._newest.find(job.whose) if job.lane else None
        return newest is not None and newest > job.turn

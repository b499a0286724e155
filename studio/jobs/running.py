"""Doing a job in a worker: signs of life by a thread of its own, its end written down."""

from __future__ import annotations

import logging
from threading import Event, Thread
from time import monotonic
from types import TracebackType

from django.conf import settings
from django.db import Error as DatabaseError
from django.db import connection

from kitecore.errors import KiteError, MachineFailed, RenderFailed, Superseded
from studio.failures import failure_of
from studio.jobs import queue
from studio.jobs.kinds import InParts, Later, job_kinds
from studio.jobs.models import Job
from studio.jobs.programs import Interrupted

log = logging.getLogger(__name__)

_PAUSE = 0.7
"""Seconds between two notes of progress."""


class Pulse:
    """Signs of life of a job while it is worked on, whatever keeps the work itself busy."""

    def __init__(self, job: Job) -> None:
        self._job = job
        self._over = Event()
        self.lost = Event()
        """Set once the job is not ours any more: cancelled, or given to another worker."""
        self._thread = Thread(target=self._run, name="pulse", daemon=True)

    def __enter__(self) -> Pulse:
        self._thread.start()
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self._over.set()
        self._thread.join()

    def _run(self) -> None:
        try:
            while not self._over.wait(settings.WORKER_SILENCE / 5):
                try:
                    if not queue.beat(self._job):
                        self.lost.set()
                        return
                except DatabaseError:
                    log.warning("a sign of life could not be written")
        finally:
            connection.close()


class Notes:
    """Takes down how far a job is, now and then; see `studio.jobs.kinds.Note`."""

    def __init__(self, job: Job, lost: Event) -> None:
        self._job = job
        self._lost = lost
        self._last = 0.0
        self._doing = job.doing

    def __call__(self, share: float, doing: str = "") -> None:
        now = monotonic()
        fresh = bool(doing) and doing != self._doing
        if fresh or now - self._last >= _PAUSE:
            self._last, self._doing = now, doing or self._doing
            noted = queue.beat(self._job, share=min(max(share, 0.0), 1.0), doing=self._doing)
            if not noted:
                self._lost.set()
        if self._lost.is_set():
            raise Superseded("Nobody waits for this any more.")


def run_next() -> bool:
    """Do the most urgent job that waits; false if there was none."""
    job = queue.take()
    if job is None:
        return False
    run(job)
    return True


def work_off() -> int:
    """Do all that waits, here and now; the number of jobs done."""
    done = 0
    while run_next():
        done += 1
    return done


def run(job: Job) -> None:
    """Do a job that was taken."""
    try:
        with Pulse(job) as pulse:
            outcome = job_kinds[job.kind].run(job, Notes(job, pulse.lost))
        if isinstance(outcome, InParts):
            queue.split(job, outcome.parts)
        elif isinstance(outcome, Later):
            queue.put_off(job, outcome)
        else:
            queue.finish(job, outcome)
    except Superseded:
        return
    except Interrupted as error:
        queue.give_back(job, error)
    except KiteError as error:
        queue.fail(job, error)
    except Exception as error:
        failure = failure_of(error)
        if failure is not None:
            told, _ = failure
            queue.fail(job, MachineFailed(told.message, safe=told.safe, todo=told.todo))
            return
        log.exception("a job of kind %s failed", job.kind)
        queue.fail(job, RenderFailed(f"This could not be done ({type(error).__name__})."))

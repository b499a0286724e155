"""The render processes of this site, and the queues before them."""

from __future__ import annotations

import atexit
import logging
import subprocess
from concurrent.futures import Future
from concurrent.futures import TimeoutError as FutureTimeout
from contextlib import suppress
from functools import cache
from multiprocessing.connection import Connection
from pathlib import Path
from threading import Lock, Thread, Timer

from django.conf import settings

from kitecore.document import dumps, empty_document
from kitecore.errors import RenderFailed, TookTooLong, kind_of
from kitecore.kept import Kept
from kitecore.render.questions import Request, questions
from kitecore.render.worker import Answer, Asked, Failed, Stop, Unknown
from studio.playback.drawers import started
from studio.playback.turns import SITE, Job, Turns

log = logging.getLogger(__name__)

LANES = 1000
"""Of which it is remembered whether one was stopped last."""
PATIENCE = 60.0
"""Seconds after which a request counts as stuck."""
STARTING = 60.0
"""Seconds more for the first, which waits for the process itself."""
LATER = 3.0
"""Seconds after the site is up that the process that makes pieces is started, if nobody plays before."""


class _Silent(Exception):
    """A render process did not answer in time."""


class RenderProcess:
    """One process, fed by one thread; started when first needed and again when it has died."""

    def __init__(self, media: Path) -> None:
        self._media = media
        self._turns = Turns()
        self._process: subprocess.Popen[bytes] | None = None
        self._line: Connection | None = None
        self._sending = Lock()
        self._number = 0
        self._in_hand: Job | None = None
        self._spared: Kept[bool] = Kept(LANES)
        self._thread = Thread(target=self._run, name="render", daemon=True)
        self._thread.start()

    def submit(self, job: Job) -> Future[bytes]:
        self._turns.put(job)
        self._stop_unwanted()
        return job.future

    @property
    def lives(self) -> bool:
        """Whether its thread takes questions; the process itself is started by the next one."""
        return self._thread.is_alive()

    def close(self) -> None:
        if self._process is not None and self._line is not None:
            self._line.close()
            self._process.kill()
            self._process.wait()
            self._process = None

    def _run(self) -> None:
        while True:
            job = self._turns.take()
            try:
                job.future.set_result(self._ask(job))
            except Exception as error:
                job.future.set_exception(error)

    def _ask(self, job: Job) -> bytes:
        try:
            answer = self._answer(job)
        except _Silent as error:
            log.warning("a render process took too long and was ended")
            self.close()
            raise TookTooLong("The picture takes too long to draw.") from error
        if isinstance(answer, Failed):
            raise kind_of(answer.code)(answer.message, todo=answer.todo)
        assert isinstance(answer, bytes)
        return answer

    def _answer(self, job: Job) -> Answer:
        """Of a process that died another one is asked, once: the question may be what killed it."""
        try:
            return self._told(job)
        except (EOFError, OSError) as error:
            log.warning("a render process ended: %s", error)
            self.close()
        try:
            return self._told(job)
        except (EOFError, OSError) as error:
            self.close()
            raise RenderFailed("The picture could not be drawn.") from error

    def _told(self, job: Job) -> Answer:
        answer = self._exchange(job)
        if isinstance(answer, Unknown):
            assert self._line is not None
            self._line.send((job.request.document, job.document()))
            answer = self._exchange(job)
        return answer

    def _exchange(self, job: Job) -> Answer:
        fresh = self._process is None or self._process.poll() is not None
        line = self._started()
        with self._sending:
            self._number += 1
            self._in_hand = job
            line.send(Asked(self._number, job.request))
        self._stop_unwanted()
        try:
            if not line.poll(PATIENCE + (STARTING if fresh else 0)):
                raise _Silent
            answer: Answer = line.recv()
        finally:
            with self._sending:
                self._in_hand = None
        return answer

    def _stop_unwanted(self) -> None:
        """Let go of what is in hand if nobody waits for it any more.

        Never of two in a row of one lane: of a slow piece something is seen on the way, too.
        """
        with self._sending, suppress(OSError):
            job = self._in_hand
            if job is None or self._line is None or not self._turns.is_unwanted(job):
                return
            if not self._spared.find(job.whose):
                self._line.send(Stop(self._number))
            self._spared.put(job.whose, not self._spared.find(job.whose))
            self._in_hand = None

    def _started(self) -> Connection:
        if self._process is None or self._process.poll() is not None or self._line is None:
            self._process, self._line = started(self._media)
        return self._line


class RenderService:
    """Two processes: one answers stills at once, one makes the pieces that play."""

    def __init__(self, media: Path) -> None:
        self.stills = RenderProcess(media)
        self.pieces = RenderProcess(media)

    def wake(self) -> None:
        """Start the processes before they are asked: for stills now, for playing once those are there."""
        _wake(self.stills)
        later = Timer(LATER, _wake, [self.pieces])
        later.daemon = True
        later.start()

    @property
    def draws(self) -> bool:
        """Whether the processes are there, or will be for the next question."""
        return all(process.lives for process in (self.stills, self.pieces))

    def close(self) -> None:
        self.stills.close()
        self.pieces.close()


def _wake(process: RenderProcess) -> None:
    request = Request("still", "nothing", 0, long_side=16)
    process.submit(Job(request, lambda: dumps(empty_document()), SITE))


_starting = Lock()


@cache
def _service() -> RenderService:
    made = RenderService(settings.MEDIA_DIR)
    atexit.register(made.close)
    return made


def service() -> RenderService:
    """This process's render service."""
    with _starting:
        return _service()


def render(job: Job) -> bytes:
    """Have a job done and wait for it.

    Raises
    ------
    Superseded
        If something newer was asked for in its lane.
    TookTooLong
        If it was not done in time; the work on it has ended, or will not begin.
    RenderFailed
    """
    pool = service()
    process = pool.pieces if questions[job.request.what].apart else pool.stills
    future = process.submit(job)
    try:
        return future.result(timeout=2 * PATIENCE + STARTING)
    except FutureTimeout:
        future.cancel()
        raise TookTooLong("Too much is being drawn at once.") from None

"""Hands pieces to workers on other machines, and takes down what becomes of them.

One relay does that at a time. Should it die, the rows of what it had handed out fall silent and are
given out again like any other; what is made meanwhile is found by its content.
"""

from __future__ import annotations

import json
import logging
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Event, Thread
from time import monotonic
from typing import Final
from uuid import uuid4

from django.conf import settings
from django.db import connection
from redis.exceptions import RedisError

from kitecore.errors import KiteError, RenderFailed
from kitecore.render.handed import PieceTask
from studio.distant.board import Board, queue_of, task_on
from studio.jobs import queue
from studio.jobs.models import Job

log = logging.getLogger(__name__)

KIND: Final = "piece"
EVERY: Final = 0.3
"""Seconds between two looks."""
_LEADS: Final = 10

TaskOf = Callable[[Job, str], PieceTask | None]
"""The task of a job, under an id; none if it is done or nobody wants it any more."""


@dataclass
class _Handed:
    """A job that another machine has."""

    job: Job
    task: str
    beat: str = ""
    heard: float = field(default_factory=monotonic)


class Relay:
    def __init__(self, url: str, task_of: TaskOf) -> None:
        self._board = Board(url)
        self._push = task_on(queue_of(url), _never_here)
        self._task_of = task_of
        self._handed: dict[str, _Handed] = {}
        self._who = uuid4().hex

    def step(self) -> None:
        """Look at what was handed out, then hand out as much as there are idle workers for."""
        if not self._board.lead(self._who, _LEADS):
            self._handed.clear()
            return
        for one in list(self._handed.values()):
            self._look_at(one)
        waiting = sum(not one.beat for one in self._handed.values())
        for _ in range(self._board.idle() - waiting):
            job = queue.take(KIND)
            if job is None:
                return
            self._hand_over(job)

    def _hand_over(self, job: Job) -> None:
        id = uuid4().hex
        try:
            task = self._task_of(job, id)
        except KiteError as error:
            queue.fail(job, error)
            return
        if task is None:
            queue.finish(job, None)
            return
        self._push(task.model_dump_json())
        self._handed[id] = _Handed(job, id)

    def _look_at(self, one: _Handed) -> None:
        told = self._board.told(one.task)
        state = told.get("state", "")
        if state == "done":
            queue.finish(one.job, None)
        elif state == "failed":
            queue.fail(one.job, _error_of(told["problem"]))
        elif state == "unable":
            queue.keep_here(one.job)
        elif self._silent(one, told.get("beat", "")):
            self._board.call_off(one.task)
            queue.give_back(one.job)
        elif queue.beat(one.job, share=float(told.get("share", 0)), doing="elsewhere"):
            return
        else:
            self._board.call_off(one.task)
        self._handed.pop(one.task, None)

    def _silent(self, one: _Handed, beat: str) -> bool:
        """Whether nothing was heard for long; by our own clock, since those of machines differ."""
        now = monotonic()
        if beat and beat != one.beat:
            one.beat, one.heard = beat, now
        return now - one.heard > settings.WORKER_SILENCE


def _never_here(text: str) -> None:
    raise AssertionError("tasks are done by workers on other machines")


def _error_of(told: str) -> KiteError:
    """An error as it was told by another machine."""
    problem = json.loads(told)
    error = RenderFailed(problem["message"], safe=problem["safe"], todo=problem["todo"])
    error.code = problem["code"]
    return error


def start_relay(url: str, task_of: TaskOf) -> None:
    """Hand out beside a worker, as long as it runs."""
    Thread(target=_run, args=(url, task_of, Event()), name="relay", daemon=True).start()


def _run(url: str, task_of: TaskOf, over: Event) -> None:
    relay = Relay(url, task_of)
    away = False
    while not over.wait(EVERY):
        try:
            relay.step()
            away = False
        except RedisError:
            if not away:
                log.warning("the Redis server cannot be reached; pieces are made here alone")
            away = True
        except Exception:
            log.exception("pieces could not be handed to other machines")
        finally:
            connection.close()

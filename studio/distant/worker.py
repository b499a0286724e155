"""A worker on another machine: ``python -m studio.distant.worker --redis URL --data FOLDER``.

It makes one piece at a time, of those that are of its version, and writes them where they belong in the
folder that all machines share. It may be killed or cut off at any moment: what it was making is given
to another, and a piece is there whole or not at all.
"""

from __future__ import annotations

import argparse
import logging
import socket
from contextlib import suppress
from pathlib import Path
from threading import Event, Thread
from typing import Final
from uuid import uuid4

from pydantic import ValidationError
from redis.exceptions import RedisError

from kitecore.errors import KiteError, MediaMissing, RenderFailed, Superseded
from kitecore.render.handed import PieceTask, make_piece
from studio.distant.board import Board, problem_of, queue_of, task_on

log = logging.getLogger(__name__)

SIGN: Final = 1.0
"""Seconds between two signs of life."""
PIECES: Final = Path("cache") / "encoded"
TAKES: Final = Path("takes")


class Worker:
    """Does tasks, and tells of itself beside that."""

    def __init__(self, url: str, data: Path) -> None:
        self._data = data
        self._board = Board(url)
        self._name = f"{socket.gethostname()}-{uuid4().hex[:8]}"
        self._task = ""
        self._share = 0.0
        self._off = Event()
        self._over = Event()
        Thread(target=self._tell_on, name="signs", daemon=True).start()

    def close(self) -> None:
        self._over.set()

    def do(self, text: str) -> None:
        """A task, as it was handed out."""
        try:
            task = PieceTask.model_validate_json(text)
        except ValidationError:
            log.warning("a task that cannot be read was passed over")
            return
        if self._board.is_off(task.id):
            return
        self._off.clear()
        self._share, self._task = 0.0, task.id
        try:
            self._end(task, **self._outcome(task))
        finally:
            self._task = ""

    def _outcome(self, task: PieceTask) -> dict[str, str]:
        path = self._data / PIECES / task.key[:2] / task.key
        try:
            make_piece(task, self._data / TAKES, path, self._heard)
        except Superseded:
            return {"state": "off"}
        except MediaMissing as error:
            return {"state": "unable", "problem": problem_of(error)}
        except KiteError as error:
            return {"state": "failed", "problem": problem_of(error)}
        except Exception as error:
            log.exception("a piece could not be made")
            failure = RenderFailed(f"This could not be done ({type(error).__name__}).")
            return {"state": "failed", "problem": problem_of(failure)}
        return {"state": "done"}

    def _heard(self, share: float) -> None:
        self._share = share
        if self._off.is_set():
            raise Superseded("Nobody waits for this any more.")

    def _end(self, task: PieceTask, **state: str) -> None:
        """Tell what became of it, as long as there is somebody to tell."""
        with suppress(RedisError):
            self._board.tell(task.id, **state)

    def _tell_on(self) -> None:
        while not self._over.wait(SIGN):
            task = self._task
            with suppress(RedisError):
                self._board.be_present(self._name, busy=bool(task))
                if task and self._board.is_off(task):
                    self._off.set()
                elif task:
                    self._board.tell(task, state="working", share=self._share)


def run(url: str, data: Path) -> None:
    """Work until interrupted."""
    worker = Worker(url, data)
    queue = queue_of(url)
    task_on(queue, worker.do)
    consumer = queue.create_consumer(
        workers=1, worker_type="thread", periodic=False, initial_delay=0.1, max_delay=0.5
    )
    try:
        consumer.run()
    finally:
        worker.close()


if __name__ == "__main__":
    parser = argparse.ArgumentParser()
    parser.add_argument("--redis", required=True, help="redis://host:port/0")
    parser.add_argument("--data", type=Path, required=True, help="the folder that all share")
    given = parser.parse_args()
    logging.basicConfig(level=logging.WARNING)
    run(given.redis, given.data)

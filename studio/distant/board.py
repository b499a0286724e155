"""What relay and workers tell each other, in Redis: who is there, how far each task is, what is off."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from typing import Any, Final

from huey import RedisHuey
from redis import Redis

from kitecore.errors import KiteError
from kitecore.render.handed import VERSION

PRESENT: Final = 6
"""Seconds that a worker counts as there after it said so."""
KEPT: Final = 3600
"""Seconds that the state of a task is kept."""
_PLACE: Final = "velvet-kite"


def queue_of(url: str, version: str = VERSION) -> RedisHuey:
    """The queue of tasks that workers of a version take; others never see them."""
    return RedisHuey(f"{_PLACE}-pieces-{version}", url=url, results=False)


def task_on(queue: RedisHuey, do: Callable[[str], None]) -> Callable[[str], object]:
    """What is done with a task, by workers; called, it hands one out. Both ends know it by this name."""

    def piece(text: str) -> None:
        do(text)

    handed: Callable[[str], object] = queue.task(name="piece")(piece)
    return handed


class Board:
    """Of one version of the program."""

    def __init__(self, url: str, version: str = VERSION) -> None:
        self._redis: Any = Redis.from_url(url, decode_responses=True, socket_timeout=10)
        self._version = version

    def be_present(self, worker: str, *, busy: bool) -> None:
        name = f"{_PLACE}:worker:{self._version}:{worker}"
        self._redis.set(name, "busy" if busy else "idle", ex=PRESENT)

    def idle(self) -> int:
        """Workers that have nothing to do."""
        names = list(self._redis.scan_iter(f"{_PLACE}:worker:{self._version}:*"))
        return self._redis.mget(names).count("idle") if names else 0

    def tell(self, task: str, **state: str | float) -> None:
        """Note how a task is; each note is a sign of life."""
        name = f"{_PLACE}:task:{task}"
        with self._redis.pipeline() as many:
            many.hset(name, mapping=state)
            many.hincrby(name, "beat", 1)
            many.expire(name, KEPT)
            many.execute()

    def told(self, task: str) -> Mapping[str, str]:
        found: dict[str, str] = self._redis.hgetall(f"{_PLACE}:task:{task}")
        return found

    def call_off(self, task: str) -> None:
        self.tell(task, off=1)

    def is_off(self, task: str) -> bool:
        return self._redis.hget(f"{_PLACE}:task:{task}", "off") is not None

    def lead(self, who: str, seconds: int) -> bool:
        """Whether this relay is the one that hands out, for so long."""
        name = f"{_PLACE}:relay:{self._version}"
        if self._redis.set(name, who, nx=True, ex=seconds):
            return True
        if self._redis.get(name) != who:
            return False
        self._redis.expire(name, seconds)
        return True


def problem_of(error: KiteError) -> str:
    told = {"code": error.code, "message": error.message, "safe": error.safe, "todo": error.todo}
    return json.dumps(told)

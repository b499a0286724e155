"""One stream of events for each open page: which jobs changed.

A thread of this process asks the database for all streams together; a stream ends by itself after a
while and the browser opens it anew, so that none holds a thread of the server for ever.
"""

from __future__ import annotations

import json
import logging
from collections.abc import Iterator
from datetime import datetime, timedelta
from queue import Empty, SimpleQueue
from threading import Lock, Thread
from time import monotonic, sleep

from django.conf import settings
from django.db import connection
from django.db.models import F
from django.db.models.functions import Coalesce
from django.utils import timezone

from studio.jobs.models import Job

log = logging.getLogger(__name__)

_PAUSE = 0.4
"""Seconds between two looks."""
_OVERLAP = timedelta(seconds=2)
"""Changes may become visible later than they say; each is told once all the same."""
_STILL_HERE = 10.0

Change = dict[str, str]
_Box = SimpleQueue[Change | None]
"""What is told to a stream; nothing, when it shall end."""

MOST_OF_ONE = 4
"""Streams of one person; a newer one ends the oldest, whose page opens it anew."""
MOST = 48
"""Streams of all: each holds a thread of the server."""


class Watch:
    """Looks for changed jobs as long as anybody listens."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._boxes: dict[int, list[_Box]] = {}
        self._running = False
        self._thread: Thread | None = None

    def listen(self, owner: int) -> _Box:
        box: _Box = SimpleQueue()
        with self._lock:
            self._make_room(owner)
            self._boxes.setdefault(owner, []).append(box)
            if not self._running:
                self._running = True
                self._thread = Thread(target=self._run, name="events", daemon=True)
                self._thread.start()
        return box

    def leave(self, owner: int, box: _Box) -> None:
        with self._lock:
            boxes = self._boxes.get(owner, [])
            if box in boxes:
                boxes.remove(box)
            if not boxes:
                self._boxes.pop(owner, None)

    def close(self) -> None:
        """End all streams, and wait until nobody looks any more: the database may go after that."""
        with self._lock:
            for box in (box for boxes in self._boxes.values() for box in boxes):
                box.put(None)
            self._boxes.clear()
            thread = self._thread
        if thread is not None:
            thread.join()

    def _make_room(self, owner: int) -> None:
        """End the oldest stream of a person who has many, or of whoever has most."""
        count = sum(len(boxes) for boxes in self._boxes.values())
        if len(self._boxes.get(owner, [])) >= MOST_OF_ONE:
            self._boxes[owner].pop(0).put(None)
        elif count >= MOST:
            most = max(self._boxes, key=lambda one: len(self._boxes[one]))
            self._boxes[most].pop(0).put(None)

    def _run(self) -> None:
        since = timezone.now()
        told: set[tuple[str, datetime]] = set()
        while self._goes_on():
            try:
                found = self._changed(since)
                for owner, change, at in found:
                    if (change["job"], at) not in told:
                        self._tell(owner, change)
                told = {(change["job"], at) for _, change, at in found}
                since = timezone.now() - _OVERLAP
            except Exception:
                log.exception("changes of jobs could not be read")
            finally:
                connection.close()
            sleep(_PAUSE)

    def _goes_on(self) -> bool:
        with self._lock:
            self._running = bool(self._boxes)
            return self._running

    def _changed(self, since: datetime) -> list[tuple[int, Change, datetime]]:
        """Changes since then; what happens to a part is told of the whole."""
        with self._lock:
            owners = list(self._boxes)
        rows = Job.objects.filter(owner__in=owners, changed_at__gt=since).annotate(
            whole=Coalesce(F("parent"), F("id")), of=Coalesce(F("parent__kind"), F("kind"))
        )
        return [
            (owner, {"job": str(whole), "kind": of}, at)
            for owner, whole, of, at in rows.values_list("owner", "whole", "of", "changed_at")
        ]

    def _tell(self, owner: int, change: Change) -> None:
        with self._lock:
            for box in self._boxes.get(owner, []):
                box.put(change)


watch = Watch()


def stream(owner: int) -> Iterator[bytes]:
    """Server-sent events (HTML Living Standard, 9.2): ``{"job", "kind"}`` for each change."""
    box = watch.listen(owner)
    end = monotonic() + settings.STREAM_SECONDS
    try:
        yield b"retry: 500\n\n"
        while (left := end - monotonic()) > 0:
            try:
                change = box.get(timeout=min(left, _STILL_HERE))
                if change is None:
                    return
                yield f"data: {json.dumps(change)}\n\n".encode()
            except Empty:
                yield b": still here\n\n"
    finally:
        watch.leave(owner, box)

"""Looking after jobs while a worker runs, by a thread of its own in each."""

from __future__ import annotations

import logging
import os
from threading import Event, Thread

from django.conf import settings
from django.db import connection
from huey.contrib.djhuey import on_shutdown, on_startup

from studio.jobs.queue import tend

log = logging.getLogger(__name__)


_over = Event()


@on_startup()
def look_after_jobs() -> None:
    _over.clear()
    Thread(target=_tend_until_the_end, name="tend", daemon=True).start()


@on_shutdown()
def leave_jobs_alone() -> None:
    _over.set()


def _tend_until_the_end() -> None:
    consumer = os.getppid()
    while not _over.is_set():
        if os.getppid() != consumer:
            # Whoever started this worker was killed, and a new one has workers of its own.
            os._exit(1)
        try:
            tend()
        except Exception:
            log.exception("jobs could not be looked after")
        finally:
            connection.close()
        _over.wait(max(1.0, settings.WORKER_SILENCE / 3))

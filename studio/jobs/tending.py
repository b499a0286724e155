"""Looking after jobs while a worker runs, by a thread of its own in each."""

from __future__ import annotations

import logging
from threading import Event, Thread
from time import monotonic
from typing import Final

from django.conf import settings
from django.core.management import call_command
from django.db import connection
from huey.contrib.djhuey import on_shutdown, on_startup

from studio.jobs.queue import tend

log = logging.getLogger(__name__)


SIGN: Final = settings.DATA_DIR / "worker.alive"
"""Touched as long as a worker looks after jobs."""
SWEEP_EVERY: Final = 6 * 3600.0
"""Seconds between two looks for sessions that are over."""

_over = Event()


@on_startup()
def look_after_jobs() -> None:
    _over.clear()
    Thread(target=_tend_until_the_end, name="tend", daemon=True).start()


@on_shutdown()
def leave_jobs_alone() -> None:
    _over.set()


def _tend_until_the_end() -> None:
    swept = -SWEEP_EVERY
    while not _over.is_set():
        try:
            tend()
            SIGN.touch()
            if monotonic() >= swept + SWEEP_EVERY:
                swept = monotonic()
                call_command("clearsessions")
        except Exception:
            log.exception("jobs could not be looked after")
        finally:
            connection.close()
        _over.wait(max(1.0, settings.WORKER_SILENCE / 3))

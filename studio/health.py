"""What of the site runs: for whoever looks after it, and for programs that do."""

from __future__ import annotations

import shutil
import time
from typing import Final

from django.conf import settings
from django.db import DatabaseError, connection
from ninja import Schema

from studio.jobs.tending import SIGN
from studio.playback.service import service

LITTLE_ROOM: Final = 2 * 2**30
"""Bytes of disk below which somebody should look."""


class Health(Schema):
    """``ok``: steps are answered. The rest says what else runs; ``room``: there is some left."""

    ok: bool
    worker: bool
    drawing: bool
    room: bool


def health() -> Health:
    return Health(
        ok=_database_answers(),
        worker=_worker_is_there(),
        drawing=service().draws,
        room=shutil.disk_usage(settings.DATA_DIR).free > LITTLE_ROOM,
    )


def _database_answers() -> bool:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except DatabaseError:
        return False
    return True


def _worker_is_there() -> bool:
    try:
        return time.time() - SIGN.stat().st_mtime < 3 * settings.WORKER_SILENCE
    except FileNotFoundError:
        return False

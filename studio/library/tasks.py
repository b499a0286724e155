"""Work on fresh takes, done by the worker in a process of its own under limits."""

from __future__ import annotations

import json
import logging
import subprocess
import sys
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.utils import timezone
from huey import crontab
from huey.contrib.djhuey import db_periodic_task, db_task

from kitecore.errors import BrokenMedia
from studio.library.digest import digest_of
from studio.library.models import Take
from studio.problems import Problem

log = logging.getLogger(__name__)

SILENT = timedelta(seconds=settings.WORKER_SILENCE)
ATTEMPTS = 3

_STAGES = {"sound": (0.0, 0.2), "proxy": (0.2, 1.0)}
"""Where in the whole each stage begins and ends."""


@db_task()
def ingest_take(take_id: str) -> None:
    """Run the ingest program on a take and keep what it tells."""
    take = Take.objects.filter(pk=take_id, removed=False).exclude(state=Take.State.ARRIVING).first()
    if take is None or take.state == Take.State.READY:
        return
    take.state, take.attempts, take.problem = Take.State.MAKING, take.attempts + 1, None
    if not take.digest and take.folder.original.exists():
        take.digest = digest_of(take.folder.original)
    _touch(take, "state", "attempts", "problem", "digest")
    command = [sys.executable, "-m", "kitecore.media.ingest", str(take.folder.path)]
    with subprocess.Popen(
        command, stdout=subprocess.PIPE, cwd=settings.BASE_DIR, text=True, errors="replace"
    ) as process:
        assert process.stdout is not None
        for line in process.stdout:
            _heard(take, line)
    if take.problem is None and process.returncode != 0:
        log.warning("ingest of %s ended with %s", take.id, process.returncode)
        _refuse(take, Problem.of(BrokenMedia("The file cannot be decoded.")).model_dump())


def _heard(take: Take, line: str) -> None:
    try:
        told: dict[str, Any] = json.loads(line)
    except ValueError:
        return
    if "refused" in told:
        _refuse(take, told["refused"])
        return
    take.stage = told["stage"]
    begin, end = _STAGES.get(take.stage, (take.share, take.share))
    take.share = begin + (end - begin) * told["share"]
    if take.stage == "known":
        take.facts = json.loads(take.folder.info.model_dump_json())
    if take.stage == "ready":
        take.state, take.share = Take.State.READY, 1.0
    _touch(take, "stage", "share", "facts", "state")


def _refuse(take: Take, problem: dict[str, Any]) -> None:
    take.state, take.problem = Take.State.REFUSED, problem
    _touch(take, "state", "problem")


def _touch(take: Take, *fields: str) -> None:
    take.heartbeat = timezone.now()
    take.save(update_fields=[*fields, "heartbeat"])


@db_periodic_task(crontab(minute="*"))
def tend_takes() -> None:
    """Give takes out again whose worker fell silent."""
    since = timezone.now() - SILENT
    for take in Take.objects.filter(state=Take.State.MAKING, heartbeat__lt=since):
        if take.attempts >= ATTEMPTS:
            _refuse(take, Problem.of(BrokenMedia("The file cannot be decoded.")).model_dump())
        else:
            ingest_take(str(take.id))

"""Handing jobs out, taking them, and what follows from their ends.

The rows are the truth; what goes through Huey only wakes workers, which then take the most urgent.
"""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Mapping
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Count, Exists, F, OuterRef, Q, Subquery
from django.utils import timezone

from kitecore.errors import BadInput, KiteError, RenderFailed
from studio.jobs.kinds import PUT_TOGETHER, Later, Part, job_kinds
from studio.jobs.models import Job, JobQuerySet, State
from studio.jobs.turns import ahead_of
from studio.jobs.waking import wake
from studio.problems import Problem

SILENT = timedelta(seconds=settings.WORKER_SILENCE)
"""Without a sign of life for so long, a worker counts as gone."""

_HERE = "here"
_CANCELLED = BadInput("That was cancelled.", safe="Nothing else is changed.", todo="")


def hand_out(
    owner: User,
    kind: str,
    subject: str,
    *,
    args: Mapping[str, Any] | None = None,
    priority: int | None = None,
    due_at: datetime | None = None,
) -> Job:
    """A new job, as urgent as its kind is or as is said.

    A worker takes it after the transaction, or as soon as it is due.
    """
    job = Job.objects.create(
        owner=owner,
        kind=kind,
        subject=subject,
        args=dict(args or {}),
        priority=job_kinds[kind].priority if priority is None else priority,
        due_at=due_at,
    )
    transaction.on_commit(lambda: wake(_until(due_at)))
    return job


def _until(due_at: datetime | None) -> float:
    return (due_at - timezone.now()).total_seconds() if due_at else 0.0


def split(job: Job, parts: Iterable[Part]) -> None:
    """Hand out the parts of a job, which holds until all are done."""
    with transaction.atomic():
        # Meanwhile it may have been paused, or put first.
        job.refresh_from_db(fields=["paused", "args"])
        made = [_part_of(job, part) for part in parts]
        held = _mine(job).change(state=State.HOLDING, claim=None)
        if held:
            Job.objects.bulk_create(made, batch_size=500)
    for _ in made[:8]:
        wake()


def _part_of(job: Job, part: Part) -> Job:
    return Job(
        owner_id=job.owner_id,
        parent=job,
        kind=part.kind,
        subject=part.subject,
        args=dict(part.args),
        priority=job_kinds[part.kind].priority + ahead_of(job),
        paused=job.paused,
    )


def take(kind: str = "") -> Job | None:
    """The job whose turn it is, now ours; none if there is nothing to do.

    Of one ``kind``, if that is said: for another machine, which takes no worker of this one.

    The most urgent go first; of those that are as urgent, that of the person whose last one was
    begun longest ago: many jobs of one wait for a few of another. There is a worker more than one
    person may have, so that nobody waits for the long works of another to end.
    """
    served = Job.objects.filter(owner=OuterRef("owner"), started_at__isnull=False)
    last = Subquery(served.order_by("-started_at").values("started_at")[:1])
    for _ in range(20):
        turns = _free(kind).annotate(served=last)
        job = turns.order_by("-priority", F("served").asc(nulls_first=True), "made_at").first()
        if job is None:
            return None
        now, claim = timezone.now(), uuid.uuid4()
        taken = (
            _free(kind)
            .filter(pk=job.pk)
            .change(
                state=State.WORKING,
                claim=claim,
                elsewhere=bool(kind),
                heartbeat=now,
                attempts=job.attempts + 1,
                started_at=job.started_at or now,
            )
        )
        if taken:
            job.refresh_from_db()
            return job
    return None


def _free(kind: str = "") -> JobQuerySet:
    """Jobs that wait, whose subject nobody works on and whose owner has a worker to spare.

    Of one ``kind`` for another machine, where nobody's workers are counted.
    """
    working = Job.objects.filter(state=State.WORKING)
    busy = working.filter(kind=OuterRef("kind"), subject=OuterRef("subject"))
    full = (
        working.filter(elsewhere=False)
        .values("owner")
        .annotate(count=Count("pk"))
        .filter(count__gte=settings.JOBS_EACH)
        .values("owner")
    )
    due = Q(due_at=None) | Q(due_at__lte=timezone.now())
    waiting = Job.objects.filter(due, ~Exists(busy), state=State.WAITING, paused=False)
    if kind:
        return waiting.filter(kind=kind).exclude(args__has_key=_HERE)
    return waiting.exclude(owner__in=full)


def _mine(job: Job) -> JobQuerySet:
    """The row of a job, as long as it is ours."""
    return Job.objects.filter(pk=job.pk, claim=job.claim, state=State.WORKING)


def beat(job: Job, **fields: Any) -> bool:
    """A sign of life, and what else is to be noted; false if the job is not ours any more."""
    now = timezone.now()
    if fields:
        return bool(_mine(job).change(heartbeat=now, **fields))
    return bool(_mine(job).update(heartbeat=now))


def finish(job: Job, result: Mapping[str, Any] | None) -> None:
    done = _mine(job).change(
        state=State.DONE,
        claim=None,
        share=1.0,
        result=None if result is None else dict(result),
        finished_at=timezone.now(),
    )
    if done and job.parent_id:
        _release(job.parent_id)


def put_off(job: Job, later: Later) -> None:
    """Let a job of ours wait; that it came back so far shows that no worker dies of it."""
    due_at = timezone.now() + timedelta(seconds=later.seconds)
    waits = {"state": State.WAITING, "claim": None, "attempts": 0, "due_at": due_at}
    if _mine(job).change(**waits, doing=later.doing):
        wake(later.seconds)


def fail(job: Job, error: KiteError) -> None:
    """A job of ours came to nothing, and so does the one that it is part of."""
    if _mine(job).exists():
        _end(job, State.FAILED, error)


def give_back(job: Job, error: KiteError | None = None) -> None:
    """Let another worker try a job of ours; with ``error`` if that was done often enough."""
    if job.attempts >= job_kinds[job.kind].attempts:
        fail(job, error or RenderFailed("This fails again and again.", todo="Try again later."))
    elif _mine(job).change(state=State.WAITING, claim=None):
        wake()


def keep_here(job: Job) -> None:
    """Let a worker of this machine do a job of ours: another machine cannot."""
    kept = {"state": State.WAITING, "claim": None, "args": {**job.args, _HERE: True}}
    if _mine(job).change(**kept):
        wake()


def cancel(job: Job) -> None:
    """Stop a job and its parts.

    Raises
    ------
    BadInput
        If it has ended already.
    """
    if not _end(job, State.CANCELLED, _CANCELLED):
        raise BadInput("That has ended already.")


def _end(job: Job, state: State, error: KiteError) -> bool:
    problem = Problem.of(error).model_dump()
    with transaction.atomic():
        ended = Job.objects.unfinished().filter(pk=job.pk)
        if not ended.change(state=state, claim=None, problem=problem, finished_at=timezone.now()):
            return False
        job.parts.unfinished().change(state=State.CANCELLED, claim=None)
        job_kinds[job.kind].failed(job, problem)
    if job.parent is not None:
        _end(job.parent, State.FAILED, error)
    return True


def try_again(job: Job) -> None:
    """Do a job once more that came to nothing.

    Raises
    ------
    BadInput
        If it is not at its end, or was done.
    """
    ended = Job.objects.filter(pk=job.pk, state__in=(State.FAILED, State.CANCELLED))
    with transaction.atomic():
        if not ended.change(
            state=State.WAITING,
            priority=job_kinds[job.kind].priority,
            attempts=0,
            share=0.0,
            doing="",
            paused=False,
            due_at=None,
            problem=None,
            heartbeat=None,
            started_at=None,
            finished_at=None,
        ):
            raise BadInput("There is nothing to try again.")
        job.parts.all().delete()
        job_kinds[job.kind].again(job)
    wake()


def _release(parent: uuid.UUID) -> None:
    """Let a job go on once all its parts are done."""
    open_parts = Job.objects.filter(parent=OuterRef("pk")).exclude(state=State.DONE)
    held = Job.objects.filter(~Exists(open_parts), pk=parent, state=State.HOLDING)
    if held.change(state=State.WAITING, priority=PUT_TOGETHER, attempts=0):
        wake()


def tend() -> None:
    """Give out again what a worker left behind, and wake somebody for what waits."""
    now = timezone.now()
    # A clock that was set back leaves heartbeats in the future: they are silent as well.
    silent = Q(heartbeat__lt=now - SILENT) | Q(heartbeat__gt=now + SILENT)
    for job in Job.objects.filter(silent, state=State.WORKING):
        give_back(job)
    for job in Job.objects.filter(state=State.HOLDING):
        _release(job.pk)
    if _free().exists():
        wake()

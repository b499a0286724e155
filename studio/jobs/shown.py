"""Jobs as the page sees them."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from django.db.models import Avg
from django.utils import timezone
from ninja import Schema

from studio.jobs.models import Job, State
from studio.jobs.turns import ahead_of
from studio.problems import Problem


class JobOut(Schema):
    """``share`` of it is done, 0..1; ``left`` seconds to go, if that can be told.

    Nobody works on it before ``due_at``. ``remarks`` say what a person should know of what came of it.
    """

    id: UUID
    kind: str
    subject: str
    state: str
    paused: bool
    priority: int
    doing: str
    share: float
    left: float | None
    problem: Problem | None
    due_at: datetime | None
    made_at: datetime
    started_at: datetime | None
    finished_at: datetime | None
    remarks: list[str] = []


_TELLING = 0.03
"""Share that is to be done before the rest can be foretold."""


def job_out(job: Job, share: float | None = None) -> JobOut:
    """A job; ``share`` if whoever asks knows better than the mean of its parts."""
    if share is None:
        share = job.share
        if job.state == State.HOLDING:
            share = job.parts.aggregate(mean=Avg("share"))["mean"] or 0.0
    return JobOut(
        id=job.id,
        kind=job.kind,
        subject=job.subject,
        state=job.state,
        paused=job.paused and job.unfinished,
        priority=job.priority + ahead_of(job),
        doing=job.doing,
        share=share,
        left=_left(job, share),
        problem=job.problem,
        due_at=job.due_at if job.state == State.WAITING else None,
        made_at=job.made_at,
        started_at=job.started_at,
        finished_at=job.finished_at,
        remarks=(job.result or {}).get("remarks", []),
    )


def _left(job: Job, share: float) -> float | None:
    if not job.unfinished or job.paused or job.started_at is None or share < _TELLING:
        return None
    spent = (timezone.now() - job.started_at).total_seconds()
    return spent / share * (1 - share)

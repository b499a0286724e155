"""What a person may say about the order of their own work: stop for now, go on, go first."""

from __future__ import annotations

from django.db import transaction
from django.db.models import Q

from kitecore.errors import BadInput
from studio.jobs.kinds import IN_PARTS, PUT_TOGETHER
from studio.jobs.models import Job
from studio.jobs.waking import wake

_AHEAD = "ahead"


def ahead_of(job: Job) -> int:
    """By how much its parts are more urgent than those of others."""
    return int(job.args.get(_AHEAD, 0))


def _require_unfinished(job: Job) -> None:
    if not job.unfinished:
        raise BadInput("That has ended already.")


def pause(job: Job) -> None:
    """Let no worker take it, or a part of it; what is being worked on is finished.

    Raises
    ------
    BadInput
        If it has ended already.
    """
    _require_unfinished(job)
    Job.objects.unfinished().filter(Q(pk=job.pk) | Q(parent=job)).change(paused=True)


def go_on(job: Job) -> None:
    """The opposite of `pause`."""
    _require_unfinished(job)
    Job.objects.unfinished().filter(Q(pk=job.pk) | Q(parent=job)).change(paused=False)
    wake()


@transaction.atomic
def put_first(job: Job) -> None:
    """Before all else of its kind that this person waits for.

    Raises
    ------
    BadInput
        If it has ended already.
    """
    _require_unfinished(job)
    others = Job.objects.unfinished().filter(owner_id=job.owner_id, kind=job.kind)
    most = max((ahead_of(one) for one in others.exclude(pk=job.pk)), default=0)
    ahead = min(most + 1, PUT_TOGETHER - IN_PARTS - 1)
    Job.objects.filter(pk=job.pk).change(args={**job.args, _AHEAD: ahead})
    job.parts.unfinished().change(priority=IN_PARTS + ahead)
    wake()

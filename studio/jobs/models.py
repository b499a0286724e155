from __future__ import annotations

import uuid
from typing import Any

from django.conf import settings
from django.db import models
from django.utils import timezone


class State(models.TextChoices):
    WAITING = "waiting"
    WORKING = "working"
    HOLDING = "holding"
    """For the jobs that are its parts."""
    DONE = "done"
    FAILED = "failed"
    CANCELLED = "cancelled"


UNFINISHED = (State.WAITING, State.WORKING, State.HOLDING)


class JobQuerySet(models.QuerySet["Job"]):
    def change(self, **fields: Any) -> int:
        """Update and note when, so that pages hear of it; the number of jobs changed."""
        return self.update(changed_at=timezone.now(), **fields)

    def unfinished(self) -> JobQuerySet:
        return self.filter(state__in=UNFINISHED)


class Job(models.Model):
    """Work that takes long, done by a worker: one of `studio.jobs.kinds`, of one subject.

    A worker takes a job by writing its own ``claim`` into it; whatever it notes later counts only
    while that stands. Of one kind and subject only one job is worked on at a time.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="jobs")
    kind = models.CharField(max_length=20)
    subject = models.CharField(max_length=80)
    """What it is about, as its kind names it: a take, a film, the key of a piece."""
    args = models.JSONField(default=dict)
    parent = models.ForeignKey("self", models.CASCADE, null=True, related_name="parts")
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    priority = models.SmallIntegerField(default=0)
    """What has more goes first."""
    paused = models.BooleanField(default=False)
    """No worker takes it, nor any of its parts, until a person lets it go on."""
    due_at = models.DateTimeField(null=True)
    """No worker takes it before."""
    elsewhere = models.BooleanField(default=False)
    """Whether another machine does it, which takes no worker of this one."""
    share = models.FloatField(default=0)
    """Of the work, 0..1."""
    doing = models.CharField(max_length=40, blank=True)
    claim = models.UUIDField(null=True)
    heartbeat = models.DateTimeField(null=True)
    attempts = models.PositiveSmallIntegerField(default=0)
    result = models.JSONField(null=True)
    problem = models.JSONField(null=True)
    made_at = models.DateTimeField(auto_now_add=True)
    started_at = models.DateTimeField(null=True)
    finished_at = models.DateTimeField(null=True)
    changed_at = models.DateTimeField(auto_now=True)

    objects = JobQuerySet.as_manager()

    class Meta:
        ordering = ["made_at"]
        indexes = [
            models.Index(fields=["state", "-priority", "made_at"], name="job_next"),
            models.Index(fields=["kind", "subject"], name="job_subject"),
            models.Index(fields=["owner", "-changed_at"], name="job_changed"),
            models.Index(fields=["owner", "-started_at"], name="job_served"),
        ]

    @property
    def unfinished(self) -> bool:
        return self.state in UNFINISHED

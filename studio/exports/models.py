from __future__ import annotations

import uuid
from pathlib import Path

from django.conf import settings as site
from django.db import models

from kitecore.render.export import ExportSettings


class Export(models.Model):
    """A film being made, or made, from one revision of a project."""

    class State(models.TextChoices):
        WAITING = "waiting"
        WORKING = "working"
        JOINING = "joining"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    UNFINISHED = (State.WAITING, State.WORKING, State.JOINING)

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(site.AUTH_USER_MODEL, models.CASCADE, related_name="exports")
    project = models.ForeignKey("projects.Project", models.CASCADE, related_name="exports")
    revision = models.ForeignKey("projects.Revision", models.CASCADE, related_name="+")
    title = models.CharField(max_length=200)
    settings = models.JSONField()
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    problem = models.JSONField(null=True)
    bytes = models.BigIntegerField(default=0)
    heartbeat = models.DateTimeField(null=True)
    attempts = models.PositiveSmallIntegerField(default=0)
    made_at = models.DateTimeField(auto_now_add=True)
    started_at = models.DateTimeField(null=True)
    finished_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at"]
        indexes = [models.Index(fields=["owner", "project", "-made_at"])]

    @property
    def wanted(self) -> ExportSettings:
        return ExportSettings.model_validate(self.settings)

    @property
    def path(self) -> Path:
        """The finished file."""
        return site.EXPORT_DIR / self.id.hex / f"film.{self.wanted.recipe.suffix}"

    @property
    def filename(self) -> str:
        plain = "".join(c if c.isalnum() or c in " -_" else " " for c in self.title)
        return f"{' '.join(plain.split()) or 'film'}.{self.wanted.recipe.suffix}"


class Piece(models.Model):
    """Some frames of an export, which any worker can make."""

    class State(models.TextChoices):
        WAITING = "waiting"
        WORKING = "working"
        DONE = "done"

    export = models.ForeignKey(Export, models.CASCADE, related_name="pieces")
    first = models.PositiveIntegerField()
    last = models.PositiveIntegerField()
    key = models.CharField(max_length=40)
    state = models.CharField(max_length=8, choices=State, default=State.WAITING)
    done = models.PositiveIntegerField(default=0)
    attempts = models.PositiveSmallIntegerField(default=0)
    heartbeat = models.DateTimeField(null=True)

    class Meta:
        ordering = ["first"]
        unique_together = [("export", "first")]

from __future__ import annotations

import shutil
import uuid
from pathlib import Path
from typing import Any

from django.conf import settings as site
from django.db import models, transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from kitecore.document import Document
from kitecore.render.export import ExportSettings
from kitecore.render.making.work import Work
from studio.jobs.models import State


class Export(models.Model):
    """A film being made, or made, from one revision of a project; its job says how far it is."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(site.AUTH_USER_MODEL, models.CASCADE, related_name="exports")
    project = models.ForeignKey("projects.Project", models.CASCADE, related_name="exports")
    revision = models.ForeignKey("projects.Revision", models.CASCADE, related_name="+")
    job = models.OneToOneField("jobs.Job", models.PROTECT, related_name="+")
    title = models.CharField(max_length=200)
    settings = models.JSONField()
    crf = models.SmallIntegerField(null=True)
    """How coarse its pictures are, where it may only weigh so much."""
    as_take = models.BooleanField(default=False)
    """Whether it is still to go into the library, once it is made."""
    bytes = models.BigIntegerField(default=0)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]
        indexes = [models.Index(fields=["owner", "project", "-made_at"])]

    @property
    def wanted(self) -> ExportSettings:
        return ExportSettings.model_validate(self.settings)

    def work(self, document: Document) -> Work:
        """All that its makers need to know; the document is that of its revision."""
        return self.wanted.work(document, self.crf)

    @property
    def path(self) -> Path:
        """The finished file."""
        return site.EXPORT_DIR / self.id.hex / f"film.{self.wanted.recipe.suffix}"

    @property
    def filename(self) -> str:
        plain = "".join(c if c.isalnum() or c in " -_" else " " for c in self.title)
        return f"{' '.join(plain.split()) or 'film'}.{self.wanted.recipe.suffix}"


@receiver(post_delete, sender=Export)
def take_the_file_along(instance: Export, **_: Any) -> None:
    """A film that is deleted, alone or with its project, leaves neither file nor work behind."""
    instance.job.parts.unfinished().change(state=State.CANCELLED, claim=None)
    instance.job.delete()
    folder = instance.path.parent
    transaction.on_commit(lambda: shutil.rmtree(folder, ignore_errors=True))

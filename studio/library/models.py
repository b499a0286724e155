from __future__ import annotations

import re
import uuid

from django.conf import settings
from django.db import models

from kitecore.media.folder import MediaFolder

_MEDIA_ID = re.compile(r"[0-9a-f]{32}")


class Shelf(models.Model):
    """A named place in a project's library."""

    project = models.ForeignKey("projects.Project", models.CASCADE, related_name="shelves")
    name = models.CharField(max_length=80)

    class Meta:
        ordering = ["name", "id"]
        constraints = [
            models.UniqueConstraint(fields=["project", "name"], name="one_shelf_of_a_name")
        ]


class Take(models.Model):
    """A file that was brought in. Its id names its folder; its name is only shown."""

    class State(models.TextChoices):
        ARRIVING = "arriving"
        WAITING = "waiting"
        MAKING = "making"
        READY = "ready"
        REFUSED = "refused"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="takes")
    project = models.ForeignKey(
        "projects.Project", models.SET_NULL, null=True, related_name="takes"
    )
    name = models.CharField(max_length=200)
    order = models.BigIntegerField(default=0)
    bytes = models.BigIntegerField()
    received = models.BigIntegerField(default=0)
    state = models.CharField(max_length=10, choices=State, default=State.ARRIVING)
    stage = models.CharField(max_length=20, blank=True)
    share = models.FloatField(default=0)
    heartbeat = models.DateTimeField(null=True)
    attempts = models.PositiveSmallIntegerField(default=0)
    facts = models.JSONField(null=True)
    """`kitecore.media.info.MediaInfo`, as soon as it is known."""
    problem = models.JSONField(null=True)
    mark_in = models.BigIntegerField(null=True)
    mark_out = models.BigIntegerField(null=True)
    ranges = models.JSONField(default=list)
    """Marked parts that were kept: ``{"name", "mark_in", "mark_out"}``, ticks of the file."""
    shelf = models.ForeignKey(Shelf, models.SET_NULL, null=True, related_name="takes")
    stars = models.PositiveSmallIntegerField(default=0)
    tag = models.CharField(max_length=10, blank=True)
    digest = models.CharField(max_length=64, blank=True)
    """BLAKE2b of the file, by which it is known again when it was lost."""
    replaces = models.ForeignKey("self", models.CASCADE, null=True, related_name="+")
    """For an upload: the take whose missing file this is said to be."""
    removed = models.BooleanField(default=False)
    """Not shown any more; its file stays, since older versions of projects may use it."""
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["order", "made_at"]
        indexes = [models.Index(fields=["owner", "project", "order"])]

    @property
    def folder(self) -> MediaFolder:
        return folder_of(self.id.hex)


def count_own(owner_id: int, media: frozenset[str]) -> int:
    """How many of these media ids are takes of this person."""
    ids = [uuid.UUID(one) for one in media if _MEDIA_ID.fullmatch(one)]
    return Take.objects.filter(owner=owner_id, pk__in=ids).count()


def folder_of(media: str) -> MediaFolder:
    """The folder of a take by its id as it stands in documents."""
    return MediaFolder(settings.MEDIA_DIR / uuid.UUID(media).hex)

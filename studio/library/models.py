from __future__ import annotations

import re
import shutil
import uuid
from typing import Any

from django.conf import settings
from django.db import models, transaction
from django.db.models.signals import post_delete, pre_delete
from django.dispatch import receiver

from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from studio.accounts.allowances import allowed_to
from studio.projects.models import Project

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
        """Whole, and being taken in."""
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
    job = models.OneToOneField("jobs.Job", models.SET_NULL, null=True, related_name="+")
    """The work of taking it in."""
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
    upload_key = models.CharField(max_length=80, blank=True)
    """What the page calls its upload, so that one announced twice is the same."""
    replaces = models.ForeignKey("self", models.CASCADE, null=True, related_name="+")
    """For an upload: the take whose missing file this is said to be."""
    archive = models.BooleanField(default=False)
    """A project with its takes, which is unpacked and goes."""
    removed = models.BooleanField(default=False)
    """Not shown any more; its file stays, since older versions of projects may use it."""
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["order", "made_at"]
        indexes = [models.Index(fields=["owner", "project", "order"])]
        constraints = [
            models.UniqueConstraint(
                fields=["owner", "upload_key"],
                condition=~models.Q(upload_key=""),
                name="one_take_of_an_upload",
            )
        ]

    @property
    def folder(self) -> MediaFolder:
        return folder_of(self.id.hex)


def bytes_of(owner_id: int) -> int:
    """Bytes of all takes in a person's library."""
    held = Take.objects.filter(owner=owner_id, removed=False).aggregate(sum=models.Sum("bytes"))
    return int(held["sum"] or 0)


def require_room(owner_id: int, length: int) -> None:
    """Raises `BadInput` if a person's library has no room for so many more bytes."""
    if bytes_of(owner_id) + length > allowed_to(owner_id).library:
        raise BadInput("Your library is full.", todo="Remove takes that you do not need.")


def may_use_takes(owner_id: int, media: frozenset[str]) -> bool:
    """Whether all these media ids are takes of this person."""
    ids = [uuid.UUID(one) for one in media if _MEDIA_ID.fullmatch(one)]
    return Take.objects.filter(owner=owner_id, pk__in=ids).count() == len(media)


def folder_of(media: str) -> MediaFolder:
    """The folder of a take by its id as it stands in documents."""
    return MediaFolder(settings.MEDIA_DIR / uuid.UUID(media).hex)


@receiver(pre_delete, sender="projects.Project")
def find_takes_a_home(instance: Any, **_: Any) -> None:
    """Takes of a project that goes stay with another that uses them; the rest goes with it."""
    others = Project.objects.filter(owner=instance.owner_id).exclude(pk=instance.pk)
    for take in Take.objects.filter(project=instance.pk):
        # Revisions of before facts were kept may use any of them.
        uses = models.Q(revisions__facts__uses__has_key=take.id.hex)
        user = others.filter(uses | models.Q(revisions__facts=None)).first()
        if user is not None:
            Take.objects.filter(pk=take.pk).update(project=user)
        else:
            take.delete()


@receiver(post_delete, sender=Take)
def take_the_files_along(instance: Take, **_: Any) -> None:
    folder = instance.folder.path
    transaction.on_commit(lambda: shutil.rmtree(folder, ignore_errors=True))

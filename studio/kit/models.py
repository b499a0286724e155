"""Things saved for use in any project."""

from __future__ import annotations

import uuid
from typing import Any

from django.conf import settings
from django.db import models, transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from kitecore.colour.looks import LOOKS, SHIPPED, LookFolder
from kitecore.fonts import FONTS, SHIPPED_FONTS, FontFolder


class Look(models.Model):
    """A table of colours that was brought in. Its id names its file; its name is only shown."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="looks")
    name = models.CharField(max_length=200)
    removed = models.BooleanField(default=False)
    """Not offered any more; its file stays, since projects may use it."""
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "made_at"]


class Font(models.Model):
    """A font that was brought in. Its id names its file; its name is only shown."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="fonts")
    name = models.CharField(max_length=200)
    removed = models.BooleanField(default=False)
    """Not offered any more; its file stays, since projects may use it."""
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "made_at"]


class Preset(models.Model):
    """Settings under a name. ``kind`` says of what; ``content`` is that, as in a document."""

    class Kind(models.TextChoices):
        GRADE = "grade"
        EFFECTS = "effects"
        ELEMENT = "element"
        MOTION = "motion"
        CHAIN = "chain"
        PLACE = "place"

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="presets")
    kind = models.CharField(max_length=20, choices=Kind)
    name = models.CharField(max_length=200)
    content = models.JSONField()
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "id"]


def look_folder() -> LookFolder:
    """Where looks that were brought in lie."""
    return LookFolder(settings.MEDIA_DIR / LOOKS)


def font_folder() -> FontFolder:
    """Where fonts that were brought in lie."""
    return FontFolder(settings.MEDIA_DIR / FONTS)


def may_use_looks(owner_id: int, names: frozenset[str]) -> bool:
    """Whether all these looks are ours or were brought in by this person."""
    return _are_own(Look.objects.filter(owner=owner_id), names - set(SHIPPED))


def may_use_fonts(owner_id: int, names: frozenset[str]) -> bool:
    """Whether all these fonts are ours or were brought in by this person."""
    return _are_own(Font.objects.filter(owner=owner_id), names - set(SHIPPED_FONTS))


def _are_own(rows: models.QuerySet[Look] | models.QuerySet[Font], names: frozenset[str]) -> bool:
    return not names or names <= {id.hex for id in rows.values_list("id", flat=True)}


@receiver(post_delete, sender=Look)
def take_the_table_along(instance: Look, **_: Any) -> None:
    path = look_folder().file(instance.id.hex)
    transaction.on_commit(lambda: path.unlink(missing_ok=True))


@receiver(post_delete, sender=Font)
def take_the_font_along(instance: Font, **_: Any) -> None:
    path = font_folder().file(instance.id.hex)
    transaction.on_commit(lambda: path.unlink(missing_ok=True))

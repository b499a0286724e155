"""Members, what they send, and what becomes of it."""

from __future__ import annotations

import hashlib
import secrets
import shutil
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any, Final

from django.conf import settings
from django.db import models, transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

PART_BYTES: Final = 256 * 2**10
"""Of an upload; small, since lines are bad."""


def digest_of(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()


class Member(models.Model):
    """Somebody who publishes here, known by a key of which only the digest is kept."""

    name = models.CharField(max_length=40)
    key_digest = models.CharField(max_length=64, unique=True)
    line = models.JSONField(default=dict)
    """Faults of the line between this member and us: every how many calls each happens."""
    calls = models.PositiveIntegerField(default=0)
    made_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.name

    @classmethod
    def welcome(cls, name: str) -> tuple[Member, str]:
        """A new member, and the key that is told once."""
        key = secrets.token_urlsafe(24)
        return cls.objects.create(name=name, key_digest=digest_of(key)), key


class Upload(models.Model):
    """A file that arrives in parts, under a name that its sender chose."""

    member = models.ForeignKey(Member, models.CASCADE, related_name="uploads")
    name = models.UUIDField()
    bytes = models.PositiveBigIntegerField()
    sha256 = models.CharField(max_length=64)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["member", "name"], name="upload_once")]

    @property
    def folder(self) -> Path:
        return Path(settings.PRACTICE_DIR) / f"{self.member_id}-{self.name.hex}"

    @property
    def film(self) -> Path:
        return self.folder / "film"

    @property
    def cover(self) -> Path:
        return self.folder / "cover.jpg"

    @property
    def count(self) -> int:
        """Parts that it has."""
        return -(-self.bytes // PART_BYTES)

    def part(self, number: int) -> Path:
        return self.folder / f"part-{number}"

    def size_of(self, number: int) -> int:
        return min(PART_BYTES, self.bytes - number * PART_BYTES)

    def have(self) -> list[int]:
        """Parts that are here."""
        if self.film.exists():
            return list(range(self.count))
        return [number for number in range(self.count) if self.part(number).exists()]


class Post(models.Model):
    """A film with its words: looked at for a while, then to be seen by all, or refused."""

    class State(models.TextChoices):
        WAITING = "waiting"
        """For the moment that its sender chose."""
        LOOKED_AT = "looked-at"
        LIVE = "live"
        REFUSED = "refused"

    member = models.ForeignKey(Member, models.CASCADE, related_name="posts")
    upload = models.ForeignKey(Upload, models.CASCADE, related_name="posts")
    name = models.UUIDField()
    title = models.CharField(max_length=200, blank=True)
    caption = models.TextField(blank=True)
    tags = models.JSONField(default=list)
    cover_at = models.FloatField(default=0)
    """Seconds from its start."""
    shown_at = models.DateTimeField(null=True)
    """When it is to be seen, if not at once."""
    state = models.CharField(max_length=10, choices=State, default=State.LOOKED_AT)
    ready_at = models.DateTimeField()
    """When it has been looked at."""
    live_at = models.DateTimeField(null=True)
    reasons = models.JSONField(default=list)
    facts = models.JSONField(default=dict)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]
        constraints = [models.UniqueConstraint(fields=["member", "name"], name="post_once")]

    def __str__(self) -> str:
        return self.title


@receiver(post_delete, sender=Upload)
def take_the_files_along(instance: Upload, **_: Any) -> None:
    folder = instance.folder
    transaction.on_commit(lambda: shutil.rmtree(folder, ignore_errors=True))


@receiver(post_delete, sender=Post)
def let_the_film_go(instance: Post, **_: Any) -> None:
    """A film that no post shows any more is not kept."""
    if not Post.objects.filter(upload_id=instance.upload_id).exists():
        Upload.objects.filter(pk=instance.upload_id).delete()


def counts_at(post: Post, now: datetime) -> dict[str, int]:
    """How often a post was seen and liked: grows fast, then slowly, by its name."""
    if post.live_at is None or now <= post.live_at:
        return {"seen": 0, "liked": 0}
    minutes = (now - post.live_at) / timedelta(minutes=1)
    fame = 200 + post.name.int % 4800
    seen = round(fame * minutes / (minutes + 20))
    return {"seen": seen, "liked": seen * (5 + post.name.int % 11) // 100}

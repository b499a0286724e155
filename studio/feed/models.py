"""The key to the practice feed, and what is posted there."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models

from studio.exports.models import Export


class Connection(models.Model):
    """A person's account at the practice feed."""

    owner = models.OneToOneField(settings.AUTH_USER_MODEL, models.CASCADE, related_name="feed")
    name = models.CharField(max_length=40)
    """What they are called there."""
    sealed = models.TextField()
    """Their key; see `studio.feed.sealing`."""
    made_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.name


class There(models.TextChoices):
    """What is known of a post at the feed."""

    NOTHING = ""
    LOOKED_AT = "looked-at"
    WAITING = "waiting"
    LIVE = "live"
    REFUSED = "refused"
    GONE = "gone"


class Post(models.Model):
    """A film that is to be seen at the practice feed; its job brings it there, or takes it down.

    ``name`` is what it is called there. It is chosen here, so that a post that is sent again because
    an answer was lost is the same post.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="posts")
    project = models.ForeignKey("projects.Project", models.CASCADE, related_name="posts")
    film = models.ForeignKey(Export, models.SET_NULL, null=True, related_name="posts")
    job = models.ForeignKey("jobs.Job", models.PROTECT, related_name="+")
    name = models.UUIDField(default=uuid.uuid4)
    title = models.CharField(max_length=200)
    caption = models.TextField(blank=True)
    tags = models.JSONField(default=list)
    cover_at = models.FloatField(default=0)
    """Seconds from the start of the film."""
    shown_at = models.DateTimeField(null=True)
    """When it is to be seen, if not at once."""
    wanted = models.BooleanField(default=True)
    """Whether it is to be there, or to be taken down."""
    told = models.BooleanField(default=False)
    """Whether the feed may know of it."""
    there = models.CharField(max_length=10, choices=There, default=There.NOTHING, blank=True)
    reasons = models.JSONField(default=list)
    """Why it was refused."""
    path = models.CharField(max_length=200, blank=True)
    """Of its page."""
    seen = models.PositiveIntegerField(default=0)
    liked = models.PositiveIntegerField(default=0)
    tries = models.PositiveSmallIntegerField(default=0)
    """Since something last succeeded."""
    trouble = models.CharField(max_length=200, blank=True)
    """Why it waits to be tried again."""
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return self.title

"""Who may make an account, and where somebody is signed in."""

from __future__ import annotations

import secrets
from datetime import datetime, timedelta
from typing import Final

from django.conf import settings
from django.db import models
from django.utils import timezone

LASTS: Final = timedelta(days=14)


def new_code() -> str:
    return secrets.token_urlsafe(18)


def two_weeks_on() -> datetime:
    return timezone.now() + LASTS


class Invitation(models.Model):
    """Lets one person make an account, once, for two weeks."""

    code = models.CharField(max_length=40, unique=True, default=new_code)
    made_at = models.DateTimeField(auto_now_add=True)
    ends_at = models.DateTimeField(default=two_weeks_on)
    used_by = models.OneToOneField(settings.AUTH_USER_MODEL, models.CASCADE, null=True)

    def __str__(self) -> str:
        return self.code

    @property
    def stands(self) -> bool:
        return self.used_by_id is None and timezone.now() < self.ends_at


class Device(models.Model):
    """A browser in which a person is signed in."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="devices")
    session = models.CharField(max_length=40, unique=True)
    browser = models.CharField(max_length=200, blank=True)
    """What it calls itself."""
    made_at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-seen_at"]


class Allowance(models.Model):
    """What one person may have, where it differs from what everybody may."""

    owner = models.OneToOneField(settings.AUTH_USER_MODEL, models.CASCADE)
    library_gb = models.PositiveIntegerField(null=True, blank=True)
    projects = models.PositiveIntegerField(null=True, blank=True)
    unfinished_films = models.PositiveIntegerField(null=True, blank=True)

    def __str__(self) -> str:
        return f"What {self.owner} may have"

"""Where people are signed in: noted when they sign in and come back, ended one by one or all."""

from __future__ import annotations

from datetime import timedelta
from importlib import import_module
from typing import Any, Final

from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.auth.signals import user_logged_in, user_logged_out
from django.dispatch import receiver
from django.http import HttpRequest
from django.utils import timezone

from studio.accounts.models import Device

_AGAIN: Final = timedelta(minutes=10)
"""How often it is noted that a device is in use."""


@receiver(user_logged_in)
def note_device(request: HttpRequest, user: User, **_: Any) -> None:
    if request.session.session_key is None:
        request.session.create()
    _noted(request, user)


@receiver(user_logged_out)
def forget_device(request: HttpRequest, **_: Any) -> None:
    Device.objects.filter(session=request.session.session_key or "").delete()


def seen(request: HttpRequest) -> None:
    """A signed-in device shows itself; those of before devices were noted are noted now."""
    key = request.session.session_key or ""
    known = Device.objects.filter(session=key).first()
    if known is None or timezone.now() - known.seen_at > _AGAIN:
        _noted(request, request.user)


def _noted(request: HttpRequest, user: Any) -> None:
    Device.objects.update_or_create(
        session=request.session.session_key or "",
        defaults={"owner": user, "browser": request.headers.get("User-Agent", "")[:200]},
    )


def sign_out(device: Device) -> None:
    """End the session of a device."""
    _sessions()(device.session).delete()
    device.delete()


def living(user: User) -> list[Device]:
    """The devices of a person whose sessions go on; the rest is forgotten."""
    found = []
    for device in Device.objects.filter(owner=user):
        if _sessions()().exists(device.session):
            found.append(device)
        else:
            device.delete()
    return found


def _sessions() -> Any:
    return import_module(settings.SESSION_ENGINE).SessionStore

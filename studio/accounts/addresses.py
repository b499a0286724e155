"""Where a request comes from."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest


def address_of(request: HttpRequest) -> str:
    """The address of the other side; behind a proxy of ours, what that proxy saw.

    Of ``X-Forwarded-For`` only the last entry is the proxy's own: those before it anybody can send.
    """
    told = request.META.get("HTTP_X_FORWARDED_FOR", "") if settings.BEHIND_PROXY else ""
    return told.rpartition(",")[2].strip() or str(request.META.get("REMOTE_ADDR", ""))

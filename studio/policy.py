"""What every answer says of itself: what the page may load, and who may keep a copy."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from asgiref.sync import iscoroutinefunction, markcoroutinefunction
from django.http import HttpRequest, HttpResponse
from django.utils.decorators import sync_and_async_middleware

Answering = Callable[[HttpRequest], Any]

POLICY = "; ".join(
    [
        "default-src 'self'",
        "img-src 'self' blob: data:",
        "media-src 'self' blob:",
        "style-src 'self' 'unsafe-inline'",
        "frame-ancestors 'none'",
        "base-uri 'none'",
        "form-action 'self'",
    ]
)


@sync_and_async_middleware
def content_policy(get_response: Answering) -> Answering:
    """The page, and whatever else is opened on its own, loads from ourselves only.

    It stands around all that answers, files that are served as they are included.
    """
    return _told(get_response, _with_policy)


@sync_and_async_middleware
def private_answers(get_response: Answering) -> Answering:
    """Answers of the API are one person's: no cache in between keeps them, nor the browser unasked."""
    return _told(get_response, _kept_private)


def _with_policy(request: HttpRequest, response: HttpResponse) -> None:
    response.headers.setdefault("Content-Security-Policy", POLICY)


def _kept_private(request: HttpRequest, response: HttpResponse) -> None:
    if request.path.startswith("/api/"):
        response.headers.setdefault("Cache-Control", "private, no-store")


def _told(get_response: Answering, tell: Callable[[HttpRequest, HttpResponse], None]) -> Answering:
    """A middleware that tells something with every answer, on either kind of server."""
    if iscoroutinefunction(get_response):

        async def later(request: HttpRequest) -> HttpResponse:
            response: HttpResponse = await get_response(request)
            tell(request, response)
            return response

        return markcoroutinefunction(later)

    def at_once(request: HttpRequest) -> HttpResponse:
        response: HttpResponse = get_response(request)
        tell(request, response)
        return response

    return at_once

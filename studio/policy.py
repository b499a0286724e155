"""What every answer says of itself: what the page may load, and who may keep a copy."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

Answering = Callable[[HttpRequest], HttpResponse]

POLICY = "; ".join(
    [
        "default-src 'self'",
        "img-src 'self' blob: data:",
        "media-src 'self' blob:",
        "style-src 'self' 'unsafe-inline'",
        "worker-src 'self'",
        "manifest-src 'self'",
        "frame-ancestors 'none'",
        "base-uri 'none'",
        "form-action 'self'",
    ]
)


def content_policy(get_response: Answering) -> Answering:
    """The page, and whatever else is opened on its own, loads from ourselves only.

    It stands around all that answers, files that are served as they are included.
    """

    def answer(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        return response

    return answer


def private_answers(get_response: Answering) -> Answering:
    """Answers of the API are one person's: no cache in between keeps them, nor the browser unasked."""

    def answer(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "private, no-store")
        return response

    return answer

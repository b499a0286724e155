"""What a page of ours may load: only from ourselves."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

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


class ContentPolicy:
    """Middleware that adds the policy to every answer."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        return response

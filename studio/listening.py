"""The server of the site: ``python -m studio.listening --port 8000``.

Requests are taken in, headers and bodies, before a thread is spent on them, so lines that stall cost
nothing but their place; and a body is refused by what its headers say, before any of it is kept.
"""

from __future__ import annotations

import argparse
import copy
import os
import re
import resource
from typing import Any, Final

from django.conf import settings
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.server import BaseWSGIServer, create_server

MB: Final = 2**20
LIMITS: Final = [
    (re.compile(pattern), limit)
    for pattern, limit in (
        (r"/api/uploads/", 64 * MB),
        (r"/practice/api/uploads/", MB // 2),
        (r"/api/projects/[^/]+/timeline$", 9 * MB),
        (r"/api/kit/looks$", 81 * MB),
        (r"/api/kit/fonts$", 25 * MB),
        (r"/api/kit/(drawing|presets)$", 9 * MB),
        (r"/api/(projects|takes)/.+/(edits|still)$", 9 * MB),
    )
]
"""Bytes of a body by what its address begins with; all others are forms."""
FORM: Final = MB
STRANGER: Final = 64 * 2**10
"""Of somebody who shows no session: a name and a password."""

THREADS: Final = 96
LINES: Final = 4000
"""Open connections. Each that goes on or waits holds a place, and no thread."""
IDLE: Final = 60
"""Seconds after which a line on which nothing moves is closed."""


def limit_of(path: str, cookies: str) -> int:
    """Bytes that a body may have."""
    if settings.SESSION_COOKIE_NAME not in cookies and not path.startswith("/practice/api/"):
        return STRANGER
    return next((limit for pattern, limit in LIMITS if pattern.match(path)), FORM)


class BoundedParser(HTTPRequestParser):
    """Knows, as soon as the headers are there, how large the body may be."""

    def parse_header(self, header_plus: bytes) -> None:
        super().parse_header(header_plus)
        cookies = self.headers.get("COOKIE", "")
        self.adj = copy.copy(self.adj)
        self.adj.max_request_body_size = limit_of(self.path, cookies) + 1


class BoundedChannel(HTTPChannel):
    parser_class = BoundedParser


def listen(host: str, port: int) -> None:
    """Serve the site until interrupted."""
    from studio.wsgi import application

    _raise_limit_of_files(LINES + 500)
    behind: dict[str, Any] = {}
    if settings.BEHIND_PROXY:
        told = {"x-forwarded-for", "x-forwarded-proto"}
        behind = {"trusted_proxy": "*", "trusted_proxy_headers": told}
    BaseWSGIServer.channel_class = BoundedChannel
    server = create_server(
        application,
        host=host,
        port=port,
        threads=THREADS,
        connection_limit=LINES,
        channel_timeout=IDLE,
        cleanup_interval=5,
        asyncore_use_poll=True,
        max_request_header_size=32 * 2**10,
        ident=None,
        **behind,
    )
    server.run()


def _raise_limit_of_files(wanted: int) -> None:
    _, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    most = wanted if hard == resource.RLIM_INFINITY else min(wanted, hard)
    resource.setrlimit(resource.RLIMIT_NOFILE, (most, hard))


if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")
    parser = argparse.ArgumentParser()
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--port", type=int, default=8000)
    given = parser.parse_args()
    listen(given.host, given.port)

"""Processes that draw, as they are started: with nothing loaded but what that takes, so that one can
load its own while the site still does.
"""

from __future__ import annotations

import socket
import subprocess
import sys
from contextlib import suppress
from multiprocessing.connection import Connection
from pathlib import Path

from django.conf import settings

Drawer = tuple["subprocess.Popen[bytes]", Connection]

_early: list[Drawer] = []


def start_early() -> None:
    """One for the takes of this site, for whoever asks for one first."""
    _early.append(_start(settings.MEDIA_DIR))


def started(media: Path) -> Drawer:
    """A process and the line to it; it ends when that is closed."""
    if media == settings.MEDIA_DIR:
        # Two may ask at once; the later of them finds none.
        with suppress(IndexError):
            return _early.pop()
    return _start(media)


def _start(media: Path) -> Drawer:
    ours, theirs = socket.socketpair()
    process = subprocess.Popen(
        [sys.executable, "-m", "kitecore.render", str(theirs.fileno()), str(media)],
        pass_fds=[theirs.fileno()],
        cwd=settings.BASE_DIR,
    )
    theirs.close()
    return process, Connection(ours.detach())

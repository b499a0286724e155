"""Running the programs of the core that work on people's files (see `kitecore.programs`)."""

from __future__ import annotations

import json
import logging
import os
import selectors
import signal
import subprocess
import sys
from collections.abc import Callable, Iterator, Sequence
from typing import Any

from django.conf import settings

from kitecore.errors import BrokenMedia, KiteError

log = logging.getLogger(__name__)

Heard = Callable[[str, float], None]

_LISTEN = 1.0
"""Seconds after which a program that says nothing is asked about all the same."""
_FROM_OUTSIDE = (-signal.SIGKILL, -signal.SIGTERM, -signal.SIGINT, -signal.SIGHUP)


class Refused(KiteError):
    """What a program refused its file for, in its own words."""

    def __init__(self, told: dict[str, str]) -> None:
        super().__init__(told["message"], safe=told["safe"], todo=told["todo"])
        self.code = told["code"]


class Interrupted(KiteError):
    """A program was ended from outside, which says nothing about its file."""

    code = "interrupted"
    default_todo = "Try again."


def run_program(module: str, arguments: Sequence[str], heard: Heard) -> None:
    """Run a program to its end; ``heard`` gets what it does and its share, and may raise to end it.

    While the program says nothing ``heard`` is asked every second, with an empty word.

    Raises
    ------
    Refused
        What the program said against its file.
    Interrupted
        If somebody ended it.
    BrokenMedia
        If it crashed, or went beyond its limits.
    """
    command = [sys.executable, "-m", module, *arguments]
    with subprocess.Popen(command, stdout=subprocess.PIPE, cwd=settings.BASE_DIR) as process:
        try:
            assert process.stdout is not None
            share = 0.0
            for line in _lines(process.stdout.fileno()):
                told = _told(line)
                if "refused" in told:
                    raise Refused(told["refused"])
                share = told.get("share", share)
                heard(told.get("doing", ""), share)
        except BaseException:
            process.kill()
            raise
    if process.returncode in _FROM_OUTSIDE:
        raise Interrupted("The work on this file was interrupted.")
    if process.returncode != 0:
        log.warning("%s ended with %s", module, process.returncode)
        raise BrokenMedia("The file cannot be decoded.")


def _lines(handle: int) -> Iterator[bytes]:
    """Lines as they come, and empty ones while none do."""
    rest = b""
    with selectors.DefaultSelector() as selector:
        selector.register(handle, selectors.EVENT_READ)
        while True:
            if not selector.select(_LISTEN):
                yield b""
                continue
            data = os.read(handle, 1 << 16)
            if not data:
                return
            *lines, rest = (rest + data).split(b"\n")
            yield from lines


def _told(line: bytes) -> dict[str, Any]:
    try:
        told = json.loads(line)
    except ValueError:
        return {}
    return told if isinstance(told, dict) else {}

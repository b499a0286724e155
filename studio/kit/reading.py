"""Files for the Kit, read outside of the web process."""

from __future__ import annotations

import json
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory
from threading import BoundedSemaphore
from time import monotonic
from typing import Any, Final

from django.core.files.uploadedfile import UploadedFile

from kitecore.errors import BadInput, BrokenMedia, TookTooLong
from kitecore.exchange.reading import GIVEN, OPTIONS, READ
from studio.jobs.programs import Interrupted, Refused, run_program

LONGEST: Final = 90.0
"""Seconds, however busy the machine is; what a file may ask for is bounded by the processor's clock."""
PATIENCE: Final = 30.0
_at_once = BoundedSemaphore(2)


class TooMuch(BadInput):
    code = "too_much"
    default_todo = "Choose a simpler file."


def read_apart(what: str, file: UploadedFile, most: int, **options: Any) -> str:
    """What a file of a person is read as (see `kitecore.exchange.reading`).

    Parameters
    ----------
    most
        Bytes that it may have.

    Raises
    ------
    BadInput
        With the reason that reading gave, or if it takes too much time or memory.
    TookTooLong
        If others are read all the while.
    """
    if (file.size or 0) > most:
        raise TooMuch(f"This file is larger than {most // 2**20} MB.")
    with _turn(), TemporaryDirectory() as name:
        folder = Path(name)
        with (folder / GIVEN).open("wb") as given:
            for chunk in file.chunks():
                given.write(chunk)
        (folder / OPTIONS).write_text(json.dumps(options))
        _run(what, folder)
        return (folder / READ).read_text()


def _run(what: str, folder: Path) -> None:
    end = monotonic() + LONGEST

    def heard(doing: str, share: float) -> None:
        if monotonic() > end:
            raise TooMuch("This file takes too long to read.")

    try:
        run_program("kitecore.exchange", [what, str(folder)], heard)
    except Refused as refused:
        told = BadInput(refused.message, safe=refused.safe, todo=refused.todo)
        told.code = refused.code
        raise told from refused
    except (BrokenMedia, Interrupted) as error:
        raise TooMuch("This file takes too much time or memory to read.") from error


@contextmanager
def _turn() -> Iterator[None]:
    if not _at_once.acquire(timeout=PATIENCE):
        raise TookTooLong("Other files are being read.", todo="Try again in a moment.")
    try:
        yield
    finally:
        _at_once.release()

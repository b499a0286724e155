"""What goes wrong with the machine rather than with a request, as plain answers: room, locks, rights."""

from __future__ import annotations

import errno
import sqlite3
import sys
from typing import Final

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse, JsonResponse

from studio.problems import Problem

_KEPT: Final = "What was kept before is safe; your step is not lost on this page."

NO_ROOM: Final = Problem(
    code="no_room",
    message="The disk of this site is full.",
    safe=_KEPT,
    todo="Try again when there is room; tell whoever runs this site.",
)
NOT_WRITABLE: Final = Problem(
    code="not_writable",
    message="This site cannot write to its folder.",
    safe=_KEPT,
    todo="Tell whoever runs this site; then try again.",
)
BUSY: Final = Problem(
    code="busy",
    message="The site is busy.",
    safe=_KEPT,
    todo="Try again in a moment.",
)
UNEXPECTED: Final = Problem(
    code="unexpected",
    message="Something went wrong here.",
    safe=_KEPT,
    todo="Try it again; if it happens again, tell whoever runs this site.",
)

_BY_NUMBER: Final[dict[int, tuple[Problem, int]]] = {
    errno.ENOSPC: (NO_ROOM, 507),
    errno.EDQUOT: (NO_ROOM, 507),
    errno.EROFS: (NOT_WRITABLE, 507),
    errno.EACCES: (NOT_WRITABLE, 507),
    errno.EMFILE: (BUSY, 503),
    errno.ENFILE: (BUSY, 503),
}
_BY_SQLITE: Final[dict[int, tuple[Problem, int]]] = {
    sqlite3.SQLITE_FULL: (NO_ROOM, 507),
    sqlite3.SQLITE_IOERR: (NO_ROOM, 507),
    sqlite3.SQLITE_READONLY: (NOT_WRITABLE, 507),
    sqlite3.SQLITE_CANTOPEN: (NOT_WRITABLE, 507),
    sqlite3.SQLITE_BUSY: (BUSY, 503),
    sqlite3.SQLITE_LOCKED: (BUSY, 503),
}


def failure_of(error: BaseException | None) -> tuple[Problem, int] | None:
    """The answer and status to a failure of the machine; nothing if it is a fault of ours."""
    if isinstance(error, DatabaseError):
        # The lower byte is the kind; the rest says more of it.
        return _BY_SQLITE.get(getattr(error.__cause__, "sqlite_errorcode", 0) & 0xFF)
    if isinstance(error, OSError):
        return _BY_NUMBER.get(error.errno or 0)
    return None


def answer_failure(request: HttpRequest) -> HttpResponse:
    """Django's ``handler500``: called while the error is being handled."""
    problem, status = failure_of(sys.exc_info()[1]) or (UNEXPECTED, 500)
    headers = {"Retry-After": "5"} if status == 503 else {}
    return JsonResponse(problem.model_dump(), status=status, headers=headers)

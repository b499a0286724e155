"""Files of ours as answers."""

from __future__ import annotations

import re
import shutil
from pathlib import Path
from typing import Final

from django.http import FileResponse, HttpRequest, HttpResponse

from kitecore.errors import MachineFailed
from kitecore.media.soundcopy import RESERVE

KEPT = "private, max-age=86400"
"""Kept by the browser of whoever is signed in, by nobody else."""


def kept_answer(content: bytes, kind: str) -> HttpResponse:
    """What never changes, and so is asked for once."""
    response = HttpResponse(content, content_type=kind)
    response["Cache-Control"] = f"{KEPT}, immutable"
    return response


def shown_file(path: Path, kind: str) -> FileResponse:
    """A file for the page to show, without a name under which it could be saved."""
    response = FileResponse(path.open("rb"), content_type=kind)
    del response["Content-Disposition"]
    response["Cache-Control"] = f"{KEPT}, immutable"
    return response


_ODD: Final = re.compile(r"[^\w .()-]+")
_RANGE: Final = re.compile(r"bytes=(\d+)-(\d*)")


def plain_name(name: str, id: str) -> str:
    """A name for a file in an archive that any file system takes, and no two have."""
    stem, dot, suffix = name.rpartition(".")
    plain = _ODD.sub("_", stem or suffix).strip(" .")[:80] or "unnamed"
    ending = f".{_ODD.sub('_', suffix)[:8]}" if dot and stem else ""
    return f"{plain}-{id[:8]}{ending}"


def require_free(folder: Path, bytes: int) -> None:
    """Raises `MachineFailed` unless so much more can be written."""
    folder.mkdir(parents=True, exist_ok=True)
    if shutil.disk_usage(folder).free < bytes + RESERVE:
        raise MachineFailed("There is no room for the archive.", todo="Ask whoever runs this site.")


class _Rest:
    """A file from one byte on, as an answer reads it."""

    def __init__(self, path: Path, first: int) -> None:
        self._file = path.open("rb")
        self._file.seek(first)
        self.read = self._file.read
        self.close = self._file.close


def download(request: HttpRequest, path: Path, name: str, kind: str | None = None) -> FileResponse:
    """A file to be saved; one that was cut off goes on from a byte (RFC 9110, 14).

    Without a ``kind`` it is what its name says.
    """
    size = path.stat().st_size
    asked = _RANGE.fullmatch(request.headers.get("Range", ""))
    first = int(asked[1]) if asked and not asked[2] and int(asked[1]) < size else 0
    answer = FileResponse(_Rest(path, first), as_attachment=True, filename=name, content_type=kind)
    answer["Accept-Ranges"] = "bytes"
    answer["Content-Length"] = str(size - first)
    if first:
        answer.status_code = 206
        answer["Content-Range"] = f"bytes {first}-{size - 1}/{size}"
    return answer

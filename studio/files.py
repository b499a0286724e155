"""Files of ours as answers."""

from __future__ import annotations

from pathlib import Path

from django.http import FileResponse

KEPT = "private, max-age=86400"
"""Kept by the browser of whoever is signed in, by nobody else."""


def shown_file(path: Path, kind: str) -> FileResponse:
    """A file for the page to show, without a name under which it could be saved."""
    response = FileResponse(path.open("rb"), content_type=kind)
    del response["Content-Disposition"]
    response["Cache-Control"] = f"{KEPT}, immutable"
    return response

"""Questions about a frame of a project, answered by a render process."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest

from kitecore.document import dumps
from kitecore.render.questions import Request
from studio.playback.service import render
from studio.playback.turns import Job
from studio.playback.watched import Look, project_document


def asked(
    request: HttpRequest,
    id: UUID,
    revision: int,
    look: Look,
    what: str,
    frame: int,
    side: int = 0,
    **of: Any,
) -> bytes:
    """The answer to ``what`` of a frame; ``side`` in pixels where it is a picture."""
    name, document = project_document(request, id, revision)
    document = look.of(document)
    wanted = Request(what, f"{name}/{look.name}", frame, long_side=side, of=of)
    return render(Job(wanted, lambda: dumps(document), request.user.pk))

"""Captions as files: read from what a person has, written from what a project holds."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.files import UploadedFile

from kitecore.errors import BadInput
from kitecore.exchange.captions import MOST_BYTES, CaptionFormat, CaptionsRead, write_captions
from studio.kit.reading import read_apart
from studio.owned import owned
from studio.problems import Problem
from studio.projects import history
from studio.projects.models import Project

router = Router()

_TYPES: dict[CaptionFormat, str] = {"srt": "application/x-subrip", "vtt": "text/vtt"}


@router.post("/captions", response={200: CaptionsRead, 422: Problem})
def captions_in(request: HttpRequest, file: File[UploadedFile]) -> CaptionsRead:
    """The cues of a file of captions; nothing is kept."""
    return CaptionsRead.model_validate_json(read_apart("captions", file, MOST_BYTES))


@router.get(
    "/projects/{uuid:id}/captions/{format}", response={200: None, 404: Problem, 422: Problem}
)
def captions_out(request: HttpRequest, id: UUID, format: CaptionFormat) -> HttpResponse:
    """The captions of a project as a file."""
    project = owned(Project, request.user, "project", id)
    document = history.document_at(history.head_of(project))
    if not any(track.captions and track.clips for track in document.tracks):
        raise BadInput("There are no captions in this project.", todo="Type some, or open a file.")
    answer = HttpResponse(
        write_captions(document, format), content_type=f"{_TYPES[format]}; charset=utf-8"
    )
    answer["Content-Disposition"] = f'attachment; filename="captions.{format}"'
    return answer

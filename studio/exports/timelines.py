"""Timelines as files of other programs: written from what a project holds, read onto its takes."""

from __future__ import annotations

from typing import Final
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import File, Router
from ninja.files import UploadedFile

from kitecore.errors import BadInput
from kitecore.exchange.timelines import (
    MOST_BYTES,
    TakenOver,
    TimelineRead,
    settle,
    write_timeline,
)
from studio.exports.media import media_of
from studio.exports.reaching import within_reach
from studio.kit.reading import read_apart
from studio.owned import owned
from studio.problems import Problem
from studio.projects import history
from studio.projects.models import Project

router = Router()

_MIME: Final = "application/vnd.opentimelineio+json"


@router.get("/projects/{uuid:id}/timeline", response={200: None, 404: Problem})
def timeline_out(request: HttpRequest, id: UUID) -> HttpResponse:
    """The film as an OpenTimelineIO file; takes by the names of their files."""
    project = owned(Project, request.user, "project", id)
    document = history.document_at(history.head_of(project))
    text = write_timeline(document, project.name, media_of(project, document))
    answer = HttpResponse(text, content_type=f"{_MIME}; charset=utf-8")
    named = content_disposition_header(True, f"{project.name}.otio")
    answer["Content-Disposition"] = named or "attachment"
    return answer


@router.post("/projects/{uuid:id}/timeline", response={200: TakenOver, 404: Problem, 422: Problem})
def timeline_in(request: HttpRequest, id: UUID, file: File[UploadedFile]) -> TakenOver:
    """The step that lays the timeline of a file on the takes of a project; nothing is changed."""
    project = owned(Project, request.user, "project", id)
    document = history.document_at(history.head_of(project))
    read = TimelineRead.model_validate_json(read_apart("timeline", file, MOST_BYTES))
    taken = settle(read, media_of(project, document), document)
    edit, lost = within_reach(taken.edit, project.owner_id)
    taken = taken.model_copy(update={"edit": edit, "remarks": (*taken.remarks, *lost)})
    if len(taken.edit.model_dump_json()) > MOST_BYTES:
        raise BadInput("This timeline is larger than what a project may become in one step.")
    return taken

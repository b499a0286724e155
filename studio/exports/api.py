"""Exports: start, watch, cancel, download."""

from __future__ import annotations

import shutil
from datetime import datetime
from uuid import UUID

from django.db.models import Sum
from django.http import FileResponse, HttpRequest
from django.utils import timezone
from ninja import Router, Schema

from kitecore.errors import BadInput, NotThere
from kitecore.render.export import ExportSettings
from studio.exports.models import Export
from studio.exports.tasks import start
from studio.owned import owned
from studio.problems import Problem
from studio.projects import history
from studio.projects.models import Project

router = Router()


class ExportOut(Schema):
    """``frame`` is the project's frame that is being made; ``left`` seconds, if it can be told."""

    id: UUID
    title: str
    filename: str
    revision: int
    settings: ExportSettings
    width: int
    height: int
    state: str
    frames: int
    done: int
    frame: int
    left: float | None
    bytes: int
    problem: Problem | None
    made_at: datetime
    seconds: float | None


class ExportIn(Schema):
    settings: ExportSettings = ExportSettings()


def _out(export: Export) -> ExportOut:
    document, wanted = history.document_at(export.revision), export.wanted
    numbers = wanted.frames(document)
    done = export.pieces.aggregate(sum=Sum("done"))["sum"] or 0
    width, height = wanted.size(document)
    at = export.pieces.filter(state="working").order_by("first").first()
    ended = export.finished_at
    return ExportOut(
        id=export.id,
        title=export.title,
        filename=export.filename,
        revision=export.revision_id,
        settings=wanted,
        width=width,
        height=height,
        state=export.state,
        frames=len(numbers),
        done=done,
        frame=at.first + at.done if at else numbers.start,
        left=_left(export, done, len(numbers)),
        bytes=export.bytes,
        problem=export.problem,
        made_at=export.made_at,
        seconds=(ended - export.started_at).total_seconds()
        if ended and export.started_at
        else None,
    )


def _left(export: Export, done: int, frames: int) -> float | None:
    """Seconds to go at the pace so far; not told before a few frames are done."""
    if export.state not in Export.UNFINISHED or export.started_at is None or done < 10:
        return None
    spent = (timezone.now() - export.started_at).total_seconds()
    return spent / done * (frames - done)


@router.get("/projects/{uuid:id}/exports", response={200: list[ExportOut], 404: Problem})
def list_exports(request: HttpRequest, id: UUID) -> list[ExportOut]:
    project = owned(Project, request.user, "project", id)
    return [_out(export) for export in project.exports.select_related("revision")]


@router.post("/projects/{uuid:id}/exports", response={201: ExportOut, 404: Problem, 422: Problem})
def start_export(request: HttpRequest, id: UUID, given: ExportIn) -> tuple[int, ExportOut]:
    project = owned(Project, request.user, "project", id)
    head = history.head_of(project)
    given.settings.frames(history.document_at(head))
    export = Export.objects.create(
        owner=request.user,
        project=project,
        revision=head,
        title=project.name,
        settings=given.settings.model_dump(),
    )
    start(export)
    return 201, _out(export)


@router.post("/exports/{uuid:id}/cancel", response={200: ExportOut, 404: Problem, 422: Problem})
def cancel_export(request: HttpRequest, id: UUID) -> ExportOut:
    export = owned(Export, request.user, "export", id)
    stopped = Export.objects.filter(pk=export.pk, state__in=Export.UNFINISHED).update(
        state=Export.State.CANCELLED, finished_at=timezone.now()
    )
    if not stopped:
        raise BadInput("That export has ended already.")
    export.refresh_from_db()
    return _out(export)


@router.delete("/exports/{uuid:id}", response={204: None, 404: Problem, 422: Problem})
def delete_export(request: HttpRequest, id: UUID) -> tuple[int, None]:
    export = owned(Export, request.user, "export", id)
    if export.state in Export.UNFINISHED:
        raise BadInput("That export is still being made.", todo="Cancel it first.")
    shutil.rmtree(export.path.parent, ignore_errors=True)
    export.delete()
    return 204, None


@router.get("/exports/{uuid:id}/file", response={200: None, 404: Problem})
def download(request: HttpRequest, id: UUID) -> FileResponse:
    export = owned(Export, request.user, "export", id)
    if export.state != Export.State.DONE or not export.path.exists():
        raise NotThere("That film is not finished.")
    return FileResponse(
        export.path.open("rb"),
        as_attachment=True,
        filename=export.filename,
        content_type=export.wanted.recipe.mime,
    )

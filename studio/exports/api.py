"""Films: start, watch, delete, download; their jobs are stopped like any other."""

from __future__ import annotations

from uuid import UUID

from django.http import FileResponse, HttpRequest
from ninja import Router, Schema

from kitecore.errors import BadInput, NotThere
from kitecore.render.export import ExportSettings
from studio.exports.models import Export
from studio.exports.work import start
from studio.jobs.models import Job, State
from studio.jobs.shown import JobOut, job_out
from studio.owned import owned
from studio.problems import Problem
from studio.projects import history
from studio.projects.models import Project

router = Router()


class ExportOut(Schema):
    """``done`` of ``frames`` are made; ``frame`` is the project's frame that is being made."""

    id: UUID
    title: str
    filename: str
    revision: int
    settings: ExportSettings
    width: int
    height: int
    job: JobOut
    frames: int
    done: int
    frame: int
    bytes: int
    seconds: float | None


class ExportIn(Schema):
    settings: ExportSettings = ExportSettings()


JOINING = 0.05
"""Share of a film's work that joining its pieces is reckoned at."""


def _out(export: Export) -> ExportOut:
    document, wanted, job = history.document_at(export.revision), export.wanted, export.job
    numbers = wanted.frames(document)
    done, at = _progress(job, numbers)
    joining = JOINING * (job.share if job.doing == "joining" else 0.0)
    share = 1.0 if job.state == State.DONE else (1 - JOINING) * done / len(numbers) + joining
    width, height = wanted.size(document)
    ended = job.finished_at
    return ExportOut(
        id=export.id,
        title=export.title,
        filename=export.filename,
        revision=export.revision_id,
        settings=wanted,
        width=width,
        height=height,
        job=job_out(job, share),
        frames=len(numbers),
        done=done,
        frame=at,
        bytes=export.bytes,
        seconds=(ended - job.started_at).total_seconds() if ended and job.started_at else None,
    )


def _progress(job: Job, numbers: range) -> tuple[int, int]:
    """Frames that are made, and the one that is being made."""
    done, at = 0.0, numbers.start
    for args, share, state in job.parts.values_list("args", "share", "state"):
        count = (args["last"] - args["first"]) * share
        done += count
        if state == State.WORKING:
            at = args["first"] + int(count)
    return (len(numbers) if job.state == State.DONE else int(done)), at


@router.get("/projects/{uuid:id}/exports", response={200: list[ExportOut], 404: Problem})
def list_exports(request: HttpRequest, id: UUID) -> list[ExportOut]:
    project = owned(Project, request.user, "project", id)
    return [_out(export) for export in project.exports.select_related("revision", "job")]


@router.post("/projects/{uuid:id}/exports", response={201: ExportOut, 404: Problem, 422: Problem})
def start_export(request: HttpRequest, id: UUID, given: ExportIn) -> tuple[int, ExportOut]:
    project = owned(Project, request.user, "project", id)
    head = history.head_of(project)
    given.settings.frames(history.document_at(head))
    return 201, _out(start(project.owner, project, head, given.settings))


@router.delete("/exports/{uuid:id}", response={204: None, 404: Problem, 422: Problem})
def delete_export(request: HttpRequest, id: UUID) -> tuple[int, None]:
    export = owned(Export, request.user, "export", id)
    if export.job.unfinished:
        raise BadInput("That film is still being made.", todo="Cancel it first.")
    export.delete()
    return 204, None


@router.get("/exports/{uuid:id}/file", response={200: None, 404: Problem})
def download(request: HttpRequest, id: UUID) -> FileResponse:
    export = owned(Export, request.user, "export", id)
    if export.job.state != State.DONE or not export.path.exists():
        raise NotThere("That film is not finished.")
    return FileResponse(
        export.path.open("rb"),
        as_attachment=True,
        filename=export.filename,
        content_type=export.wanted.recipe.mime,
    )

"""Films: start, watch, delete, download; their jobs are stopped like any other."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.http import FileResponse, HttpRequest
from ninja import Field, Router, Schema

from kitecore.errors import BadInput, NotThere
from kitecore.render.checking import Line, weighed, worst_first
from kitecore.render.export import ExportSettings
from studio import files
from studio.exports.checks import check_of, destination_of
from studio.exports.estimates import estimate_of, weight_of
from studio.exports.models import Export
from studio.exports.work import start
from studio.jobs.models import Job, State
from studio.jobs.shown import JobOut, job_out
from studio.jobs.turns import ahead_of
from studio.library.arrival import bring_in
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
    kind: str
    label: str
    width: int
    height: int
    job: JobOut
    frames: int
    done: int
    frame: int
    bytes: int
    seconds: float | None


class ExportIn(Schema):
    """Files of the film as it is now, each with its settings; ``as_take`` into the library too."""

    settings: list[ExportSettings] = Field([ExportSettings()], min_length=1, max_length=20)
    as_take: bool = False


class CheckIn(Schema):
    """What is to go where: a destination by its id, and the settings of its file."""

    destination: str = Field(max_length=40)
    settings: ExportSettings


class CheckOut(Schema):
    """``lines`` is what was found, None until ``job`` is done."""

    job: JobOut
    lines: list[Line] | None


class EstimateOut(Schema):
    """What files would weigh and take; ``job`` is the trial, its results None until it is done."""

    job: JobOut
    bytes: int | None
    seconds: float | None


JOINING: dict[str, float] = {"film": 0.05, "moving": 0.4, "pictures": 0.05, "still": 1, "sound": 1}
"""Share of a file's work that joining its pieces is reckoned at, by its kind."""


def _out(export: Export) -> ExportOut:
    wanted, job = export.wanted, export.job
    work = export.work(history.document_at(export.revision))
    done, at = _progress(job, work.numbers)
    last = JOINING[wanted.recipe.kind]
    joining = last * (job.share if job.doing == "joining" else 0.0)
    share = (1 - last) * done / len(work.numbers) + joining
    width, height = work.size
    ended = job.finished_at
    return ExportOut(
        id=export.id,
        title=export.title,
        filename=export.filename,
        revision=export.revision_id,
        settings=wanted,
        kind=wanted.recipe.kind,
        label=wanted.recipe.label,
        width=width,
        height=height,
        job=job_out(job, 1.0 if job.state == State.DONE else share),
        frames=len(work.numbers),
        done=done,
        frame=work.own_number(at),
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
    """Those to come in the order in which they are made, then those that have ended."""
    project = owned(Project, request.user, "project", id)
    found = list(project.exports.select_related("revision", "job"))
    coming = [one for one in reversed(found) if one.job.unfinished]
    coming.sort(key=lambda one: (one.job.paused, -ahead_of(one.job)))
    return [_out(one) for one in coming + [one for one in found if not one.job.unfinished]]


@router.post(
    "/projects/{uuid:id}/exports", response={201: list[ExportOut], 404: Problem, 422: Problem}
)
def start_exports(request: HttpRequest, id: UUID, given: ExportIn) -> tuple[int, list[ExportOut]]:
    """All of them, or none."""
    project = owned(Project, request.user, "project", id)
    head = history.head_of(project)
    document = history.document_at(head)
    for one in given.settings:
        one.work(document)
    with transaction.atomic():
        made = [
            start(project.owner, project, head, one, as_take=given.as_take)
            for one in given.settings
        ]
    return 201, [_out(one) for one in made]


@router.post(
    "/projects/{uuid:id}/estimates", response={200: EstimateOut, 404: Problem, 422: Problem}
)
def estimate_export(request: HttpRequest, id: UUID, given: ExportSettings) -> EstimateOut:
    """What a file would weigh and take: tried in the background; ask again once the job is done."""
    project = owned(Project, request.user, "project", id)
    job = estimate_of(project, history.head_of(project), given)
    result = job.result or {}
    return EstimateOut(job=job_out(job), bytes=result.get("bytes"), seconds=result.get("seconds"))


@router.post("/projects/{uuid:id}/checks", response={200: CheckOut, 404: Problem, 422: Problem})
def check_film(request: HttpRequest, id: UUID, given: CheckIn) -> CheckOut:
    """What is to be seen to before a film goes out: ask again once the job is done."""
    project = owned(Project, request.user, "project", id)
    destination = destination_of(given.destination, given.settings)
    head = history.head_of(project)
    job = check_of(project, head, destination)
    if job.state != State.DONE or not job.result:
        return CheckOut(job=job_out(job), lines=None)
    lines = [Line.model_validate(line) for line in job.result["lines"]]
    bytes = weight_of(project, head, given.settings)
    size = None if bytes is None else weighed(destination, bytes)
    return CheckOut(job=job_out(job), lines=worst_first([*lines, size] if size else lines))


@router.post("/exports/{uuid:id}/take", response={204: None, 404: Problem, 422: Problem})
def take_in_export(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Put a finished file into the library of its project."""
    export = _finished(request, id)
    if export.wanted.recipe.kind == "pictures":
        raise BadInput("An archive of pictures cannot be a take.", todo="Make a film instead.")
    bring_in(export.project, export.filename, export.path)
    return 204, None


@router.delete("/exports/{uuid:id}", response={204: None, 404: Problem, 422: Problem})
def delete_export(request: HttpRequest, id: UUID) -> tuple[int, None]:
    export = owned(Export, request.user, "export", id)
    if export.job.unfinished:
        raise BadInput("That film is still being made.", todo="Cancel it first.")
    export.delete()
    return 204, None


@router.get("/exports/{uuid:id}/file", response={200: None, 404: Problem})
def download(request: HttpRequest, id: UUID) -> FileResponse:
    export = _finished(request, id)
    return files.download(request, export.path, export.filename, export.wanted.recipe.mime)


def _finished(request: HttpRequest, id: UUID) -> Export:
    export = owned(Export, request.user, "export", id)
    if export.job.state != State.DONE or not export.path.exists():
        raise NotThere("That film is not finished.")
    return export

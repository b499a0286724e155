"""Projects as files that hold all of them: packed, fetched, and opened elsewhere."""

from __future__ import annotations

from typing import Final
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from kitecore.errors import NotThere
from studio.exports import packing
from studio.files import download
from studio.jobs.models import State
from studio.jobs.shown import JobOut, job_out
from studio.owned import owned
from studio.problems import Problem
from studio.projects.models import Project

router = Router()

_MIME: Final = "application/zip"


class PackIn(Schema):
    """Without ``originals`` takes are known there, and found again when their files are brought."""

    originals: bool = True


class PackedOut(Schema):
    """``bytes`` of the file, None until ``job`` is done."""

    job: JobOut
    originals: bool
    bytes: int | None


def _out(project: Project) -> PackedOut | None:
    job = packing.newest(project)
    if job is None:
        return None
    bytes = (job.result or {}).get("bytes") if job.state == State.DONE else None
    return PackedOut(job=job_out(job), originals=job.args["originals"], bytes=bytes)


@router.get("/projects/{uuid:id}/archive", response={200: PackedOut | None, 404: Problem})
def look_at_archive(request: HttpRequest, id: UUID) -> PackedOut | None:
    return _out(owned(Project, request.user, "project", id))


@router.post("/projects/{uuid:id}/archive", response={200: PackedOut, 404: Problem})
def pack_project(request: HttpRequest, id: UUID, given: PackIn) -> PackedOut:
    """As it is now; what was packed before goes."""
    project = owned(Project, request.user, "project", id)
    job = packing.ask_for(project, originals=given.originals)
    return PackedOut(job=job_out(job), originals=given.originals, bytes=None)


@router.get("/projects/{uuid:id}/archive/file", response={200: None, 404: Problem})
def fetch_archive(request: HttpRequest, id: UUID) -> HttpResponse:
    project = owned(Project, request.user, "project", id)
    job = packing.newest(project)
    if job is None or job.state != State.DONE or not packing.path_of(job).exists():
        raise NotThere("There is no archive yet.", todo="Have one packed first.")
    return download(request, packing.path_of(job), f"{project.name}.otioz", _MIME)

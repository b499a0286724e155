"""Lining takes up: asked for by a page, done as a job (see `studio.library.work`)."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Field, Router, Schema

from kitecore.analysis.lining import Found, Unplaced
from kitecore.errors import BadInput, NotThere
from studio.jobs.models import Job
from studio.jobs.queue import hand_out
from studio.jobs.shown import JobOut, job_out
from studio.library.models import may_use_takes
from studio.owned import owned
from studio.problems import Problem

router = Router()

MOST_FILES = 100
MOST_UNFINISHED = 3
"""Linings of one person at once."""


class LiningIn(Schema):
    """Files of angles; the one of index ``first`` stays where it is."""

    files: list[Unplaced] = Field(min_length=1, max_length=MOST_FILES)
    first: int = Field(default=0, ge=0, lt=MOST_FILES)


class LiningOut(Schema):
    """``found`` in the order of the files, when the job is done."""

    job: JobOut
    found: list[Found]


@router.post("/linings", response={201: LiningOut, 404: Problem, 422: Problem})
def line_up(request: HttpRequest, given: LiningIn) -> tuple[int, LiningOut]:
    """Find out where files lie by their sound, timecode or clocks."""
    assert request.user.pk is not None
    if not may_use_takes(request.user.pk, frozenset(file.take for file in given.files)):
        raise NotThere("A take that was to be lined up is not there.")
    if given.first >= len(given.files):
        raise NotThere("The file that stays is not among them.")
    unfinished = Job.objects.unfinished().filter(owner=request.user, kind="line_up").count()
    if unfinished >= MOST_UNFINISHED:
        raise BadInput("So much is being lined up already.", todo="Wait for it, or cancel it.")
    args = given.dict()
    job = hand_out(request.user, "line_up", args["files"][given.first]["take"], args=args)
    return 201, LiningOut(job=job_out(job), found=[])


@router.get("/linings/{uuid:id}", response={200: LiningOut, 404: Problem})
def lining(request: HttpRequest, id: UUID) -> LiningOut:
    job = owned(Job, request.user, "job", id)
    if job.kind != "line_up":
        raise NotThere("That job is not there.")
    found = (job.result or {}).get("found", [])
    return LiningOut(job=job_out(job), found=[Found.model_validate(one) for one in found])

"""Cutting things out of takes: asked for by a page, done as an analysis (see `studio.library.work`)."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.analysis import result_of
from kitecore.analysis.cut import read_mattes
from kitecore.document.cutouts import CutThrough
from studio.jobs.shown import JobOut, job_out
from studio.library.api import own
from studio.library.models import Take
from studio.library.tracking import begun, own_job
from studio.problems import Problem

router = Router()


class CutThroughFound(Schema):
    """How surely all of it is found in each frame, 0..255, and the tick of the file from which on."""

    ticks: list[int]
    sure: list[int]


class CutThroughOut(Schema):
    """``found`` when it is known; until then the ``job`` that finds it."""

    job: JobOut | None = None
    found: CutThroughFound | None = None


@router.post("/takes/{uuid:id}/cuts", response={200: CutThroughOut, 404: Problem, 422: Problem})
def cut(request: HttpRequest, id: UUID, given: CutThrough) -> CutThroughOut:
    """Cut something out of each frame of a take; what was found before is told at once."""
    take = own(request, id)
    job = begun(request, take, "cut", given)
    return CutThroughOut(job=job, found=None if job else _found(take, given))


@router.get("/cuts/{uuid:id}", response={200: CutThroughOut, 404: Problem})
def cut_job(request: HttpRequest, id: UUID) -> CutThroughOut:
    job = own_job(request, id, "cut")
    given = CutThrough.model_validate(job.args["parameters"])
    take = own(request, UUID(job.args["take"]))
    there = result_of(take.folder, "cut", given) is not None
    return CutThroughOut(job=job_out(job), found=_found(take, given) if there else None)


def _found(take: Take, given: CutThrough) -> CutThroughFound:
    found, index = read_mattes(take.folder, given), take.folder.index
    return CutThroughFound(
        ticks=index.times[found.first : found.first + len(found.sure)].tolist(),
        sure=found.sure.tolist(),
    )

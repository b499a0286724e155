"""Long work: what there is, stopping it, trying it again, and hearing of its changes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final, Literal
from uuid import UUID

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Router

from studio.jobs import queue, turns
from studio.jobs.events import stream
from studio.jobs.models import Job
from studio.jobs.shown import JobOut, job_out
from studio.owned import owned
from studio.problems import Problem

router = Router()

Deed = Literal["cancel", "again", "pause", "go-on", "first"]
_DEEDS: Final[dict[Deed, Callable[[Job], None]]] = {
    "cancel": queue.cancel,
    "again": queue.try_again,
    "pause": turns.pause,
    "go-on": turns.go_on,
    "first": turns.put_first,
}


@router.get("/jobs", response=list[JobOut])
def list_jobs(request: HttpRequest) -> list[JobOut]:
    """The person's unfinished jobs, the most urgent first; parts stand for nothing by themselves."""
    mine = Job.objects.unfinished().filter(owner=request.user, parent=None)
    return [job_out(job) for job in mine.order_by("-priority", "made_at")]


@router.get("/jobs/{uuid:id}", response={200: JobOut, 404: Problem})
def get_job(request: HttpRequest, id: UUID) -> JobOut:
    """A job, and if it is done what there is to be said of it."""
    return job_out(owned(Job, request.user, "job", id))


@router.post("/jobs/{uuid:id}/{deed}", response={200: JobOut, 404: Problem, 422: Problem})
def do_with_job(request: HttpRequest, id: UUID, deed: Deed) -> JobOut:
    """Stop it, try it again, let it wait or go on, put it before the others."""
    _DEEDS[deed](owned(Job, request.user, "job", id))
    return job_out(owned(Job, request.user, "job", id))


@router.get("/events", response={200: None})
def events(request: HttpRequest) -> StreamingHttpResponse:
    """A stream of server-sent events: the jobs of this person that change, by id and kind."""
    assert request.user.pk is not None
    answer = StreamingHttpResponse(stream(request.user.pk), content_type="text/event-stream")
    answer["Cache-Control"] = "no-store"
    answer["X-Accel-Buffering"] = "no"
    return answer

"""Long work: what there is, stopping it, trying it again, and hearing of its changes."""

from __future__ import annotations

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

_ANSWERS = {200: JobOut, 404: Problem, 422: Problem}


@router.get("/jobs", response=list[JobOut])
def list_jobs(request: HttpRequest) -> list[JobOut]:
    """The person's unfinished jobs, the most urgent first; parts stand for nothing by themselves."""
    mine = Job.objects.unfinished().filter(owner=request.user, parent=None)
    return [job_out(job) for job in mine.order_by("-priority", "made_at")]


@router.post("/jobs/{uuid:id}/cancel", response=_ANSWERS)
def cancel_job(request: HttpRequest, id: UUID) -> JobOut:
    queue.cancel(owned(Job, request.user, "job", id))
    return job_out(owned(Job, request.user, "job", id))


@router.post("/jobs/{uuid:id}/again", response=_ANSWERS)
def try_job_again(request: HttpRequest, id: UUID) -> JobOut:
    queue.try_again(owned(Job, request.user, "job", id))
    return job_out(owned(Job, request.user, "job", id))


@router.post("/jobs/{uuid:id}/pause", response=_ANSWERS)
def pause_job(request: HttpRequest, id: UUID) -> JobOut:
    turns.pause(owned(Job, request.user, "job", id))
    return job_out(owned(Job, request.user, "job", id))


@router.post("/jobs/{uuid:id}/go-on", response=_ANSWERS)
def let_job_go_on(request: HttpRequest, id: UUID) -> JobOut:
    turns.go_on(owned(Job, request.user, "job", id))
    return job_out(owned(Job, request.user, "job", id))


@router.post("/jobs/{uuid:id}/first", response=_ANSWERS)
def put_job_first(request: HttpRequest, id: UUID) -> JobOut:
    turns.put_first(owned(Job, request.user, "job", id))
    return job_out(owned(Job, request.user, "job", id))


@router.get("/events", response={200: None})
def events(request: HttpRequest) -> StreamingHttpResponse:
    """A stream of server-sent events: the jobs of this person that change, by id and kind."""
    assert request.user.pk is not None
    answer = StreamingHttpResponse(stream(request.user.pk), content_type="text/event-stream")
    answer["Cache-Control"] = "no-store"
    answer["X-Accel-Buffering"] = "no"
    return answer

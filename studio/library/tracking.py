"""Following things through takes: asked for by a page, done as an analysis (see `studio.library.work`)."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.analysis import result_of
from kitecore.analysis.track import read_track
from kitecore.document.trackers import Tracked
from kitecore.errors import BadInput, NotThere
from studio.jobs.kinds import WAITED_FOR
from studio.jobs.models import Job
from studio.jobs.shown import JobOut, job_out
from studio.library.api import own
from studio.library.models import Take
from studio.library.work import ask_for
from studio.owned import owned
from studio.problems import Problem

router = Router()

MOST_UNFINISHED = 3
"""Things of one person that are being followed at once."""


class TrackFound(Schema):
    """Where it is in each frame: the tick of the file from which on, corners, 0..255 for how surely.

    Corners are x and y of four, in heights of the picture from its middle.
    """

    ticks: list[int]
    quads: list[list[float]]
    sure: list[int]


class TrackOut(Schema):
    """``found`` when it is known; until then the ``job`` that finds it."""

    job: JobOut | None = None
    found: TrackFound | None = None


@router.post("/takes/{uuid:id}/tracks", response={200: TrackOut, 404: Problem, 422: Problem})
def track(request: HttpRequest, id: UUID, given: Tracked) -> TrackOut:
    """Follow something through a take; what was found before is told at once."""
    take = own(request, id)
    if take.state != Take.State.READY or (take.facts or {}).get("kind") != "video":
        raise BadInput("Only in a video that is ready can something be followed.")
    if result_of(take.folder, "track", given) is not None:
        return TrackOut(found=_found(take, given))
    busy = Job.objects.unfinished().filter(owner=request.user, kind="track").count()
    if busy >= MOST_UNFINISHED:
        raise BadInput("So much is being followed already.", todo="Wait for it, or cancel it.")
    job = ask_for(take, "track", given.model_dump(mode="json"), WAITED_FOR, "track")
    return TrackOut(job=job_out(job) if job else None)


@router.get("/tracks/{uuid:id}", response={200: TrackOut, 404: Problem})
def track_job(request: HttpRequest, id: UUID) -> TrackOut:
    job = owned(Job, request.user, "job", id)
    if job.kind != "track":
        raise NotThere("That job is not there.")
    given = Tracked.model_validate(job.args["parameters"])
    take = own(request, UUID(job.args["take"]))
    there = result_of(take.folder, "track", given) is not None
    return TrackOut(job=job_out(job), found=_found(take, given) if there else None)


def _found(take: Take, given: Tracked) -> TrackFound:
    found, index = read_track(take.folder, given), take.folder.index
    return TrackFound(
        ticks=index.times[found.first : found.first + len(found.quads)].tolist(),
        quads=found.quads.reshape(-1, 8).round(5).astype(float).tolist(),
        sure=found.sure.tolist(),
    )

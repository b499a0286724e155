"""Following things through takes: asked for by a page, done as an analysis (see `studio.library.work`)."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.analysis import NoParameters, result_of
from kitecore.analysis.faces import FacesFound, read_faces
from kitecore.analysis.track import read_track
from kitecore.document import Model
from kitecore.document.trackers import Tracked
from kitecore.errors import BadInput, NotThere
from kitecore.tracking.reasons import REASONS, Reason
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

    Corners are x and y of four, in heights of the picture from its middle. ``why`` is told of frames
    in which it is not sure.
    """

    ticks: list[int]
    quads: list[list[float]]
    sure: list[int]
    why: list[Reason | None]


class TrackOut(Schema):
    """``found`` when it is known; until then the ``job`` that finds it."""

    job: JobOut | None = None
    found: TrackFound | None = None


class FacesOut(Schema):
    """Whose faces are ``found``, when that is known; until then the ``job`` that looks for them."""

    job: JobOut | None = None
    found: FacesFound | None = None


@router.post("/takes/{uuid:id}/tracks", response={200: TrackOut, 404: Problem, 422: Problem})
def track(request: HttpRequest, id: UUID, given: Tracked) -> TrackOut:
    """Follow something through a take; what was found before is told at once."""
    take = own(request, id)
    job = begun(request, take, "track", given)
    return TrackOut(job=job, found=None if job else _found(take, given))


@router.post("/takes/{uuid:id}/faces", response={200: FacesOut, 404: Problem, 422: Problem})
def faces(request: HttpRequest, id: UUID) -> FacesOut:
    """Look for faces in a take; asked again it tells what was found, or how far it is."""
    take = own(request, id)
    require_video(take)
    if result_of(take.folder, "faces", NoParameters()) is not None:
        return FacesOut(found=read_faces(take.folder))
    job = (
        Job.objects.unfinished().filter(owner=request.user, subject=f"{take.id.hex}/faces").first()
    )
    if job is None:
        require_room(request)
        job = ask_for(take, "faces", priority=WAITED_FOR, kind="track")
    return FacesOut(job=job_out(job) if job else None)


@router.get("/faces/{uuid:id}", response={200: FacesOut, 404: Problem})
def faces_job(request: HttpRequest, id: UUID) -> FacesOut:
    job = own_job(request, id, "faces")
    take = own(request, UUID(job.args["take"]))
    there = result_of(take.folder, "faces", NoParameters()) is not None
    return FacesOut(job=job_out(job), found=read_faces(take.folder) if there else None)


@router.get("/tracks/{uuid:id}", response={200: TrackOut, 404: Problem})
def track_job(request: HttpRequest, id: UUID) -> TrackOut:
    job = own_job(request, id, "track")
    given = Tracked.model_validate(job.args["parameters"])
    take = own(request, UUID(job.args["take"]))
    there = result_of(take.folder, "track", given) is not None
    return TrackOut(job=job_out(job), found=_found(take, given) if there else None)


def begun(request: HttpRequest, take: Take, name: str, given: Model) -> JobOut | None:
    """The job that makes an analysis somebody waits for; none if it is there."""
    require_video(take)
    if result_of(take.folder, name, given) is not None:
        return None
    require_room(request)
    job = ask_for(take, name, given.model_dump(mode="json"), WAITED_FOR, "track")
    return job_out(job) if job else None


def own_job(request: HttpRequest, id: UUID, name: str) -> Job:
    """A job of this person that makes the analysis of a name."""
    job = owned(Job, request.user, "job", id)
    if job.kind != "track" or job.args["name"] != name:
        raise NotThere("That job is not there.")
    return job


def require_room(request: HttpRequest) -> None:
    busy = Job.objects.unfinished().filter(owner=request.user, kind="track").count()
    if busy >= MOST_UNFINISHED:
        raise BadInput("So much is being followed already.", todo="Wait for it, or cancel it.")


def require_video(take: Take) -> None:
    if take.state != Take.State.READY or (take.facts or {}).get("kind") != "video":
        raise BadInput("Only in a video that is ready can something be followed.")


def _found(take: Take, given: Tracked) -> TrackFound:
    found, index = read_track(take.folder, given), take.folder.index
    return TrackFound(
        ticks=index.times[found.first : found.first + len(found.quads)].tolist(),
        quads=found.quads.reshape(-1, 8).round(5).astype(float).tolist(),
        sure=found.sure.tolist(),
        why=[REASONS[one - 1] if one else None for one in found.why.tolist()],
    )

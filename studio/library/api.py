"""The library: takes, what is known of them, and the small pictures and waveforms they have."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import FileResponse, HttpRequest, HttpResponse
from ninja import Field, Router, Schema

from kitecore.errors import BadInput, NotThere
from kitecore.media.info import MediaInfo
from studio.library.models import Take
from studio.library.tasks import ingest_take
from studio.owned import owned
from studio.problems import Problem
from studio.projects import history
from studio.projects.models import Project

router = Router()


class StripLayout(Schema):
    """How the sheet of small pictures is laid out; ``step`` is ticks from one to the next."""

    step: int
    width: int
    height: int
    columns: int
    count: int


class TakeOut(Schema):
    """A take. Times in ticks; ``media`` is its id as documents name it."""

    id: UUID
    media: str
    name: str
    bytes: int
    received: int
    state: str
    stage: str
    share: float
    facts: MediaInfo | None
    problem: Problem | None
    mark_in: int | None
    mark_out: int | None
    strip: StripLayout | None
    has_peaks: bool
    has_proxy: bool


class TakeChange(Schema):
    """What is given changes; marks are ticks, or null for none."""

    name: str | None = Field(default=None, min_length=1, max_length=200)
    mark_in: int | None = Field(default=None, ge=0)
    mark_out: int | None = Field(default=None, ge=0)


def own(request: HttpRequest, id: UUID) -> Take:
    take = owned(Take, request.user, "take", id)
    if take.removed:
        raise NotThere("That take was removed.")
    return take


def _out(take: Take) -> TakeOut:
    folder = take.folder
    strip: dict[str, Any] | None = folder.strip_layout if folder.strip_facts.exists() else None
    return TakeOut(
        id=take.id,
        media=take.id.hex,
        name=take.name,
        bytes=take.bytes,
        received=take.received,
        state=take.state,
        stage=take.stage,
        share=take.share,
        facts=take.facts,
        problem=take.problem,
        mark_in=take.mark_in,
        mark_out=take.mark_out,
        strip=strip,
        has_peaks=folder.peaks.exists(),
        has_proxy=folder.proxy.exists(),
    )


@router.get("/projects/{uuid:id}/takes", response={200: list[TakeOut], 404: Problem})
def list_takes(request: HttpRequest, id: UUID) -> list[TakeOut]:
    """Takes brought into a project, in their order, and any others that its clips use."""
    project = owned(Project, request.user, "project", id)
    used = history.document_at(history.head_of(project)).media_ids()
    mine = Take.objects.filter(owner=request.user)
    shown = mine.filter(project=project, removed=False) | mine.filter(pk__in=used)
    return [_out(take) for take in shown.distinct()]


@router.patch("/takes/{uuid:id}", response={200: TakeOut, 404: Problem, 422: Problem})
def change_take(request: HttpRequest, id: UUID, given: TakeChange) -> TakeOut:
    take = own(request, id)
    changes = given.model_dump(exclude_unset=True)
    if changes.get("name") is None:
        changes.pop("name", None)
    for name, value in changes.items():
        setattr(take, name, value)
    if take.mark_in is not None and take.mark_out is not None and take.mark_in >= take.mark_out:
        raise BadInput("The in point lies after the out point.")
    take.save(update_fields=list(changes))
    return _out(take)


@router.delete("/takes/{uuid:id}", response={204: None, 404: Problem, 422: Problem})
def remove_take(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Take it out of the library; refused while a project uses it."""
    take = own(request, id)
    for project in Project.objects.filter(owner=request.user).select_related("head"):
        if take.id.hex in history.document_at(history.head_of(project)).media_ids():
            raise BadInput(
                f"“{take.name}” is used in “{project.name}”.", todo="Delete its clips there first."
            )
    take.removed = True
    take.save(update_fields=["removed"])
    return 204, None


@router.post("/takes/{uuid:id}/again", response={200: TakeOut, 404: Problem, 422: Problem})
def try_again(request: HttpRequest, id: UUID) -> TakeOut:
    """Look at a refused file once more."""
    take = own(request, id)
    if take.state != Take.State.REFUSED or not take.folder.original.exists():
        raise BadInput("There is no file left to try again.", todo="Bring the file in again.")
    take.state, take.problem, take.attempts = Take.State.WAITING, None, 0
    take.save(update_fields=["state", "problem", "attempts"])
    ingest_take(str(take.id))
    return _out(take)


_FILES = {
    "strip.jpg": "image/jpeg",
    "poster.jpg": "image/jpeg",
    "peaks.i8": "application/octet-stream",
}


@router.get("/takes/{uuid:id}/files/{str:name}", response={200: None, 404: Problem})
def take_file(request: HttpRequest, id: UUID, name: str) -> HttpResponse:
    """``poster.jpg``, ``strip.jpg``, or ``peaks.i8``: lowest and highest sample of each 10 ms."""
    take = owned(Take, request.user, "take", id)
    path = take.folder.path / name
    if name not in _FILES or not path.exists():
        raise NotThere("That is not made yet.")
    response = FileResponse(path.open("rb"), content_type=_FILES[name])
    response["Cache-Control"] = "private, max-age=86400, immutable"
    return response

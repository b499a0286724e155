"""Projects, their documents and steps."""

from __future__ import annotations

import json
from collections.abc import Callable
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from ninja import Field, Router, Schema

from kitecore.document import Canvas, Document, FrameRate, dumps, empty_document
from kitecore.edits import Edit
from kitecore.errors import BadInput
from kitecore.ticks import RATES, TICKS_PER_SECOND
from studio.accounts.allowances import allowed_to
from studio.owned import owned
from studio.problems import Problem
from studio.projects import history
from studio.projects.models import Project, Revision

router = Router()


class ProjectCard(Schema):
    """A project as it stands in the list. Times in ticks."""

    id: UUID
    name: str
    revision: int
    width: int
    height: int
    rate: FrameRate
    length: int
    changed_at: datetime


class ProjectIn(Schema):
    name: str = Field(min_length=1, max_length=200)
    canvas: Canvas = Canvas()
    rate: FrameRate = FrameRate()


class Rename(Schema):
    name: str = Field(min_length=1, max_length=200)


class Position(Schema):
    """Where in its history a project is."""

    revision: int
    step: int
    label: str
    can_undo: bool
    can_redo: bool


class State(Position):
    """A project with its whole document."""

    id: UUID
    name: str
    document: Document


class StepDone(Position):
    """A step that was kept, and the JSON Patch (RFC 6902) from revision ``start`` to it.

    ``made`` are the ids of the clips, tracks and parts that it brought.
    """

    start: int
    patch: list[dict[str, Any]]
    made: list[str]


class StepIn(Schema):
    based_on: int
    edit: Edit


class Based(Schema):
    based_on: int


class GoIn(Based):
    revision: int


class StepOut(Schema):
    """One step of the history. ``on_path``: it leads to where the project is, or on from there."""

    revision: int
    parent: int | None
    number: int
    label: str
    made_at: datetime
    on_path: bool


class Choices(Schema):
    """What a project can be set to."""

    ticks_per_second: int
    rates: list[FrameRate]


def own(request: HttpRequest, id: UUID) -> Project:
    return owned(Project, request.user, "project", id)


def _position(revision: Revision) -> Position:
    return Position(
        revision=revision.pk,
        step=revision.number,
        label=revision.label,
        can_undo=revision.parent_id is not None,
        can_redo=revision.next_id is not None,
    )


def _card(project: Project) -> ProjectCard:
    head = history.head_of(project)
    facts = history.facts_at(head)
    return ProjectCard(
        id=project.id,
        name=project.name,
        revision=head.pk,
        width=facts.width,
        height=facts.height,
        rate=facts.rate,
        length=facts.length,
        changed_at=project.changed_at,
    )


def _done(step: history.Step) -> StepDone:
    place = _position(step.revision).model_dump()
    return StepDone(**place, start=step.start, patch=step.patch, made=list(step.made))


@router.get("/choices", response=Choices)
def choices(request: HttpRequest) -> Choices:
    rates = [FrameRate(num=rate.num, den=rate.den) for rate in RATES]
    return Choices(ticks_per_second=TICKS_PER_SECOND, rates=rates)


@router.get("/projects", response=list[ProjectCard])
def list_projects(request: HttpRequest) -> list[ProjectCard]:
    mine = Project.objects.filter(owner=request.user).select_related("head")
    mine = mine.defer("head__snapshot", "head__forward", "head__back", "head__edit")
    return [_card(project) for project in mine]


def _require_room(request: HttpRequest) -> None:
    most = allowed_to(request.user.pk).projects
    if Project.objects.filter(owner=request.user).count() >= most:
        raise BadInput(f"You may have {most} projects.", todo="Delete one first.")


@router.post("/projects", response={201: ProjectCard, 422: Problem})
def make_project(request: HttpRequest, given: ProjectIn) -> tuple[int, ProjectCard]:
    _require_room(request)
    document = empty_document(given.canvas, given.rate)
    project = history.start_project(request.user, given.name.strip() or "Untitled", document)
    return 201, _card(project)


@router.patch("/projects/{uuid:id}", response={200: ProjectCard, 404: Problem})
def rename_project(request: HttpRequest, id: UUID, given: Rename) -> ProjectCard:
    project = own(request, id)
    project.name = given.name.strip() or project.name
    project.save(update_fields=["name", "changed_at"])
    return _card(project)


@router.post("/projects/{uuid:id}/copy", response={201: ProjectCard, 404: Problem, 422: Problem})
def copy_project(request: HttpRequest, id: UUID) -> tuple[int, ProjectCard]:
    """The film as it is now as a project of its own, with the same takes and no history."""
    project = own(request, id)
    _require_room(request)
    document = history.document_at(history.head_of(project))
    name = f"{project.name[:190]} (copy)"
    return 201, _card(history.start_project(project.owner, name, document))


@router.delete("/projects/{uuid:id}", response={204: None, 404: Problem})
def delete_project(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """With its films, and with the takes that no other project of the person uses."""
    project = own(request, id)
    with transaction.atomic():
        Project.objects.filter(pk=project.pk).update(head=None)
        project.delete()
    return 204, None


@router.get("/projects/{uuid:id}", response={200: State, 404: Problem})
def open_project(request: HttpRequest, id: UUID) -> HttpResponse:
    return _state(own(request, id))


def _state(project: Project, status: int = 200) -> HttpResponse:
    """The whole state, put together from JSON that is ready: documents can be large."""
    head = history.head_of(project)
    rest = _position(head).model_dump() | {"id": str(project.id), "name": project.name}
    text = json.dumps(rest)[:-1] + ', "document": ' + dumps(history.document_at(head)) + "}"
    return HttpResponse(text, content_type="application/json", status=status)


_STEP = {200: StepDone, 404: Problem, 409: State, 422: Problem}


def _stepped(project: Project, do: Callable[[], history.Step]) -> StepDone | HttpResponse:
    """The answer to a step; to a stale one 409 with the newest state, to go on from."""
    try:
        return _done(do())
    except history.Stale:
        project.refresh_from_db()
        return _state(project, status=409)


@router.post("/projects/{uuid:id}/edits", response=_STEP)
def do_edit(request: HttpRequest, id: UUID, given: StepIn) -> StepDone | HttpResponse:
    project = own(request, id)
    return _stepped(project, lambda: history.apply_edit(project, given.based_on, given.edit))


@router.post("/projects/{uuid:id}/undo", response=_STEP)
def undo(request: HttpRequest, id: UUID, given: Based) -> StepDone | HttpResponse:
    project = own(request, id)
    return _stepped(project, lambda: history.undo(project, given.based_on))


@router.post("/projects/{uuid:id}/redo", response=_STEP)
def redo(request: HttpRequest, id: UUID, given: Based) -> StepDone | HttpResponse:
    project = own(request, id)
    return _stepped(project, lambda: history.redo(project, given.based_on))


MOST_STEPS = 1000


@router.get("/projects/{uuid:id}/history", response={200: list[StepOut], 404: Problem})
def list_steps(request: HttpRequest, id: UUID) -> list[StepOut]:
    """The newest steps of all branches, oldest first."""
    steps, path = history.steps_of(own(request, id), MOST_STEPS)
    return [
        StepOut(
            revision=step.pk,
            parent=step.parent_id,
            number=step.number,
            label=step.label,
            made_at=step.made_at,
            on_path=step.pk in path,
        )
        for step in steps
    ]


@router.post(
    "/projects/{uuid:id}/go", response={200: State, 404: Problem, 409: State, 422: Problem}
)
def go_to_step(request: HttpRequest, id: UUID, given: GoIn) -> HttpResponse:
    """Go to any step of the history; nothing is lost by going on from there."""
    project = own(request, id)
    try:
        history.go_to(project, given.based_on, given.revision)
    except history.Stale:
        project.refresh_from_db()
        return _state(project, status=409)
    project.refresh_from_db()
    return _state(project)

"""A project's documents over time: reading any, adding one, undo and redo.

A step is on disk before it is acknowledged: all changes here run in one transaction, and the
database writes through.
"""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any, Final

import jsonpatch
from django.contrib.auth.models import User
from django.db import transaction

from kitecore import edits
from kitecore.document import Document, diff, dump, load, made_by
from kitecore.errors import BadInput, NotThere
from kitecore.kept import Kept
from studio.problems import Stale
from studio.projects.belongings import changed
from studio.projects.facts import UNKNOWN, Facts, facts_after, facts_of
from studio.projects.models import Project, Revision
from studio.projects.snapshots import keep_soon, packed, unpacked

_documents: Kept[Document] = Kept(32)
"""The last ones, by project and revision."""


@dataclass(frozen=True)
class Step:
    """Where a change led: the new revision and the patch from the document at ``start``.

    ``made`` are the ids of what an edit brought.
    """

    start: int
    revision: Revision
    patch: list[dict[str, Any]]
    made: tuple[str, ...] = ()


def document_at(revision: Revision) -> Document:
    """The document of a revision; from memory, or its nearest snapshot and the patches since."""
    key = (revision.project_id, revision.pk)
    return _documents.get(key, lambda: _rebuilt(revision))


def _rebuilt(revision: Revision) -> Document:
    patches = []
    at = revision
    while at.snapshot is None:
        patches.append(at.forward)
        assert at.parent is not None
        at = at.parent
    document = unpacked(bytes(at.snapshot))
    return _patched(document, patches[::-1]) if patches else document


_UNFIT: Final = (KeyError, jsonpatch.JsonPatchException, jsonpatch.JsonPointerException)


def _patched(document: Document, patches: list[Any]) -> Document:
    """A document after the patches of several steps.

    What a step of an older version brought lacks the fields that came later, of which the next
    patch may speak: then every step is read as a whole before the next.
    """
    data = dump(document)
    try:
        for patch in patches:
            data = jsonpatch.apply_patch(data, patch, in_place=True)
    except _UNFIT:
        for patch in patches:
            document = load(jsonpatch.apply_patch(dump(document), patch, in_place=True))
        return document
    return load(data)


def head_of(project: Project) -> Revision:
    assert project.head is not None
    return project.head


def revision_of(project: Project, number: int) -> Revision:
    """A revision of this project by its id; what its document is made of is read when asked for."""
    rows = project.revisions.defer("edit", "facts", "forward", "back", "snapshot")
    found = rows.filter(pk=number).first()
    if found is None:
        raise NotThere("That version of the project is not there.")
    return found


def facts_at(revision: Revision) -> Facts:
    """What lists tell of a revision. Those of before facts were kept get theirs now."""
    if revision.facts is None:
        try:
            document = document_at(revision)
        except BadInput:
            # One project that cannot be read does not keep a person from the list of all.
            return UNKNOWN
        revision.facts = facts_of(document).model_dump()
        Revision.objects.filter(pk=revision.pk).update(facts=revision.facts)
    return Facts.model_validate(revision.facts)


@transaction.atomic
def start_project(owner: User, name: str, document: Document) -> Project:
    """A new project with its first revision."""
    project = Project.objects.create(owner=owner, name=name)
    first = Revision.objects.create(
        project=project,
        number=0,
        label="New project",
        facts=facts_of(document).model_dump(),
        snapshot=packed(document),
    )
    project.head = first
    project.save()
    return project


@transaction.atomic
def apply_edit(project: Project, based_on: int, edit: edits.EditBase) -> Step:
    """Do an edit on the newest document; one that was done before is answered as it was then.

    Raises
    ------
    Stale
        If ``based_on`` is not the newest revision any more.
    EditRefused
    """
    known = project.revisions.filter(seed=edit.seed).first()
    if known is not None:
        return _done_before(known, edit)
    project = _fresh(project, based_on)
    head = head_of(project)
    before = document_at(head)
    after = changed(project.owner_id, before, edit)
    number = head.number + 1
    revision = Revision.objects.create(
        project=project,
        parent=head,
        number=number,
        label=edit.label()[:250],
        edit=json.loads(edit.model_dump_json()),
        seed=edit.seed,
        facts=facts_after(before, facts_at(head), after).model_dump(),
        forward=diff(before, after),
        back=diff(after, before),
    )
    Revision.objects.filter(pk=head.pk).update(next=revision)
    _move_head(project, revision)
    # Not before: a number given out in a transaction that fails is given out again.
    transaction.on_commit(lambda: _documents.put((project.pk, revision.pk), after))
    keep_soon(revision, after)
    return _step_of(head.pk, revision)


def _step_of(start: int, revision: Revision) -> Step:
    made = made_by(revision.forward, revision.back)
    return Step(start, revision, revision.forward, tuple(made))


def _done_before(known: Revision, edit: edits.EditBase) -> Step:
    """The step that a revision was made by, asked for again since its answer was lost."""
    if known.edit is None or known.edit["kind"] != edit.kind:
        raise BadInput("Another step was done under this step's name.", todo="Do it again.")
    assert known.parent_id is not None
    return _step_of(known.parent_id, known)


@transaction.atomic
def undo(project: Project, based_on: int) -> Step:
    """Go to the revision before. Raises `Stale`, or `BadInput` at the first."""
    project = _fresh(project, based_on)
    head = head_of(project)
    if head.parent is None:
        raise BadInput("There is nothing to undo.")
    Revision.objects.filter(pk=head.parent_id).update(next=head)
    _move_head(project, head.parent)
    return Step(head.pk, head.parent, head.back)


@transaction.atomic
def redo(project: Project, based_on: int) -> Step:
    """Go forward again the way it was last gone."""
    project = _fresh(project, based_on)
    ahead = head_of(project).next
    if ahead is None:
        raise BadInput("There is nothing to redo.")
    _move_head(project, ahead)
    return Step(based_on, ahead, ahead.forward)


@transaction.atomic
def go_to(project: Project, based_on: int, revision: int) -> Revision:
    """Go to any revision; what was done since stays in the tree, as a branch of its own."""
    project = _fresh(project, based_on)
    target = revision_of(project, revision)
    # So that "do again" leads back here from anywhere above.
    ways = {pk: (up, on) for pk, up, on in project.revisions.values_list("pk", "parent", "next")}
    child, parent = target.pk, target.parent_id
    while parent is not None:
        if ways[parent][1] != child:
            Revision.objects.filter(pk=parent).update(next=child)
        child, parent = parent, ways[parent][0]
    _move_head(project, target)
    return target


def steps_of(project: Project, most: int) -> tuple[list[Revision], set[int]]:
    """The newest revisions, oldest first, and the ids of those that lead to the head or on from it."""
    tree = {
        revision.pk: revision
        for revision in project.revisions.only(
            "id", "parent_id", "next_id", "number", "label", "made_at", "project_id"
        )
    }
    path = set()
    at: int | None = project.head_id
    while at is not None:
        path.add(at)
        at = tree[at].parent_id
    at = tree[head_of(project).pk].next_id
    while at is not None:
        path.add(at)
        at = tree[at].next_id
    return list(tree.values())[-most:], path


def _fresh(project: Project, based_on: int) -> Project:
    """The project as it is now in this transaction, which holds the write lock."""
    now = Project.objects.select_related("head__parent", "head__next").get(pk=project.pk)
    if now.head_id != based_on:
        raise Stale("The project was changed elsewhere in the meantime.")
    return now


def _move_head(project: Project, revision: Revision) -> None:
    project.head = revision
    project.save(update_fields=["head", "changed_at"])

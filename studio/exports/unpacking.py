"""An archive of a project, unpacked into one that is empty.

Everything can be done again: takes are named by the archive and what they are called in it, and the
film comes by one step of a known seed, so a worker that takes over does what is missing.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Final
from uuid import UUID, uuid5

from django.core.files import File
from django.core.files.base import ContentFile
from django.db import transaction

from kitecore.document import load
from kitecore.document.references import Kind, renamed
from kitecore.edits.take_over import TakeOver
from kitecore.errors import BadInput, Superseded
from kitecore.exchange.archives import (
    CONTENT,
    MEDIA,
    ArchivedPart,
    ArchivedTake,
    OpenedArchive,
    opened,
)
from kitecore.exchange.timelines import MOST_BYTES, TimelineRead, settle
from kitecore.media.info import MediaInfo
from studio.exports.media import media_of
from studio.exports.reaching import within_reach
from studio.jobs.kinds import WAITED_FOR, JobKind, Later, Note, Outcome, job_kinds
from studio.jobs.models import Job
from studio.kit.bringing import new_font, new_look
from studio.kit.models import Font, Look
from studio.kit.reading import read_apart
from studio.library.models import Take, require_room
from studio.library.work import take_in
from studio.problems import Stale
from studio.projects import history
from studio.projects.models import Project

_SOON: Final = 1.5
"""Seconds until it is looked again whether takes are ready."""


def _run(job: Job, note: Note) -> Outcome:
    upload = Take.objects.filter(pk=UUID(job.subject), removed=False).first()
    if upload is None or upload.project is None:
        raise Superseded("The archive was given up.")
    project = upload.project
    with opened(upload.folder.original) as archive:
        _require_empty(project, job)
        takes = _takes(upload, archive, note)
        _bring_in(upload, archive, takes, note)
        ids = [_id(upload, take) for take in takes]
        coming = (Take.State.ARRIVING, Take.State.WAITING)
        if Take.objects.filter(pk__in=ids, state__in=coming).exists():
            return Later(_SOON, "takes")
        edit, remarks = _film(upload, project, archive)
    _lay(project, edit.model_copy(update={"seed": _seed(job)}))
    if archive.project is not None:
        Project.objects.filter(pk=project.pk, name=_stem(upload.name)).update(
            name=archive.project.name or project.name
        )
    upload.removed = True
    upload.save(update_fields=["removed"])
    upload.folder.original.unlink(missing_ok=True)
    return {"remarks": list(remarks)}


def _seed(job: Job) -> str:
    return f"unpack-{job.subject[:32]}"


def _stem(name: str) -> str:
    return name.rpartition(".")[0] or name


def _require_empty(project: Project, job: Job) -> None:
    """Raises `BadInput` if there is a film, unless it came from here."""
    document = history.document_at(history.head_of(project))
    laid = project.revisions.filter(seed=_seed(job)).exists()
    if not laid and any(track.clips for track in document.tracks):
        raise BadInput(
            "This project has a film already.", todo="Open the archive from the list of projects."
        )


def _takes(upload: Take, archive: OpenedArchive, note: Note) -> list[ArchivedTake]:
    """What is told of its takes; in bundles of other programs their names are all there is."""
    note(0.0, "unpacking")
    if archive.project is not None:
        return list(archive.project.takes)
    return [
        ArchivedTake(media=name[:64], name=name.removeprefix(MEDIA)[-200:], file=name)
        for name in archive.media
    ]


def _id(upload: Take, take: ArchivedTake) -> UUID:
    """Of the take that this one becomes here."""
    return uuid5(upload.id, take.file or take.media)


def _bring_in(upload: Take, archive: OpenedArchive, takes: list[ArchivedTake], note: Note) -> None:
    missing = [one for one in takes if not Take.objects.filter(pk=_id(upload, one)).exists()]
    held = [one for one in missing if one.file in archive.files]
    require_room(upload.owner_id, sum(archive.files[one.file].file_size for one in held))
    whole, done = archive.weight or 1, 0

    def heard(count: int) -> None:
        nonlocal done
        done += count
        note(min(0.99, done / whole), "unpacking")

    for order, one in enumerate(missing):
        take = _new_take(upload, one, order)
        if one.file in archive.files:
            take.folder.path.mkdir(parents=True, exist_ok=True)
            archive.extract(one.file, take.folder.original, heard)
            take.bytes = take.received = archive.files[one.file].file_size
            with transaction.atomic():
                take.save()
                take_in(take)
        elif take.facts is not None:
            take.state = Take.State.READY
            take.save()


def _new_take(upload: Take, one: ArchivedTake, order: int) -> Take:
    """Not kept yet. Without its file it is a lost one, found again by its digest."""
    lost = not one.file
    return Take(
        id=_id(upload, one),
        owner=upload.owner,
        project=upload.project,
        name=one.name,
        order=upload.order + order,
        bytes=0,
        state=Take.State.WAITING,
        facts=MediaInfo.model_validate(one.facts).model_dump(mode="json")
        if lost and one.facts
        else None,
        digest=one.digest if lost else "",
        mark_in=one.mark_in,
        mark_out=one.mark_out,
        stars=one.stars,
        tag=one.tag,
    )


def _film(
    upload: Take, project: Project, archive: OpenedArchive
) -> tuple[TakeOver, tuple[str, ...]]:
    """The step that lays the film, on what came with it."""
    owner = upload.owner_id
    if archive.project is None:
        given = ContentFile(archive.text(CONTENT), name=CONTENT)
        read = TimelineRead.model_validate_json(read_apart("timeline", given, MOST_BYTES))
        document = history.document_at(history.head_of(project))
        taken = settle(read, media_of(project, document), document)
        edit, lost = within_reach(taken.edit, owner)
        missing = tuple(f"“{name}” is not in the archive." for name in taken.missing)
        return edit, (*taken.remarks, *missing, *lost)
    document = load(dict(archive.project.document))
    takes = {one.media: _id(upload, one).hex for one in archive.project.takes}
    parts = _parts(upload, archive)

    def name(kind: Kind, told: str) -> str:
        return takes.get(told, told) if kind == "take" else parts.get((kind, told), told)

    edit = TakeOver.of(document, archive.project.name)
    return within_reach(renamed(edit, name), owner)


def _parts(upload: Take, archive: OpenedArchive) -> dict[tuple[Kind, str], str]:
    """Looks and fonts brought into the Kit, by what the document calls them; those it has stay."""
    assert archive.project is not None
    project = archive.project
    found: dict[tuple[Kind, str], str] = {}
    rows: tuple[tuple[Kind, Any, Any, tuple[ArchivedPart, ...]], ...] = (
        ("look", Look, new_look, project.looks),
        ("font", Font, new_font, project.fonts),
    )
    for kind, model, bring_in, parts in rows:
        for part in parts:
            own = uuid5(upload.id, part.id)
            ids = (_uuid(part.id), own)
            known = model.objects.filter(owner=upload.owner, pk__in=ids).first()
            made = known or bring_in(upload.owner, _file(archive, part), own)
            found[kind, part.id] = made.id.hex
    return found


def _uuid(text: str) -> UUID:
    try:
        return UUID(text)
    except ValueError:
        raise BadInput("The project in this archive cannot be read.") from None


def _file(archive: OpenedArchive, part: ArchivedPart) -> File:
    return ContentFile(archive.text(part.file), name=part.name or "unnamed")


def _lay(project: Project, edit: TakeOver) -> None:
    """Once, whatever a person does meanwhile."""
    while True:
        project.refresh_from_db()
        assert project.head_id is not None
        try:
            history.apply_edit(project, project.head_id, edit)
            return
        except Stale:
            continue


def _came_to_nothing(job: Job, problem: Mapping[str, str]) -> None:
    Take.objects.filter(pk=UUID(job.subject), removed=False).update(
        state=Take.State.REFUSED, problem=dict(problem)
    )


def _wait_again(job: Job) -> None:
    Take.objects.filter(pk=UUID(job.subject)).update(state=Take.State.WAITING, problem=None)


job_kinds.register("unpack")(
    JobKind(run=_run, priority=WAITED_FOR, failed=_came_to_nothing, again=_wait_again)
)

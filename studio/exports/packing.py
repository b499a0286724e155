"""A project with all that it needs as one file, to be opened elsewhere or by somebody else."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any, Final
from uuid import UUID

from django.conf import settings
from django.db import transaction
from django.db.models.signals import post_delete
from django.dispatch import receiver

from kitecore.document import Document, dump
from kitecore.document.references import Kind, references
from kitecore.errors import Superseded
from kitecore.exchange.archives import (
    MEDIA,
    ArchivedPart,
    ArchivedProject,
    ArchivedTake,
    pack,
)
from kitecore.exchange.timelines import write_timeline
from studio.exports.media import media_of, takes_of
from studio.files import plain_name, require_free
from studio.jobs.kinds import IN_PARTS, JobKind, Note, job_kinds
from studio.jobs.models import Job
from studio.jobs.queue import cancel, hand_out
from studio.kit.models import Font, Look, font_folder, look_folder
from studio.library.models import Take
from studio.projects import history
from studio.projects.models import Project

KIND: Final = "pack"
_KEPT: Final = ("name", "digest", "facts", "mark_in", "mark_out", "ranges", "stars", "tag")


def path_of(job: Job) -> Path:
    return settings.EXPORT_DIR / "archives" / f"{job.id.hex}.otioz"


def newest(project: Project) -> Job | None:
    return Job.objects.filter(kind=KIND, subject=project.id.hex).order_by("-made_at").first()


@transaction.atomic
def ask_for(project: Project, *, originals: bool) -> Job:
    """The job that packs a project as it is now, in place of what was packed before."""
    forget(project.id)
    args = {"revision": history.head_of(project).pk, "originals": originals}
    return hand_out(project.owner, KIND, project.id.hex, args=args)


def forget(project_id: UUID) -> None:
    for job in Job.objects.filter(kind=KIND, subject=project_id.hex):
        if job.unfinished:
            cancel(job)
        path_of(job).unlink(missing_ok=True)
        job.delete()


@receiver(post_delete, sender=Project)
def take_the_archive_along(instance: Project, **_: Any) -> None:
    forget(instance.id)


def _make(job: Job, note: Note) -> dict[str, int]:
    project = Project.objects.filter(pk=UUID(job.subject), owner=job.owner_id).first()
    if project is None:
        raise Superseded("The project was deleted.")
    document = history.document_at(history.revision_of(project, job.args["revision"]))
    takes = list(takes_of(project, document))
    names = {take.id.hex: _file_of(take) for take in takes}
    files = {}
    if job.args["originals"]:
        files = {names[take.id.hex]: take.folder.original for take in takes}
    files = {name: file for name, file in files.items() if file.is_file()}
    looks, fonts = _parts(document, "look"), _parts(document, "font")
    files |= {part.file: look_folder().file(part.id) for part in looks}
    files |= {part.file: font_folder().file(part.id) for part in fonts}
    told = ArchivedProject(
        name=project.name,
        document=dump(document),
        takes=tuple(_told_of(take, names[take.id.hex], files) for take in takes),
        looks=looks,
        fonts=fonts,
    )
    timeline = write_timeline(document, project.name, media_of(project, document), names)
    _write(path_of(job), told, timeline, files, note)
    return {"bytes": path_of(job).stat().st_size}


def _write(
    path: Path, told: ArchivedProject, timeline: str, files: dict[str, Path], note: Note
) -> None:
    whole = sum(file.stat().st_size for file in files.values()) or 1
    require_free(path.parent, whole)
    done = 0

    def heard(count: int) -> None:
        nonlocal done
        done += count
        note(done / whole, "packing")

    pack(path, told, timeline, files, heard)


def _told_of(take: Take, name: str, files: dict[str, Path]) -> ArchivedTake:
    told = {one: getattr(take, one) for one in _KEPT}
    return ArchivedTake(media=take.id.hex, file=name if name in files else "", **told)


def _file_of(take: Take) -> str:
    return MEDIA + plain_name(take.name, take.id.hex)


def _parts(document: Document, kind: Kind) -> tuple[ArchivedPart, ...]:
    """Looks or fonts of the person's that a document uses."""
    model, folder = _FOLDERS[kind]
    ids = sorted(name for one, name in references(document) if one == kind)
    own = [id for id in ids if re.fullmatch("[0-9a-f]{32}", id) and folder().file(id).exists()]
    titles = {one.id.hex: one.name for one in model._default_manager.filter(pk__in=own)}
    return tuple(
        ArchivedPart(id=id, name=titles.get(id, kind), file=f"velvet-kite/{kind}s/{id}")
        for id in own
    )


_FOLDERS: Final[dict[Kind, Any]] = {"look": (Look, look_folder), "font": (Font, font_folder)}


def _forget_file(job: Job, problem: object) -> None:
    path_of(job).unlink(missing_ok=True)


job_kinds.register(KIND)(JobKind(run=_make, priority=IN_PARTS, failed=_forget_file))

"""Making films: their pieces, each a job of its own, then joining them.

Everything can be done again: a piece is a file named by its content, so a worker that takes over
finds what is finished, and a later export of nearly the same project does too.
"""

from __future__ import annotations

import os
from pathlib import Path
from uuid import uuid4

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction

from kitecore.errors import BadInput, RenderFailed, Superseded
from kitecore.render.export import ExportSettings, encode_piece, join, piece_key, plan
from kitecore.render.sources import Sources
from studio.accounts.allowances import allowed_to
from studio.exports.models import Export
from studio.jobs.kinds import IN_PARTS, PUT_TOGETHER, InParts, JobKind, Note, Part, job_kinds
from studio.jobs.models import Job
from studio.jobs.queue import hand_out
from studio.kit.models import font_folder, look_folder
from studio.library.models import folder_of
from studio.playback.store import PieceStore
from studio.projects import history
from studio.projects.models import Project, Revision


def piece_store() -> PieceStore:
    return PieceStore(settings.CACHE_DIR / "encoded", settings.EXPORT_PIECE_BYTES)


@transaction.atomic
def start(owner: User, project: Project, revision: Revision, wanted: ExportSettings) -> Export:
    """A film of a revision, handed out.

    Raises
    ------
    BadInput
        If the person has as many unfinished films as one may have.
    """
    unfinished = Job.objects.unfinished().filter(owner=owner, kind="film").count()
    if unfinished >= allowed_to(owner.pk).unfinished_films:
        raise BadInput(
            f"{unfinished} of your films are not finished yet.",
            todo="Wait for one of them, or cancel one.",
        )
    id = uuid4()
    job = hand_out(owner, "film", id.hex)
    return Export.objects.create(
        id=id,
        owner=owner,
        project=project,
        revision=revision,
        job=job,
        title=project.name,
        settings=wanted.model_dump(),
    )


def _make_film(job: Job, note: Note) -> InParts | None:
    """Plan the pieces; once all of them are there, put them together and add the sound."""
    export = Export.objects.select_related("revision").filter(job=job).first()
    if export is None:
        raise Superseded("The film was deleted.")
    missing = _missing(export, note) if job.parts.exists() else _planned(export, note)
    if missing:
        return InParts(missing)
    _join(export, note)
    return None


def _planned(export: Export, note: Note) -> list[Part]:
    note(0.0, "planning")
    document, wanted = history.document_at(export.revision), export.wanted
    parts = []
    for numbers in plan(document, wanted):
        key = piece_key(document, wanted, numbers, folder_of)
        args = {"film": str(export.id), "first": numbers.start, "last": numbers.stop}
        parts.append(Part("piece", key, args))
        note(0.0, "planning")
    return parts


def _missing(export: Export, note: Note) -> list[Part]:
    """Pieces that were made and are gone since: somebody cleared the cache."""
    gone = [one for one in export.job.parts.all() if not piece_store().path(one.subject).exists()]
    export.job.parts.filter(pk__in=[one.pk for one in gone]).delete()
    return [Part(one.kind, one.subject, one.args) for one in gone]


def _make_piece(job: Job, note: Note) -> None:
    """Encode one piece, unless it is there already."""
    path = piece_store().path(job.subject)
    if path.exists():
        os.utime(path)
        return
    export = Export.objects.select_related("revision").filter(pk=job.args["film"]).first()
    if export is None:
        raise Superseded("The film was deleted.")
    numbers = range(job.args["first"], job.args["last"])
    path.parent.mkdir(parents=True, exist_ok=True)
    own = path.with_name(f"{path.name}-{job.claim}")
    sources = _sources()
    try:
        encode_piece(
            history.document_at(export.revision),
            export.wanted,
            numbers,
            own,
            sources,
            lambda number: note((number + 1 - numbers.start) / len(numbers)),
        )
        own.replace(path)
    finally:
        sources.close()
        for left in path.parent.glob(f"{own.name}*"):
            left.unlink(missing_ok=True)


def _sources() -> Sources:
    return Sources(folder_of, threads=2, find_look=look_folder().find, find_font=font_folder().find)


def _join(export: Export, note: Note) -> None:
    note(0.0, "joining")
    parts = sorted(export.job.parts.all(), key=lambda part: int(part.args["first"]))
    paths = [piece_store().path(part.subject) for part in parts]
    export.path.parent.mkdir(parents=True, exist_ok=True)
    document, sources = history.document_at(export.revision), _sources()
    try:
        join(
            document, export.wanted, paths, export.path, sources, title=export.title, progress=note
        )
    except RenderFailed:
        _forget(paths)
        raise
    finally:
        sources.close()
    Export.objects.filter(pk=export.pk).update(bytes=export.path.stat().st_size)
    _prune()


def _forget(paths: list[Path]) -> None:
    """One of these is broken: made anew, the film can be tried again."""
    for path in paths:
        path.unlink(missing_ok=True)


def _prune() -> None:
    """Let the longest unused pieces go, but none that an unfinished film counts on."""
    wanted = Job.objects.filter(kind="piece", parent__in=Job.objects.unfinished())
    piece_store().prune(keep=frozenset(wanted.values_list("subject", flat=True)))


job_kinds.register("film")(JobKind(run=_make_film, priority=PUT_TOGETHER))
job_kinds.register("piece")(JobKind(run=_make_piece, priority=IN_PARTS))

"""Making films: their pieces, each a job of its own, then joining them.

Everything can be done again: a piece is a file named by its content, so a worker that takes over
finds what is finished, and a later export of nearly the same project does too.
"""

from __future__ import annotations

import os
from contextlib import closing, suppress
from math import ceil, log2
from pathlib import Path
from uuid import uuid4

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from huey.contrib.djhuey import on_startup

from kitecore.analysis import analyse
from kitecore.document import all_clips
from kitecore.errors import BadInput, RenderFailed, Superseded
from kitecore.render.cutting import cuts_through
from kitecore.render.estimating import CRF_TO_HALVE, fitting_crf
from kitecore.render.export import ExportSettings, piece_key, plan, tags_of
from kitecore.render.handed import PieceTask, encode
from kitecore.render.making.format import Joining, Pieced
from studio.accounts.allowances import allowed_to
from studio.exports import packing, unpacking  # noqa: F401  they register their kinds of jobs
from studio.exports.checks import look_over
from studio.exports.estimates import try_out
from studio.exports.models import Export
from studio.exports.sources import make_sources
from studio.jobs.kinds import (
    IN_PARTS,
    PUT_TOGETHER,
    WAITED_FOR,
    InParts,
    JobKind,
    Note,
    Part,
    job_kinds,
)
from studio.jobs.models import Job
from studio.jobs.queue import hand_out
from studio.library.arrival import bring_in
from studio.library.models import folder_of
from studio.playback.store import PieceStore
from studio.projects import history
from studio.projects.models import Project, Revision


def piece_store() -> PieceStore:
    return PieceStore(settings.CACHE_DIR / "encoded", settings.EXPORT_PIECE_BYTES)


@transaction.atomic
def start(
    owner: User,
    project: Project,
    revision: Revision,
    wanted: ExportSettings,
    *,
    as_take: bool = False,
) -> Export:
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
        as_take=as_take and wanted.recipe.kind != "pictures",
    )


def _make_film(job: Job, note: Note) -> InParts | None:
    """Plan the pieces; once all of them are there, put them together and add the sound."""
    export = Export.objects.select_related("revision").filter(job=job).first()
    if export is None:
        raise Superseded("The film was deleted.")
    if not job.parts.exists():
        note(0.0, "planning")
        _choose_crf(export, note)
        missing = _planned(export, note)
    else:
        missing = _missing(export)
    if missing:
        return InParts(missing)
    _join(export, note)
    if _too_large(export):
        _make_coarser(export)
        return InParts(_planned(export, note))
    _hand_over(export)
    return None


def _choose_crf(export: Export, note: Note) -> None:
    """Where a film may only weigh so much: how coarse it has to be, by trials."""
    wanted = export.wanted
    if not wanted.most_bytes or export.crf is not None:
        return
    work = export.work(history.document_at(export.revision))
    with closing(make_sources()) as sources:
        export.crf = fitting_crf(
            work, wanted.recipe, wanted.most_bytes, sources, lambda _: note(0.0, "trying")
        )
    export.save(update_fields=["crf"])


def _planned(export: Export, note: Note) -> list[Part]:
    recipe = export.wanted.recipe
    if not isinstance(recipe, Pieced):
        return []
    work, parts = export.work(history.document_at(export.revision)), []
    for media, cut in cuts_through(all_clips(work.document.tracks)):
        # Found once, before the pieces are given out: each of them would look for it again.
        analyse(folder_of(media), "cut", cut, lambda _, share: note(0.0, "planning"))
    for numbers in plan(work):
        key = piece_key(work, recipe, numbers, folder_of)
        args = {"film": str(export.id), "first": numbers.start, "last": numbers.stop}
        parts.append(Part("piece", key, args))
        note(0.0, "planning")
    return parts


def _too_large(export: Export) -> bool:
    wanted = export.wanted
    return 0 < wanted.most_bytes < export.bytes and wanted.recipe.coarseness is not None


def _make_coarser(export: Export) -> None:
    """Make it anew so that it weighs less.

    Raises
    ------
    BadInput
        If that cannot be done.
    """
    values = export.wanted.recipe.coarseness
    assert values is not None and export.crf is not None
    export.path.unlink(missing_ok=True)
    if export.crf >= values[-1]:
        raise BadInput(
            f"This film does not fit into {export.wanted.most_bytes / 1e6:g} MB.",
            todo="Choose a smaller size, fewer frames a second, or more megabytes.",
        )
    steps = ceil(CRF_TO_HALVE * log2(export.bytes / export.wanted.most_bytes))
    export.crf, export.bytes = min(export.crf + steps, values[-1]), 0
    export.save(update_fields=["crf", "bytes"])
    export.job.parts.all().delete()


def _hand_over(export: Export) -> None:
    """Into the library, once; with no room there it stays a film that can be put there later."""
    with suppress(BadInput), transaction.atomic():
        if Export.objects.filter(pk=export.pk, as_take=True).update(as_take=False):
            bring_in(export.project, export.filename, export.path)


def _missing(export: Export) -> list[Part]:
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
    export, numbers = _part_of(job)
    path.parent.mkdir(parents=True, exist_ok=True)
    work = export.work(history.document_at(export.revision))
    with closing(make_sources()) as sources:
        encode(export.wanted, work, numbers, path, sources, note)


def _part_of(job: Job) -> tuple[Export, range]:
    """The film and the frames of a piece."""
    export = Export.objects.select_related("revision").filter(pk=job.args["film"]).first()
    if export is None:
        raise Superseded("The film was deleted.")
    return export, range(job.args["first"], job.args["last"])


def _task_of(job: Job, id: str) -> PieceTask | None:
    """A piece for another machine; none if it is there."""
    if piece_store().path(job.subject).exists():
        return None
    export, numbers = _part_of(job)
    document = history.document_at(export.revision)
    given = export.wanted, export.crf, numbers, settings.MEDIA_DIR
    return PieceTask.of(id, job.subject, document, *given)


@on_startup()
def hand_pieces_to_other_machines() -> None:
    if settings.REDIS_URL:
        from studio.distant.relay import start_relay

        start_relay(settings.REDIS_URL, _task_of)


def _join(export: Export, note: Note) -> None:
    note(0.0, "joining")
    parts = sorted(export.job.parts.all(), key=lambda part: int(part.args["first"]))
    paths = [piece_store().path(part.subject) for part in parts]
    export.path.parent.mkdir(parents=True, exist_ok=True)
    work = export.work(history.document_at(export.revision))
    tags = tags_of(work, export.title)
    try:
        with closing(make_sources()) as sources:
            joining = Joining(
                paths, export.path, sources, tags, lambda share: note(share, "joining")
            )
            export.wanted.recipe.join(work, joining)
    except RenderFailed:
        _forget(paths)
        raise
    export.bytes = export.path.stat().st_size
    export.save(update_fields=["bytes"])
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
job_kinds.register("estimate")(JobKind(run=try_out, priority=WAITED_FOR))
job_kinds.register("check")(JobKind(run=look_over, priority=WAITED_FOR))

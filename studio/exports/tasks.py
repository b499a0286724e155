"""Making exports: each piece a task of its own, then one that joins them.

Everything can be done again: a piece is a file named by its content, so a worker that takes over
finds what is finished, and a later export of nearly the same project does too.
"""

from __future__ import annotations

import logging
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from time import monotonic

from django.conf import settings
from django.db import transaction
from django.db.models import Q
from django.utils import timezone
from huey import crontab
from huey.contrib.djhuey import db_periodic_task, db_task, on_startup

from kitecore.document import Document
from kitecore.errors import KiteError, RenderFailed, Superseded
from kitecore.render.export import encode_piece, join, piece_key, plan
from kitecore.render.sources import Sources
from studio.exports.models import Export, Piece
from studio.kit.models import font_folder, look_folder
from studio.library.models import folder_of
from studio.library.tasks import tend_takes
from studio.playback.store import PieceStore
from studio.problems import Problem
from studio.projects import history

log = logging.getLogger(__name__)

SILENT = timedelta(seconds=settings.WORKER_SILENCE)
ATTEMPTS = 3
_BEAT = 0.7
"""Seconds between two notes of progress."""


def piece_store() -> PieceStore:
    return PieceStore(settings.CACHE_DIR / "encoded", settings.EXPORT_PIECE_BYTES)


@transaction.atomic
def start(export: Export) -> None:
    """Plan the pieces and hand them out."""
    document, wanted = history.document_at(export.revision), export.wanted
    for numbers in plan(document, wanted):
        key = piece_key(document, wanted, numbers, folder_of)
        Piece.objects.create(export=export, first=numbers.start, last=numbers.stop, key=key)
    transaction.on_commit(lambda: [make_piece(p.pk) for p in export.pieces.all()] and None)


@db_task()
def make_piece(piece_id: int) -> None:
    """Encode one piece, unless it is there already."""
    if not _claim(piece_id):
        return
    piece = Piece.objects.select_related("export__revision").get(pk=piece_id)
    export = piece.export
    path = piece_store().path(piece.key)
    try:
        if not path.exists():
            _encode(export, piece, path)
    except Superseded:
        return
    except KiteError as error:
        _fail(export, error)
        return
    except Exception as error:
        log.exception("a piece could not be encoded")
        _fail(export, RenderFailed(f"Encoding failed ({type(error).__name__})."))
        return
    Piece.objects.filter(pk=piece_id).update(state=Piece.State.DONE, done=piece.last - piece.first)
    if not export.pieces.exclude(state=Piece.State.DONE).exists():
        join_export(str(export.id))


def _claim(piece_id: int) -> bool:
    """Take a waiting piece of a wanted export; false if somebody else has it."""
    now = timezone.now()
    waiting = Piece.objects.filter(
        pk=piece_id, state=Piece.State.WAITING, export__state__in=Export.UNFINISHED
    )
    piece = waiting.first()
    if piece is None or not waiting.update(
        state=Piece.State.WORKING, heartbeat=now, attempts=piece.attempts + 1
    ):
        return False
    Export.objects.filter(pk=piece.export_id, state=Export.State.WAITING).update(
        state=Export.State.WORKING, started_at=now, heartbeat=now
    )
    return True


def _encode(export: Export, piece: Piece, path: Path) -> None:
    document = history.document_at(export.revision)
    path.parent.mkdir(parents=True, exist_ok=True)
    own = path.with_name(f"{path.name}-{piece.pk}")
    numbers = range(piece.first, piece.last)
    sources = _sources()
    try:
        encode_piece(document, export.wanted, numbers, own, sources, _note_frames(piece))
    finally:
        sources.close()
    own.replace(path)


def _sources() -> Sources:
    return Sources(folder_of, threads=2, find_look=look_folder().find, find_font=font_folder().find)


def _note_frames(piece: Piece) -> Callable[[int], None]:
    """Writes down now and then how far the piece is; raises once the export is not wanted."""
    last = monotonic()

    def note(number: int) -> None:
        nonlocal last
        if monotonic() - last < _BEAT:
            return
        last = monotonic()
        done = number + 1 - piece.first
        Piece.objects.filter(pk=piece.pk).update(done=done, heartbeat=timezone.now())
        _require_wanted(piece.export_id)

    return note


def _require_wanted(export_id: object) -> None:
    if not Export.objects.filter(pk=export_id, state__in=Export.UNFINISHED).exists():
        raise Superseded("The export was cancelled.")


@db_task()
def join_export(export_id: str) -> None:
    """Put the finished pieces together and add the sound."""
    now = timezone.now()
    ready = Export.objects.filter(pk=export_id, state=Export.State.WORKING)
    if not ready.update(state=Export.State.JOINING, heartbeat=now):
        return
    export = Export.objects.select_related("revision").get(pk=export_id)
    try:
        _join(export, history.document_at(export.revision))
    except Superseded:
        return
    except KiteError as error:
        _fail(export, error)
    except Exception as error:
        log.exception("an export could not be joined")
        _fail(export, RenderFailed(f"Joining the pieces failed ({type(error).__name__})."))


def _join(export: Export, document: Document) -> None:
    paths = [piece_store().path(piece.key) for piece in export.pieces.all()]
    export.path.parent.mkdir(parents=True, exist_ok=True)
    last = monotonic()

    def beat(share: float) -> None:
        nonlocal last
        if monotonic() - last > _BEAT:
            last = monotonic()
            Export.objects.filter(pk=export.pk).update(heartbeat=timezone.now())
            _require_wanted(export.pk)

    sources = _sources()
    try:
        join(
            document, export.wanted, paths, export.path, sources, title=export.title, progress=beat
        )
    finally:
        sources.close()
    Export.objects.filter(pk=export.pk, state=Export.State.JOINING).update(
        state=Export.State.DONE, finished_at=timezone.now(), bytes=export.path.stat().st_size
    )
    piece_store().prune()


def _fail(export: Export, error: KiteError) -> None:
    Export.objects.filter(pk=export.pk, state__in=Export.UNFINISHED).update(
        state=Export.State.FAILED,
        problem=Problem.of(error).model_dump(),
        finished_at=timezone.now(),
    )


@db_periodic_task(crontab(minute="*"))
def tend_exports() -> None:
    """Give out again what a worker left unfinished."""
    since = timezone.now() - SILENT
    silent = Q(heartbeat__lt=since) | Q(heartbeat=None, export__made_at__lt=since)
    left = Piece.objects.filter(export__state__in=Export.UNFINISHED)
    for piece in left.filter(silent).exclude(state=Piece.State.DONE).select_related("export"):
        if piece.attempts >= ATTEMPTS:
            _fail(piece.export, RenderFailed("A part of the film fails again and again."))
            continue
        Piece.objects.filter(pk=piece.pk).update(state=Piece.State.WAITING, heartbeat=None)
        make_piece(piece.pk)
    for export in Export.objects.filter(state__in=Export.UNFINISHED, heartbeat__lt=since):
        if not export.pieces.exclude(state=Piece.State.DONE).exists():
            _join_again(export)


def _join_again(export: Export) -> None:
    if export.attempts >= ATTEMPTS:
        _fail(export, RenderFailed("The film could not be put together."))
        return
    Export.objects.filter(pk=export.pk).update(
        state=Export.State.WORKING, attempts=export.attempts + 1
    )
    join_export(str(export.id))


@on_startup()
def look_after_what_was_left() -> None:
    """A worker that starts looks at once, and again when a killed one counts as gone."""
    for tend in (tend_exports, tend_takes):
        tend.schedule(delay=1)
        tend.schedule(delay=SILENT.total_seconds() + 3)

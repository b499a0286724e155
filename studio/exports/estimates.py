"""What a file would weigh and take: trials in the background, their results kept by content."""

from __future__ import annotations

from contextlib import closing
from typing import Final

from django.db import transaction

from kitecore.errors import Superseded
from kitecore.render.estimating import estimate
from kitecore.render.export import ExportSettings
from kitecore.render.extract import content_key
from kitecore.ticks import Span
from studio.exports.sources import make_sources
from studio.jobs import queue
from studio.jobs.kinds import Note
from studio.jobs.models import Job, State
from studio.library.models import folder_of
from studio.projects import history
from studio.projects.models import Project, Revision

_KIND: Final = "estimate"
_MOST: Final = 12
"""Trials that one person may wait for; of more, the oldest are given up."""


@transaction.atomic
def estimate_of(project: Project, revision: Revision, wanted: ExportSettings) -> Job:
    """The trial of a file: one that was made of the same content, or is being made, or a new one.

    Raises
    ------
    BadInput
        If there is nothing to make.
    """
    subject = _key(revision, wanted)
    mine = Job.objects.filter(owner=project.owner, kind=_KIND)
    found = mine.filter(subject=subject).exclude(state__in=(State.FAILED, State.CANCELLED)).last()
    if found is not None:
        return found
    for old in mine.unfinished().order_by("-made_at")[_MOST - 1 :]:
        queue.cancel(old)
    args = {"revision": revision.pk, "settings": wanted.model_dump()}
    return queue.hand_out(project.owner, _KIND, subject, args=args)


def _key(revision: Revision, wanted: ExportSettings) -> str:
    document = history.document_at(revision)
    wanted.work(document)
    span = Span(0, document.length)
    picture, sound = (
        content_key(document, span, folder_of, wanted.model_dump_json(), heard=heard)
        for heard in (False, True)
    )
    return f"{picture}-{sound}"


def try_out(job: Job, note: Note) -> dict[str, float]:
    """Make some stretches of a file, and weigh them."""
    revision = Revision.objects.filter(pk=job.args["revision"]).first()
    if revision is None:
        raise Superseded("The project was deleted.")
    wanted = ExportSettings.model_validate(job.args["settings"])
    work = wanted.work(history.document_at(revision))
    with closing(make_sources()) as sources:
        found = estimate(work, wanted.recipe, sources, note)
    return {"bytes": found.bytes, "seconds": found.seconds}

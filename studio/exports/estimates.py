"""What a file would weigh and take: trials in the background, their results kept by content."""

from __future__ import annotations

from contextlib import closing
from typing import Final

from django.db import transaction

from kitecore.render.estimating import estimate
from kitecore.render.export import ExportSettings
from kitecore.render.extract import content_key
from kitecore.ticks import Span
from studio.exports.sources import make_sources
from studio.exports.trials import document_of
from studio.jobs import queue
from studio.jobs.kinds import Note
from studio.jobs.models import Job, State
from studio.library.models import folder_of
from studio.projects import history
from studio.projects.models import Project, Revision

_KIND: Final = "estimate"
_MOST: Final = 12
"""Trials that one person may wait for; of more, and of a film that has changed, the old are given up."""


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
    of = {"project": project.pk.hex, "revision": revision.pk}
    waiting = mine.unfinished().order_by("-made_at")
    outdated = waiting.filter(args__project=of["project"]).exclude(args__revision=revision.pk)
    for old in {*outdated, *waiting[_MOST - 1 :]}:
        queue.cancel(old)
    args = of | {"settings": wanted.model_dump()}
    return queue.hand_out(project.owner, _KIND, subject, args=args)


def weight_of(project: Project, revision: Revision, wanted: ExportSettings) -> int | None:
    """What trials found that a file would weigh; None as long as that is not known."""
    found = Job.objects.filter(
        owner=project.owner, kind=_KIND, subject=_key(revision, wanted), state=State.DONE
    ).last()
    return found.result["bytes"] if found and found.result else None


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
    wanted = ExportSettings.model_validate(job.args["settings"])
    work = wanted.work(document_of(job))
    with closing(make_sources()) as sources:
        found = estimate(work, wanted.recipe, sources, note)
    steered = wanted.most_bytes and wanted.recipe.coarseness is not None
    bytes = min(found.bytes, wanted.most_bytes) if steered else found.bytes
    return {"bytes": bytes, "seconds": found.seconds}

"""What is to be seen to before a film goes out: looked at in the background, only what changed anew."""

from __future__ import annotations

from contextlib import closing
from typing import Any, Final

from django.db import transaction

from kitecore.document import Document
from kitecore.errors import BadInput
from kitecore.render.checking import Film, lines_of
from kitecore.render.checking.pictures import (
    PictureFacts,
    facts_key,
    joined,
    measure,
    packed,
    pieces_of,
    unpacked,
)
from kitecore.render.checking.sounds import SoundFacts, sound_facts
from kitecore.render.destinations import DESTINATIONS, Destination
from kitecore.render.export import ExportSettings
from kitecore.render.levels import Stretch, measured_stretch, stretches_of
from kitecore.render.sources import Sources
from studio.exports.sources import make_sources
from studio.exports.trials import document_of
from studio.jobs import queue
from studio.jobs.kinds import Note
from studio.jobs.models import Job, State
from studio.library.models import folder_of
from studio.playback.levels import stretch_key
from studio.playback.store import keep, store
from studio.projects import history
from studio.projects.models import Project, Revision

_KIND: Final = "check"


def destination_of(id: str, wanted: ExportSettings) -> Destination:
    """A destination, with what a person wants to make for it.

    Raises
    ------
    BadInput
        If there is no such destination.
    """
    for one in DESTINATIONS:
        if one.id == id:
            return one.model_copy(update={"settings": wanted})
    raise BadInput(f"There is no destination named “{id}”.")


@transaction.atomic
def check_of(project: Project, revision: Revision, destination: Destination) -> Job:
    """The look at a film: one that was taken, or is being taken, or a new one.

    Raises
    ------
    BadInput
        If there is nothing to make.
    """
    destination.settings.work(history.document_at(revision))
    given = destination.model_dump(mode="json")
    subject = f"{project.pk.hex}-{destination.id}"
    mine = Job.objects.filter(owner=project.owner, kind=_KIND, subject=subject)
    for old in mine.exclude(state__in=(State.FAILED, State.CANCELLED)).order_by("-made_at"):
        if old.args == {"revision": revision.pk, "destination": given}:
            return old
        if old.unfinished:
            queue.cancel(old)
    args = {"revision": revision.pk, "destination": given}
    return queue.hand_out(project.owner, _KIND, subject, args=args)


def look_over(job: Job, note: Note) -> dict[str, Any]:
    """Measure what is not known yet, and go through all checks."""
    destination = Destination.model_validate(job.args["destination"])
    document = document_of(job)
    with closing(make_sources()) as sources:
        film = Film(
            document,
            destination.settings.work(document),
            destination,
            _pictures(document, sources, note),
            _sound(document, sources, note),
            sources,
        )
        return {"lines": [line.model_dump() for line in lines_of(film)]}


def _pictures(document: Document, sources: Sources, note: Note) -> PictureFacts:
    parts, pieces = [], pieces_of(document)
    there = all(folder_of(media).original.exists() for media in document.media_ids())
    for done, numbers in enumerate(pieces):
        key = facts_key(document, numbers, folder_of)
        data = store().get(key)
        if data is None:
            data = packed(measure(document, numbers, sources))
            if there:
                keep(key, data)
        parts.append(unpacked(data))
        note(0.8 * (done + 1) / len(pieces))
    return joined(parts)


def _sound(document: Document, sources: Sources, note: Note) -> SoundFacts:
    found = []
    for number in range(stretches_of(document)):
        key = stretch_key(document, number)
        data = store().get(key)
        if data is None:
            data = measured_stretch(document, number, sources).model_dump_json().encode()
            keep(key, data)
        found.append(Stretch.model_validate_json(data))
        note(0.8 + 0.2 * (number + 1) / stretches_of(document))
    return sound_facts(found)

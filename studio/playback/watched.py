"""What is watched: a revision of a project or a take, as a document with a name to know it by."""

from __future__ import annotations

from collections.abc import Sequence
from hashlib import blake2s
from typing import Annotated
from uuid import UUID

from django.http import HttpRequest
from ninja import Field, Schema

from kitecore.document import Document
from kitecore.document.clips.multicam import MOST_ANGLES
from kitecore.edits import EditBase
from kitecore.errors import BadInput
from kitecore.render.shuttle import shuttled
from kitecore.render.wall import wall
from kitecore.ticks import Span
from studio.library.models import Take
from studio.owned import owned
from studio.playback.takes import document_of_take
from studio.projects import history
from studio.projects.belongings import changed
from studio.projects.models import Project

FrameNumber = Annotated[int, Field(ge=0, le=48 * 3600 * 240)]
"""Of the longest timeline there is, at the fastest rate."""


MOST_FRAMES = 120
"""Frames of a piece that may be asked for at once."""


class Frames(Schema):
    """Frames ``first`` up to, not including, ``last``."""

    first: FrameNumber
    last: FrameNumber

    def within(self, document: Document) -> Span:
        """When they are shown.

        Raises
        ------
        BadInput
            If there are none, or too many.
        """
        if not self.first < self.last <= self.first + MOST_FRAMES:
            raise BadInput(f"A piece has from 1 to {MOST_FRAMES} frames.")
        rate = document.rate.exact
        return Span(rate.start_of(self.first), rate.start_of(self.last))


AngleNumber = Annotated[int, Field(ge=-1, lt=MOST_ANGLES)]


class Look(Schema):
    """What of a project is looked at, and at which speed it plays.

    The timeline within a group; the angles of the multicam clip ``wall`` beside each other, so many
    ``columns`` of them, or with ``left`` and ``right`` two, or with ``film`` besides the film.
    """

    within: str = Field(default="", max_length=40)
    wall: str = Field(default="", max_length=40)
    columns: int = Field(default=2, ge=1, le=MOST_ANGLES)
    left: AngleNumber = -1
    right: AngleNumber = -1
    film: bool = False
    speed: float = Field(default=1.0, ge=-8, le=8)

    @property
    def name(self) -> str:
        """What tells it from other looks at the same document."""
        return "/".join(map(str, self.model_dump().values()))

    def of(self, document: Document) -> Document:
        if self.within:
            document = document.inside(self.within)
        if self.wall:
            apart = [one for one in (self.left, self.right) if one >= 0]
            document = wall(document, self.wall, self.columns, apart, film=self.film)
        return document if self.speed == 1.0 else shuttled(document, self.speed)


PLAIN = Look()


def project_document(request: HttpRequest, id: UUID, revision: int) -> tuple[str, Document]:
    project = owned(Project, request.user, "project", id)
    found = history.revision_of(project, revision)
    return f"{project.id}/{found.pk}", history.document_at(found)


def tried(
    request: HttpRequest, name: str, document: Document, edits: Sequence[EditBase]
) -> tuple[str, Document]:
    """As it would be after edits that are not kept, with a name for that."""
    for edit in edits:
        document = changed(request.user.pk, document, edit)
        name += "+" + blake2s(edit.model_dump_json().encode(), digest_size=12).hexdigest()
    return name, document


def take_document(request: HttpRequest, id: UUID) -> tuple[str, Document]:
    take = owned(Take, request.user, "take", id)
    return f"take-{take.id}", document_of_take(take)

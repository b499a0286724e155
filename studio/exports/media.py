"""The takes of a project, as timelines and archives name them."""

from __future__ import annotations

from uuid import UUID

from django.db.models import Q, QuerySet

from kitecore.document import Document
from kitecore.exchange.timelines import Medium
from kitecore.media.info import MediaInfo
from studio.library.models import Take
from studio.projects.models import Project


def takes_of(project: Project, document: Document) -> QuerySet[Take]:
    """What its library shows, and what its film uses."""
    used = [UUID(one) for one in document.media_ids()]
    mine = Q(project=project, removed=False, archive=False) | Q(pk__in=used)
    return Take.objects.filter(mine, owner=project.owner_id, facts__isnull=False)


def media_of(project: Project, document: Document) -> dict[str, Medium]:
    """By their ids."""
    return {take.id.hex: _medium(take) for take in takes_of(project, document)}


def _medium(take: Take) -> Medium:
    facts = MediaInfo.model_validate(take.facts)
    return Medium(
        media=take.id.hex,
        name=take.name,
        kind=facts.kind,
        length=facts.length,
        sounds=facts.sound is not None,
    )

"""How much a person may have of what the site shares out."""

from __future__ import annotations

from dataclasses import dataclass

from django.conf import settings

from studio.accounts.models import Allowance

MOST_PROJECTS = 500
MOST_UNFINISHED = 10
"""Films that wait or are being made."""


@dataclass(frozen=True)
class Allowed:
    """Bytes of all takes, projects, and films at once."""

    library: int
    projects: int
    unfinished_films: int


def allowed_to(owner_id: int) -> Allowed:
    """What whoever runs the site set for a person, and what everybody may have for the rest."""
    own = Allowance.objects.filter(owner=owner_id).first() or Allowance()
    return Allowed(
        library=settings.LIBRARY_LIMIT if own.library_gb is None else own.library_gb * 2**30,
        projects=MOST_PROJECTS if own.projects is None else own.projects,
        unfinished_films=MOST_UNFINISHED if own.unfinished_films is None else own.unfinished_films,
    )

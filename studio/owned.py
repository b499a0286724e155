"""Every query is filtered by owner: what belongs to somebody else is not there."""

from __future__ import annotations

from typing import TypeVar
from uuid import UUID

from django.contrib.auth.models import AnonymousUser, User
from django.db import models

from kitecore.errors import NotThere

M = TypeVar("M", bound=models.Model)


def owned(model: type[M], user: User | AnonymousUser, what: str, id: UUID | str | int) -> M:
    """The person's own object of this id.

    Raises
    ------
    NotThere
        If there is none, or it is somebody else's.
    """
    found = model._default_manager.filter(owner=user, pk=id).first()
    if found is None:
        raise NotThere(f"That {what} is not there.")
    return found

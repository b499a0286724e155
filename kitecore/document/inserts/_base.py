from __future__ import annotations

from pydantic import Field

from kitecore.model import Id, Model, new_id
from kitecore.registry import Registry

MOST_INSERTS = 16
"""In one chain."""


class InsertBase(Model):
    """What every insert has. The first line of its own docstring is its name and what it does."""

    kind: str
    id: Id = Field(default_factory=new_id)
    on: bool = True


insert_kinds: Registry[type[InsertBase]] = Registry("insert")

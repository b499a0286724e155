"""Parts that something is made of, as benches offer them."""

from __future__ import annotations

from ninja import Schema

from kitecore.document import Model
from kitecore.document.controls import Control, controls_of


class PartKind(Schema):
    """A part that can be added: its name in documents, its title, what it does."""

    kind: str
    title: str
    help: str
    controls: list[Control]


def part_of(kind: str, model: type[Model]) -> PartKind:
    """From the model's own docstring, whose first line is its title and what it does."""
    title, _, does = (model.__doc__ or kind).strip().split("\n")[0].partition(": ")
    return PartKind(kind=kind, title=title, help=does, controls=list(controls_of(model)))

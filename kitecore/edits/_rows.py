"""Rows of parts that have ids: masks, effects, inserts, zones."""

from __future__ import annotations

from typing import TypeVar

from kitecore.document import Model, derived_id

P = TypeVar("P", bound=Model)


def with_fresh_ids(parts: tuple[P, ...], seed: str) -> tuple[P, ...]:
    """The parts with ids that follow from a step's seed."""
    return tuple(
        part.model_copy(update={"id": derived_id(seed, number)})
        for number, part in enumerate(parts)
    )


def without_part(parts: tuple[P, ...], id: str) -> tuple[P, ...]:
    return tuple(part for part in parts if part.id != id)  # type: ignore[attr-defined]


def reordered(parts: tuple[P, ...], id: str, to: int) -> tuple[P, ...]:
    """With the part of an id at index ``to``."""
    mine = [part for part in parts if part.id == id]  # type: ignore[attr-defined]
    rest = without_part(parts, id)
    return (*rest[:to], *mine, *rest[to:])

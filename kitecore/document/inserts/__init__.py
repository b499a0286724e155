"""What sound goes through on its way. To add one: a module here, and its sums in `sound.inserts`."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field

from kitecore.document.inserts._base import MOST_INSERTS, InsertBase, insert_kinds
from kitecore.registry import import_all

import_all(__name__)

if TYPE_CHECKING:
    Insert = InsertBase
else:
    Insert = Annotated[Union[tuple(insert_kinds.values())], Field(discriminator="kind")]  # noqa: UP007

Chain = Annotated[tuple[Insert, ...], Field(max_length=MOST_INSERTS)]
"""Inserts in the order in which sound goes through them."""

__all__ = ["MOST_INSERTS", "Chain", "Insert", "InsertBase", "insert_kinds"]

"""How one clip becomes the next. To add one: a module here, and its drawing in `picture.transitions`."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field

from kitecore.document.transitions._base import TransitionBase, transition_kinds
from kitecore.registry import import_all

import_all(__name__)

if TYPE_CHECKING:
    Transition = TransitionBase
else:
    Transition = Annotated[
        Union[tuple(transition_kinds.values())],  # noqa: UP007
        Field(discriminator="kind"),
    ]

__all__ = ["Transition", "TransitionBase", "transition_kinds"]

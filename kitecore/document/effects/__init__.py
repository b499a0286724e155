"""The effects a layer can carry. To add one: a module here, and its drawing in `picture.effects`."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field

from kitecore.document.effects._base import (
    FAMILIES,
    Bending,
    Beside,
    EffectBase,
    Family,
    Running,
    Seeded,
    Tabled,
    Timed,
    effect_kinds,
)
from kitecore.registry import import_all

import_all(__name__)

if TYPE_CHECKING:
    Effect = EffectBase
else:
    Effect = Annotated[Union[tuple(effect_kinds.values())], Field(discriminator="kind")]  # noqa: UP007

__all__ = [
    "FAMILIES",
    "Bending",
    "Beside",
    "Effect",
    "EffectBase",
    "Family",
    "Running",
    "Seeded",
    "Tabled",
    "Timed",
    "effect_kinds",
]

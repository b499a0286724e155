"""The kinds of clip. To add one: a module here, and its painter in `render.painters`."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field

from kitecore.document.clips._base import (
    MOST_EFFECTS,
    MOST_MASKS,
    Between,
    ClipBase,
    Crop,
    Paced,
    Pictured,
    Place,
    Retouchable,
    Sounding,
    Sourced,
    can_sound,
    clip_kinds,
)
from kitecore.registry import import_all

import_all(__name__)

if TYPE_CHECKING:
    Clip = ClipBase
else:
    Clip = Annotated[Union[tuple(clip_kinds.values())], Field(discriminator="kind")]  # noqa: UP007

__all__ = [
    "MOST_EFFECTS",
    "MOST_MASKS",
    "Between",
    "Clip",
    "ClipBase",
    "Crop",
    "Paced",
    "Pictured",
    "Place",
    "Retouchable",
    "Sounding",
    "Sourced",
    "can_sound",
    "clip_kinds",
]

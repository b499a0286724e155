"""Grids that bend layers."""

from __future__ import annotations

from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field

from kitecore.document import Document, Id, Pictured
from kitecore.document.properties import Lattice
from kitecore.document.warps import MOST_DIVISIONS, Area, GridWarp
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._fitting import mapped
from kitecore.errors import EditRefused
from kitecore.picture.warps.grid import Sheet, relaid

Divisions = Annotated[int, Field(ge=1, le=MOST_DIVISIONS)]


@edit_kinds.register("divide_grid")
class DivideGrid(EditBase):
    """Another number of fields; the sheet keeps its form, in every pose."""

    kind: Literal["divide_grid"] = "divide_grid"
    clip: Id
    columns: Divisions
    rows: Divisions

    def label(self) -> str:
        return f"Grid of {self.columns} × {self.rows} fields"

    def apply(self, document: Document) -> Document:
        return _relaid(document, self.clip, {"columns": self.columns, "rows": self.rows})


@edit_kinds.register("fit_grid")
class FitGrid(EditBase):
    """The fields share another area, or all of the picture; the sheet there keeps its form.

    ``aspect`` is the width of the picture for a height of 1.
    """

    kind: Literal["fit_grid"] = "fit_grid"
    clip: Id
    area: Area | None
    aspect: float = Field(default=1.0, gt=0, le=1000)

    def label(self) -> str:
        return "Grid over what is seen" if self.area else "Grid over all of it"

    def apply(self, document: Document) -> Document:
        return _relaid(document, self.clip, {"area": self.area}, self.aspect)


def _relaid(
    document: Document, clip_id: str, fields: dict[str, Any], aspect: float = 1.0
) -> Document:
    """With the grid of a clip changed, and all its poses laid on it."""
    _, clip = open_clips(document, (clip_id,))[0]
    warp = clip.warp if isinstance(clip, Pictured) else None
    if not isinstance(warp, GridWarp):
        raise EditRefused("There is no grid on it.", todo="Choose the grid under Warp first.")
    before = _sheet(warp, aspect)
    after = _sheet(warp.model_copy(update=fields), aspect)

    def laid(pose: Lattice) -> Lattice:
        found = relaid(np.array(pose), before, after)
        return tuple((round(float(x), 6), round(float(y), 6)) for x, y in found)

    points = mapped(warp.points, laid)
    # The number of points fits the fields again only now.
    new = GridWarp.model_validate(warp.model_dump() | fields | {"points": points})
    return document.with_clip(clip.model_copy(update={"warp": new}))


def _sheet(warp: GridWarp, aspect: float) -> Sheet:
    return Sheet(warp.columns, warp.rows, aspect, warp.area)

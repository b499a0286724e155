"""Grids that bend layers."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from kitecore.document import Document, Id, Pictured
from kitecore.document.properties import Lattice, LatticeKeys
from kitecore.document.warps import MOST_DIVISIONS, GridWarp
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.errors import EditRefused
from kitecore.picture.warps.grid import redivided

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
        _, clip = open_clips(document, (self.clip,))[0]
        warp = clip.warp if isinstance(clip, Pictured) else None
        if not isinstance(warp, GridWarp):
            raise EditRefused("There is no grid on it.", todo="Choose the grid under Warp first.")
        points: Lattice | LatticeKeys
        if isinstance(warp.points, LatticeKeys):
            keys = (
                key.model_copy(update={"value": self._laid(warp, key.value)})
                for key in warp.points.keys
            )
            points = warp.points.model_copy(update={"keys": tuple(keys)})
        else:
            points = self._laid(warp, warp.points)
        fields = {"columns": self.columns, "rows": self.rows, "points": points}
        return document.with_clip(clip.model_copy(update={"warp": warp.model_copy(update=fields)}))

    def _laid(self, warp: GridWarp, pose: Lattice) -> Lattice:
        laid = redivided(np.array(pose), (warp.columns, warp.rows), (self.columns, self.rows))
        return tuple((round(float(x), 6), round(float(y), 6)) for x, y in laid)

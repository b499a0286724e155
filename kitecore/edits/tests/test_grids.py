"""Grids with other fields bend a layer as they did."""

from __future__ import annotations

from typing import Any

import numpy as np

from kitecore.document import Pictured
from kitecore.document.properties import LatticeKeys
from kitecore.document.warps import GridWarp
from kitecore.edits.tests.cutcase import FRAME, CutCase
from kitecore.picture.warps.grid import Sheet, bent_grid, grid_mesh

POSE = [[0.02 * x * y, -0.03 * (x - 1) ** 2] for y in range(4) for x in range(4)]
FLAT = [[0.0, 0.0]] * 16


class GridTest(CutCase):
    def bent(self, points: Any) -> None:
        warp = {"kind": "grid", "columns": 3, "rows": 3, "points": points}
        self.do(kind="adjust", clips=[self.clip("a").id], values={"warp": warp})

    def divided(self, columns: int, rows: int) -> GridWarp:
        self.do(kind="divide_grid", clip=self.clip("a").id, columns=columns, rows=rows)
        clip = self.clip("a")
        assert isinstance(clip, Pictured)
        assert isinstance(clip.warp, GridWarp)
        return clip.warp

    def test_twice_the_fields_lie_on_the_same_sheet(self) -> None:
        self.bent(POSE)
        warp = self.divided(6, 6)
        self.assertEqual(49, len(warp.points))  # type: ignore[arg-type]
        before = bent_grid(np.array(POSE), Sheet(3, 3, 0.75)) - grid_mesh(Sheet(3, 3, 0.75)).points
        after = (
            bent_grid(np.array(warp.points), Sheet(6, 6, 0.75))
            - grid_mesh(Sheet(6, 6, 0.75)).points
        )
        across = [round(len(grid_mesh(Sheet(n, n, 0.75)).points) ** 0.5) for n in (3, 6)]
        for share in (0, 1 / 3, 1 / 2, 2 / 3, 1):
            places = [round(share * (n - 1)) * n + round(share * (n - 1)) for n in across]
            np.testing.assert_allclose(after[places[1]], before[places[0]], atol=2e-3)

    def test_every_pose_is_kept_and_its_moment(self) -> None:
        keys = [{"at": 0, "value": FLAT}, {"at": 10 * FRAME, "value": POSE}]
        self.bent({"keys": keys})
        warp = self.divided(4, 2)
        assert isinstance(warp.points, LatticeKeys)
        self.assertEqual([0, 10 * FRAME], [key.at for key in warp.points.keys])
        first, second = (np.array(key.value) for key in warp.points.keys)
        self.assertEqual(0, np.abs(first).max())
        for corner, old in ((0, 0), (4, 3), (10, 12), (14, 15)):
            np.testing.assert_allclose(second[corner], POSE[old], atol=1e-6)

    def test_over_what_is_seen_it_keeps_its_form_there(self) -> None:
        """A sheet that leans and is shifted does so over any part of the picture, and back."""
        spots = [(0.75 * (x / 3 - 0.5), y / 3 - 0.5) for y in range(4) for x in range(4)]
        lean = [[0.1 + 0.2 * x - 0.1 * y, 0.3 * y] for x, y in spots]
        self.bent(lean)
        area = (-0.2, -0.1, 0.3, 0.5)
        fit = {"kind": "fit_grid", "clip": self.clip("a").id, "aspect": 0.75}
        self.do(**fit, area=area)
        warp = self.clip("a").warp  # type: ignore[attr-defined]
        self.assertEqual(area, warp.area)
        for (x, y), row in zip(((-0.2, -0.1), (0.3, 0.5)), (0, 15), strict=True):
            wanted = (0.1 + 0.2 * x - 0.1 * y, 0.3 * y)
            np.testing.assert_allclose(warp.points[row], wanted, atol=1e-6)
        self.do(**fit, area=None)
        self.assertIsNone(self.clip("a").warp.area)  # type: ignore[attr-defined]
        flat = self.refused(**fit, area=(0, 0, 0, 1))
        self.assertIn("a width and a height", flat.message)

    def test_what_has_no_grid_is_told_so(self) -> None:
        refusal = self.refused(kind="divide_grid", clip=self.clip("a").id, columns=2, rows=2)
        self.assertIn("no grid", str(refusal))

"""Clips that come into a split screen afterwards."""

from __future__ import annotations

from typing import Any

from kitecore.edits.tests.cutcase import CutCase


class JoiningTest(CutCase):
    def setUp(self) -> None:
        super().setUp()
        for name in ("c", "d", "e"):
            self.place(name, 2)
        clips = [self.clip(name).id for name in ("a", "b")]
        self.do(kind="split_screen", clips=clips, rows=[1, 1])
        self.screen = self.cell("a").screen
        self.do(kind="set_screen", screen=self.screen, gap=30, margin=8)

    def cell(self, name: str) -> Any:
        return self.clip(name).cell  # type: ignore[attr-defined]

    def join(self, *names: str) -> None:
        clips = [self.clip(name).id for name in names]
        self.do(kind="join_screen", screen=self.screen, clips=clips)

    def test_a_third_clip_gets_a_cell_of_its_own_and_all_settings_stay(self) -> None:
        self.join("c")
        for name in ("a", "b", "c"):
            cell = self.cell(name)
            self.assertEqual(((1, 2), 30, 8), (cell.rows, cell.gap, cell.margin))
        self.assertEqual([0, 1, 2], [self.cell(name).place for name in ("a", "b", "c")])
        self.assertEqual(self.clip("a").start, self.clip("c").start)

    def test_an_empty_cell_is_taken_first(self) -> None:
        self.do(kind="set_screen", screen=self.screen, rows=[2, 2])
        self.do(kind="to_cell", clip=self.clip("a").id, place=3)
        self.join("c", "d")
        self.assertEqual((2, 2), self.cell("c").rows)
        self.assertEqual([0, 2], [self.cell(name).place for name in ("c", "d")])

    def test_a_cell_has_a_share_in_percent_and_the_others_share_the_rest(self) -> None:
        self.do(kind="set_screen", screen=self.screen, rows=[3, 1], gap=0, margin=0)
        size = {"kind": "size_cell", "screen": self.screen}
        self.do(**size, place=2, way="across", percent=40)
        self.do(**size, place=0, way="across", percent=20)
        self.do(**size, place=0, way="down", percent=75)
        for name in ("a", "b"):
            self.assertEqual((75, 25), self.cell(name).row_shares)
            self.assertEqual(20, self.cell(name).cell_shares[0][0])
        # What 0 did not take is shared by the others as before: 30 to 40.
        widths = [round(self.cell("b").cell_shares[0][n], 3) for n in (1, 2)]
        self.assertEqual([34.286, 45.714], widths)
        self.assertEqual((0, 0, 200, 750), self.cell("a").box(1000, 1000))
        alone = self.refused(**size, place=3, way="across", percent=40)
        self.assertIn("no other beside it", alone.message)
        self.do(kind="set_screen", screen=self.screen, rows=[1, 1])
        self.assertEqual(((), ()), (self.cell("a").row_shares, self.cell("a").cell_shares))

    def test_upright_the_rows_stand(self) -> None:
        self.do(kind="set_screen", screen=self.screen, rows=[1, 2], upright=True, gap=0, margin=0)
        self.do(kind="size_cell", screen=self.screen, place=0, way="across", percent=30)
        self.do(kind="size_cell", screen=self.screen, place=1, way="down", percent=60)
        self.assertEqual((0, 0, 300, 1000), self.cell("a").box(1000, 1000))
        self.assertEqual((300, 0, 700, 600), self.cell("b").box(1000, 1000))

    def test_what_cannot_join_is_said(self) -> None:
        twice = self.refused(
            kind="join_screen", screen=self.screen, clips=[self.clip("a").id, self.clip("c").id]
        )
        self.assertIn("already", twice.message)
        for number in range(7):
            self.place(f"more-{number}", 1)
            self.join(f"more-{number}")
        self.assertIn(
            "9",
            self.refused(kind="join_screen", screen=self.screen, clips=[self.clip("e").id]).message,
        )

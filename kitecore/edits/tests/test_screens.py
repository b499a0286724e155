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

"""Groups, copies and markers: times and looks that stay."""

from __future__ import annotations

from kitecore.edits.tests.cutcase import CutCase
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import KiteError
from kitecore.ticks import TICKS_PER_SECOND


class GroupEditTest(CutCase):
    def setUp(self) -> None:
        super().setUp()
        self.place("c", 2, mode="above", at=SECOND)

    def group(self, *names: str) -> str:
        self.do(kind="group", clips=[self.clip(name).id for name in names], name="G")
        return self.clip("G").id

    def test_grouping_and_ungrouping_keep_every_time(self) -> None:
        before = sorted((c.name, c.start, c.end, c.source_in) for _, c in self.document.clips())
        group = self.group("a", "c")
        self.assertEqual([("G", 0, 4), ("b", 4, 7)], self.times())
        self.do(kind="ungroup", clip=group)
        after = sorted((c.name, c.start, c.end, c.source_in) for _, c in self.document.clips())
        self.assertEqual(before, after)

    def test_edits_inside_change_the_length_outside(self) -> None:
        group = self.group("a", "c")
        inner = self.document.inside(group).main.clips[0]
        self.do(kind="trim", clip=inner.id, edge="end", to=5 * SECOND, within=group)
        self.assertEqual([("G", 0, 5), ("b", 5, 8)], self.times())
        self.assertIn("empty", str(self.refused(
            kind="remove", clips=[c.id for _, c in self.document.inside(group).clips()], within=group
        )))  # fmt: skip

    def test_groups_go_five_deep_and_have_ids_of_their_own_when_copied(self) -> None:
        name = "a"
        for depth in range(5):
            self.do(kind="group", clips=[self.clip(name).id], name=f"G{depth}")
            name = f"G{depth}"
        self.do(kind="duplicate", clips=[self.clip(name).id])
        deepest = self.document
        for _ in range(5):
            deepest = deepest.inside(deepest.main.clips[0].id)
        self.assertEqual("a", deepest.main.clips[0].name)

    def test_a_clip_taken_out_looks_the_same(self) -> None:
        group = self.group("a", "c")
        values = {"place/position": [100, 0], "place/size": [0.5, 0.5], "place/turn": 90}
        self.do(kind="adjust", clips=[group], values=values)
        inner = next(c for _, c in self.document.inside(group).clips() if c.name == "c")
        self.do(kind="take_out", group=group, clips=[inner.id])
        out = self.clip("c")
        self.assertEqual((SECOND, 3 * SECOND), (out.start, out.end))
        self.assertEqual(
            ((100, 0), (0.5, 0.5), 90), (out.place.position, out.place.size, out.place.turn)
        )

    def test_taking_out_and_putting_in_moves_nothing_else(self) -> None:
        group = self.group("a", "b")
        self.place("later", 2)
        inner = next(c for _, c in self.document.inside(group).clips() if c.name == "b")
        before = self.times()
        self.do(kind="take_out", group=group, clips=[inner.id])
        self.assertEqual(before, self.times())
        out = self.clip("b")
        self.assertEqual((4 * SECOND, 7 * SECOND), (out.start, out.end))
        self.do(kind="put_in", group=group, clips=[out.id])
        self.assertEqual(before, self.times())
        self.assertEqual(
            (4 * SECOND, 7 * SECOND),
            next((c.start, c.end) for _, c in self.document.inside(group).clips() if c.name == "b"),
        )

    def test_what_cannot_be_carried_over_is_said(self) -> None:
        group = self.group("a", "c")
        self.do(kind="set_speed", clips=[group], factor=2)
        self.assertIn("speed", str(self.refused(kind="ungroup", clip=group)))
        self.assertEqual([("G", 0, 2), ("b", 2, 5)], self.times())

    def test_overhang_is_refused_not_cut(self) -> None:
        self.place("d", 3, mode="above", at=3 * SECOND)
        refusal = self.refused(kind="group", clips=[self.clip("a").id, self.clip("d").id])
        self.assertIn("reach beyond", str(refusal))


class CopyTest(CutCase):
    def test_paste_keeps_distances_and_makes_new_ids(self) -> None:
        self.place("c", 2, mode="above", at=SECOND)
        copies = [
            {"clip": self.clip(name).model_dump(), "lane": lane, "of": of}
            for name, lane, of in (("a", 0, "main"), ("c", 1, "picture"))
        ]
        self.do(kind="paste", copies=copies, at=4 * SECOND)
        self.assertEqual([("a", 0, 4), ("a", 4, 8), ("b", 8, 11)], self.times())
        starts = sorted(c.start // SECOND for _, c in self.document.clips() if c.name == "c")
        self.assertEqual([1, 5], starts)
        ids = [c.id for _, c in self.document.clips()]
        self.assertEqual(len(ids), len(set(ids)))

    def test_a_group_of_another_rate_is_put_on_frames_with_all_that_it_holds(self) -> None:
        step = TICKS_PER_SECOND // 24
        text = {"kind": "text", "name": "t", "text": "t", "start": step, "length": 7 * step}
        group = {
            "kind": "group",
            "name": "G",
            "length": 9 * step,
            "tracks": [
                {"kind": "picture", "clips": [{**text, "start": 0, "length": 9 * step}]},
                {"kind": "picture", "clips": [text]},
            ],
        }
        self.do(kind="paste", copies=[{"clip": group, "lane": 0, "of": "picture"}], at=0)
        pasted = self.clip("G")
        inner = [pasted, *(clip for track in pasted.tracks for clip in track.clips)]
        frame = self.document.rate.exact.frame_ticks
        self.assertEqual([0] * 6, [n % frame for c in inner for n in (c.start, c.length)])
        self.assertLessEqual(pasted.length, pasted.source_end)

    def test_angles_that_are_none_are_refused_before_they_are_put_on_frames(self) -> None:
        empty = {"kind": "group", "length": SECOND, "tracks": [{"kind": "main"}]}
        for clips in ([], [{"kind": "adjustment", "length": SECOND}], [empty]):
            angles = {
                "kind": "multicam",
                "length": SECOND,
                "tracks": [{"kind": "main", "clips": clips}],
                "switches": [{"at": 1, "angle": 1}],
                "hears": [1],
            }
            copy = {"clip": angles, "lane": 1, "of": "main"}
            with self.assertRaises(KiteError):
                self.do(kind="paste", copies=[copy], at=0)

    def test_markers_travel_with_their_clip(self) -> None:
        self.do(kind="add_marker", at=5 * SECOND, clip=self.clip("b").id, name="turn", tag="sea")
        self.do(kind="add_marker", at=5 * SECOND, name="still there")
        self.do(kind="trim", clip=self.clip("a").id, edge="end", to=3 * SECOND)
        self.do(kind="trim", clip=self.clip("b").id, edge="start", to=round(3.5 * SECOND))
        clip, [mark] = self.clip("b"), self.clip("b").markers
        self.assertEqual(3 * SECOND, clip.source_at(mark.at))
        self.assertEqual(5 * SECOND, self.document.markers[0].at)

"""What edits of speed, joins and sources do, in numbers."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from kitecore import edits
from kitecore.document import ClipBase, Document, Paced, empty_document
from kitecore.edits.tests.strategies import SECOND, edit
from kitecore.errors import EditRefused, TooLittleFootage

FRAME = SECOND // 30


class CutCase(TestCase):
    """A main row of takes `a` (4 s of 10) and `b` (3 s of 10), both from 2 s on."""

    def setUp(self) -> None:
        self.document: Document = empty_document()
        for name, length in (("a", 4), ("b", 3)):
            self.place(name, length)

    def place(self, name: str, length: float, into: float = 2, **more: Any) -> None:
        clip = {
            "kind": "video", "media": name, "name": name, "length": round(length * SECOND),
            "source_in": round(into * SECOND), "source_length": 10 * SECOND,
        }  # fmt: skip
        self.do(kind="place", clip=clip, **more)

    def do(self, **fields: Any) -> None:
        self.document = edits.apply(self.document, edit(**fields))

    def refused(self, **fields: Any) -> EditRefused:
        with self.assertRaises(EditRefused) as caught:
            edits.apply(self.document, edit(**fields))
        return caught.exception

    def row(self) -> list[ClipBase]:
        return list(self.document.main.clips)

    def clip(self, name: str) -> Paced:
        found = next(c for _, c in self.document.clips() if c.name == name)
        assert isinstance(found, Paced)
        return found

    def times(self) -> list[tuple[str, float, float]]:
        return [(c.name, c.start / SECOND, c.end / SECOND) for c in self.row()]


class SpeedEditTest(CutCase):
    def test_twice_as_fast_is_half_as_long_and_later_clips_follow(self) -> None:
        self.do(kind="set_speed", clips=[self.clip("a").id], factor=2)
        self.assertEqual([("a", 0, 2), ("b", 2, 5)], self.times())
        self.assertEqual((2 * SECOND, 6 * SECOND), self.clip("a").used)

    def test_the_length_can_stay_as_long_as_there_is_footage(self) -> None:
        self.do(kind="set_speed", clips=[self.clip("a").id], factor=2, keep="length")
        self.assertEqual((2 * SECOND, 10 * SECOND), self.clip("a").used)
        refusal = self.refused(kind="set_speed", clips=[self.clip("a").id], factor=3, keep="length")
        self.assertIn("4.00 s more", str(refusal))

    def test_reverse_shows_the_same_part_and_twice_is_as_before(self) -> None:
        before = self.clip("a")
        self.do(kind="reverse", clips=[before.id])
        self.assertEqual(before.used, self.clip("a").used)
        self.assertEqual(6 * SECOND, self.clip("a").source_in)
        self.do(kind="reverse", clips=[before.id])
        self.assertEqual(before, self.clip("a"))

    def test_a_reversed_clip_trims_at_the_end_that_is_dragged(self) -> None:
        self.do(kind="reverse", clips=[self.clip("a").id])
        self.do(kind="trim", clip=self.clip("a").id, edge="start", to=SECOND)
        self.assertEqual((2 * SECOND, 5 * SECOND), self.clip("a").used)

    def test_fit_keeps_the_content(self) -> None:
        self.do(kind="fit", clip=self.clip("a").id, length=3 * SECOND)
        self.assertEqual([("a", 0, 3), ("b", 3, 6)], self.times())
        low, high = self.clip("a").used
        self.assertLessEqual(abs(low - 2 * SECOND) + abs(high - 6 * SECOND), 2)

    def test_a_ramp_keeps_pictures_at_its_points(self) -> None:
        clip = self.clip("a")
        points = [
            {"at": 0, "speed": 1},
            {"at": 2 * SECOND, "speed": 4},
            {"at": 4 * SECOND, "speed": 1},
        ]
        self.do(kind="ramp", clip=clip.id, points=points, keep="content")
        ramped = self.clip("a")
        # Each half shows 2 s at a mean of 2.5.
        self.assertEqual(round(1.6 * SECOND), ramped.length)
        self.assertEqual(clip.used, ramped.used)
        top = next(p for p in ramped.speed.points if p.speed == 4)
        self.assertEqual(round(0.8 * SECOND), top.at)
        self.assertLessEqual(abs(ramped.source_at(top.at) - clip.source_at(2 * SECOND)), 2)

    def test_a_ramp_ends_with_its_clip_at_a_whole_frame(self) -> None:
        clip = self.clip("a")
        points = [
            {"at": 0, "speed": 3},
            {"at": 2 * SECOND, "speed": 1},
            {"at": 4 * SECOND, "speed": 1},
        ]
        self.do(kind="ramp", clip=clip.id, points=points, keep="content")
        ramped = self.clip("a")
        self.assertEqual(ramped.length, ramped.speed.points[-1].at)
        self.assertEqual(0, ramped.length % FRAME)
        for before, after in zip(clip.used, ramped.used, strict=True):
            self.assertLess(abs(before - after), FRAME)

    def test_a_ramp_that_stops_cannot_keep_its_content(self) -> None:
        points = [{"at": 0, "speed": 1}, {"at": 2 * SECOND, "speed": -1}]
        self.assertIn(
            "turns round", str(self.refused(kind="ramp", clip=self.clip("a").id, points=points))
        )
        self.do(kind="ramp", clip=self.clip("a").id, points=points, keep="length")
        self.assertEqual(4 * SECOND, self.clip("a").length)

    def test_freeze_puts_a_still_moment_in(self) -> None:
        self.do(kind="freeze", clip=self.clip("a").id, at=SECOND, length=SECOND // 2)
        self.assertEqual(
            [("a", 0, 1), ("a", 1, 1.5), ("a", 1.5, 4.5), ("b", 4.5, 7.5)], self.times()
        )
        frozen = self.row()[1]
        assert isinstance(frozen, Paced)
        self.assertEqual((3 * SECOND, 3 * SECOND), frozen.used)

    def test_split_of_a_ramp_joins_without_a_step(self) -> None:
        points = [{"at": 0, "speed": 0.5}, {"at": 4 * SECOND, "speed": 1.5}]
        self.do(kind="ramp", clip=self.clip("a").id, points=points, keep="length")
        whole = self.clip("a")
        self.do(kind="split", clips=[whole.id], at=SECOND)
        first, second = self.row()[:2]
        assert isinstance(first, Paced) and isinstance(second, Paced)
        self.assertLessEqual(abs(first.source_at(first.length) - second.source_in), 1)
        self.assertAlmostEqual(first.speed.at(first.length), second.speed.at(0), places=9)
        self.assertLessEqual(abs(second.source_at(2 * SECOND) - whole.source_at(3 * SECOND)), 2)


class JoinEditTest(CutCase):
    def test_roll_moves_the_join_alone(self) -> None:
        self.do(kind="roll", clip=self.clip("b").id, by=10 * FRAME)
        end = 4 + 1 / 3
        self.assertEqual([("a", 0, end), ("b", end, 7)], self.times())
        self.assertEqual(2 * SECOND + 10 * FRAME, self.clip("b").source_in)
        self.do(kind="roll", clip=self.clip("b").id, by=-99 * SECOND)
        self.assertEqual(2, self.clip("b").start / SECOND)
        self.assertEqual(0, self.clip("b").source_in)

    def test_slip_stops_where_the_source_ends(self) -> None:
        self.do(kind="slip", clips=[self.clip("a").id], by=99 * SECOND)
        self.assertEqual((6 * SECOND, 10 * SECOND), self.clip("a").used)
        self.assertEqual([("a", 0, 4), ("b", 4, 7)], self.times())

    def test_several_tracks_are_trimmed_at_once(self) -> None:
        self.place("c", 3, mode="above", at=SECOND)
        self.do(
            kind="trim", clip=self.clip("a").id, edge="end", to=3 * SECOND, also=[self.clip("c").id]
        )
        self.assertEqual(3 * SECOND, self.clip("a").end)
        self.assertEqual(3 * SECOND, self.clip("c").end)

    def test_replace_keeps_settings_and_tells_its_length(self) -> None:
        self.do(kind="adjust", clips=[self.clip("a").id], values={"opacity": 0.5, "gain": -6})
        source = {
            "kind": "video", "media": "z", "name": "z", "length": SECOND,
            "source_in": 9 * SECOND, "source_length": 10 * SECOND,
        }  # fmt: skip
        self.do(kind="replace", clip=self.clip("a").id, source=source)
        new = self.row()[0]
        self.assertEqual(("z", 0.5, -6, 4 * SECOND), (new.media, new.opacity, new.gain, new.length))
        self.assertEqual(6 * SECOND, new.source_in)
        still = {"kind": "still", "media": "s", "name": "s", "length": SECOND}
        self.do(kind="replace", clip=new.id, source=still)
        self.assertEqual(
            ("still", 0.5, 4 * SECOND),
            (self.row()[0].kind, self.row()[0].opacity, self.row()[0].length),
        )
        short = source | {"source_length": 2 * SECOND, "source_in": 0}
        self.do(kind="replace", clip=new.id, source=short)
        self.assertEqual(2 * SECOND, self.row()[0].length)

    def test_transitions_ask_before_they_make_do(self) -> None:
        self.place("c", 3, into=7)
        self.place("d", 1, into=0)
        wanted = {"kind": "dissolve", "length": SECOND}
        self.do(kind="set_transition", clip=self.clip("b").id, transition=wanted)
        self.assertEqual([("a", 0, 4), ("b", 4, 7), ("c", 7, 10), ("d", 10, 11)], self.times())
        with self.assertRaises(TooLittleFootage):
            edits.apply(
                self.document,
                edit(kind="set_transition", clip=self.clip("d").id, transition=wanted),
            )
        self.do(kind="set_transition", clip=self.clip("d").id, transition=wanted, short="shorten")
        self.assertIsNone(self.clip("d").transition)
        self.do(kind="set_transition", clip=self.clip("d").id, transition=wanted, short="hold")
        self.assertEqual(
            (SECOND, True), (self.clip("d").transition.length, self.clip("d").transition.hold)
        )

    def test_a_transition_goes_with_its_join_and_shrinks_with_its_footage(self) -> None:
        self.do(
            kind="set_transition",
            clip=self.clip("b").id,
            transition={"kind": "wipe", "length": SECOND},
        )
        self.do(kind="trim", clip=self.clip("a").id, edge="end", to=round(7.8 * SECOND))
        left = 10 * SECOND - self.clip("a").used[1]
        self.assertEqual(2 * left, self.clip("b").transition.length)
        self.do(kind="remove", clips=[self.clip("a").id])
        self.assertIsNone(self.clip("b").transition)

    def test_riders_go_along_and_a_detached_sound_tells_how_far_off_it_is(self) -> None:
        self.do(kind="detach_sound", clips=[self.clip("b").id])
        sound = next(c for _, c in self.document.clips() if c.kind == "sound")
        self.assertTrue(self.clip("b").muted)
        self.do(kind="trim", clip=self.clip("a").id, edge="end", to=3 * SECOND)
        _, sound = self.document.find_clip(sound.id)
        self.assertEqual(
            (3 * SECOND, 0), (sound.start, edits.sounds.out_of_sync(self.document, sound))
        )
        self.do(kind="shift", clips=[sound.id], by=3 * FRAME)
        _, sound = self.document.find_clip(sound.id)
        self.assertEqual(3 * FRAME, edits.sounds.out_of_sync(self.document, sound))
        self.do(kind="resync", clip=sound.id)
        _, sound = self.document.find_clip(sound.id)
        self.assertEqual(0, edits.sounds.out_of_sync(self.document, sound))


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

    def test_markers_travel_with_their_clip(self) -> None:
        self.do(kind="add_marker", at=5 * SECOND, clip=self.clip("b").id, name="turn", tag="sea")
        self.do(kind="add_marker", at=5 * SECOND, name="still there")
        self.do(kind="trim", clip=self.clip("a").id, edge="end", to=3 * SECOND)
        self.do(kind="trim", clip=self.clip("b").id, edge="start", to=round(3.5 * SECOND))
        clip, [mark] = self.clip("b"), self.clip("b").markers
        self.assertEqual(3 * SECOND, clip.source_at(mark.at))
        self.assertEqual(5 * SECOND, self.document.markers[0].at)


class SpeedPropertyTest(TestCase):
    """For any ramp and any part of a take."""

    @staticmethod
    def _made(points: list[tuple[int, float]], soft: bool) -> Document:
        ats = sorted({at for at, _ in points})
        curve = [{"at": at, "speed": speed} for at, (_, speed) in zip(ats, points, strict=False)]
        clip = {
            "kind": "video", "media": "m", "name": "m", "length": 3 * SECOND,
            "source_in": 60 * SECOND, "source_length": 200 * SECOND,
        }  # fmt: skip
        document = edits.apply(empty_document(), edit(kind="place", clip=clip))
        ramp = {"kind": "ramp", "clip": document.main.clips[0].id, "points": curve, "soft": soft}
        return edits.apply(document, edit(**ramp, keep="length"))

    points = st.lists(
        st.tuples(st.integers(0, 3 * SECOND), st.floats(0.2, 6)), min_size=1, max_size=4
    )

    @given(points, st.booleans())
    def test_reverse_twice_is_as_before(self, points: list[tuple[int, float]], soft: bool) -> None:
        document = self._made(points, soft)
        clip = document.main.clips[0]
        for _ in range(2):
            document = edits.apply(document, edit(kind="reverse", clips=[clip.id]))
        again = document.main.clips[0]
        assert isinstance(clip, Paced) and isinstance(again, Paced)
        self.assertLessEqual(abs(clip.source_in - again.source_in), 2)
        for tick in (0, SECOND, 2 * SECOND):
            self.assertLessEqual(abs(clip.source_at(tick) - again.source_at(tick)), 4)

    @given(points, st.booleans(), st.integers(SECOND, 9 * SECOND))
    def test_fit_shows_the_same_in_another_time(
        self, points: list[tuple[int, float]], soft: bool, length: int
    ) -> None:
        document = self._made(points, soft)
        clip = document.main.clips[0]
        after = edits.apply(document, edit(kind="fit", clip=clip.id, length=length)).main.clips[0]
        assert isinstance(clip, Paced) and isinstance(after, Paced)
        self.assertLessEqual(abs(after.length - length), FRAME)
        # Points move to whole ticks.
        for before, now in zip(clip.used, after.used, strict=True):
            self.assertLess(abs(before - now), 100)

    @given(points, st.booleans(), st.integers(FRAME, 3 * SECOND - FRAME))
    def test_two_halves_show_what_the_whole_did(
        self, points: list[tuple[int, float]], soft: bool, at: int
    ) -> None:
        document = self._made(points, soft)
        whole = document.main.clips[0]
        halves = edits.apply(document, edit(kind="split", at=at)).main.clips
        assert isinstance(whole, Paced)
        for half in halves:
            assert isinstance(half, Paced)
            for share in (0, half.length // 3, half.length):
                wanted = whole.source_at(half.start + share)
                self.assertLessEqual(abs(half.source_at(share) - wanted), 4)

    @given(st.integers(-4 * SECOND, 4 * SECOND))
    def test_a_roll_keeps_the_whole_and_both_stay_in_step(self, by: int) -> None:
        case = CutCase()
        case.setUp()
        first, second = case.row()
        assert isinstance(first, Paced) and isinstance(second, Paced)
        case.do(kind="roll", clip=second.id, by=by)
        a, b = case.row()
        assert isinstance(a, Paced) and isinstance(b, Paced)
        self.assertEqual(7 * SECOND, case.document.length)
        self.assertEqual(a.end, b.start)
        self.assertEqual(second.source_in - second.start, b.source_in - b.start)
        self.assertEqual(first.source_in, a.source_in)

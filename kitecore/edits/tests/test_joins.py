"""What edits of joins, sources and transitions do, in numbers."""

from __future__ import annotations

from kitecore import edits
from kitecore.edits.tests.cutcase import FRAME, CutCase
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import NoFootage


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

    def test_ends_go_by_frames_as_far_as_there_is_footage(self) -> None:
        both = [self.clip("a").id, self.clip("b").id]
        self.do(kind="trim_by", clips=both, edge="start", by=-2 * FRAME)
        self.assertEqual(2 * SECOND - 2 * FRAME, self.clip("a").source_in)
        self.assertEqual(2 * SECOND - 2 * FRAME, self.clip("b").source_in)
        self.assertEqual(7 * SECOND + 4 * FRAME, self.clip("b").end)
        self.do(kind="trim_by", clips=both[:1], edge="end", by=99 * SECOND)
        self.assertEqual(10 * SECOND, self.clip("a").used[1])
        self.do(kind="trim_by", clips=both[:1], edge="end", by=-99 * SECOND)
        self.assertEqual(FRAME, self.clip("a").length)

    def test_replace_keeps_settings_and_tells_its_length(self) -> None:
        self.do(kind="adjust", clips=[self.clip("a").id], values={"opacity": 0.5, "gain": -6})
        take = {
            "kind": "video", "media": "z", "name": "z", "length": 10 * SECOND,
            "mark_in": 9 * SECOND,
        }  # fmt: skip
        self.do(kind="replace", clip=self.clip("a").id, take=take)
        new = self.row()[0]
        self.assertEqual(("z", 0.5, -6, 4 * SECOND), (new.media, new.opacity, new.gain, new.length))
        self.assertEqual(6 * SECOND, new.source_in)
        still = {"kind": "still", "media": "s", "name": "s"}
        self.do(kind="replace", clip=new.id, take=still)
        self.assertEqual(
            ("still", 0.5, 4 * SECOND),
            (self.row()[0].kind, self.row()[0].opacity, self.row()[0].length),
        )
        short = take | {"length": 2 * SECOND, "mark_in": None}
        self.do(kind="replace", clip=new.id, take=short)
        self.assertEqual(2 * SECOND, self.row()[0].length)

    def test_what_is_cut_out_stays_while_the_kind_does(self) -> None:
        marked = {"views": [{"at": SECOND, "strokes": [{"points": [[0, 0]]}]}]}
        self.do(kind="adjust", clips=[self.clip("a").id], values={"cutout": marked})
        take = {"kind": "video", "media": "z", "name": "z", "length": 10 * SECOND}
        self.do(kind="replace", clip=self.clip("a").id, take=take)
        new = self.row()[0]
        self.assertEqual(1, len(new.cutout.views))
        still = {"kind": "still", "media": "s", "name": "s"}
        self.do(kind="replace", clip=new.id, take=still)
        self.assertEqual(("still", None), (self.row()[0].kind, self.row()[0].cutout))

    def test_transitions_ask_before_they_make_do(self) -> None:
        self.place("c", 3, into=7)
        self.place("d", 1, into=0)
        wanted = {"kind": "dissolve", "length": SECOND}
        self.do(kind="set_transition", clip=self.clip("b").id, transition=wanted)
        self.assertEqual([("a", 0, 4), ("b", 4, 7), ("c", 7, 10), ("d", 10, 11)], self.times())
        with self.assertRaises(NoFootage):
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

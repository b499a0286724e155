"""What each edit is for, on small documents one can follow."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from kitecore import edits
from kitecore.document import Document, empty_document
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import EditRefused, NotThere
from kitecore.motion import value_at


def video(
    name: str, seconds: float, into: float = 0, source: float = 10, **more: Any
) -> dict[str, Any]:
    return {
        "kind": "video",
        "name": name,
        "media": "m",
        "length": round(seconds * SECOND),
        "source_in": round(into * SECOND),
        "source_length": round(source * SECOND),
        **more,
    }


def solid(name: str, seconds: float) -> dict[str, Any]:
    return {"kind": "solid", "name": name, "length": round(seconds * SECOND)}


class EditTest(TestCase):
    def setUp(self) -> None:
        self.document = empty_document()
        for name in "abc":
            self.do(kind="place", clip=video(name, 2, into=3))

    def do(self, **fields: Any) -> Document:
        self.document = edits.apply(self.document, edit(**fields))
        return self.document

    def row(self, track: int = 0) -> list[tuple[str, float, float]]:
        """Name, start and length in seconds of each clip of a track."""
        clips = self.document.tracks[track].clips
        return [(c.name, c.start / SECOND, c.length / SECOND) for c in clips]

    def id(self, name: str) -> str:
        return next(clip.id for _, clip in self.document.clips() if clip.name == name)

    def source_in(self, index: int) -> float:
        return self.document.main.clips[index].source_in / SECOND  # type: ignore[attr-defined]


class PlaceTest(EditTest):
    def test_at_the_end(self) -> None:
        self.assertEqual([("a", 0, 2), ("b", 2, 2), ("c", 4, 2)], self.row())

    def test_pushed_in_moves_what_comes_later_and_parts_what_is_there(self) -> None:
        self.do(kind="place", clip=video("n", 1), mode="push", at=3 * SECOND)
        self.assertEqual(
            [("a", 0, 2), ("b", 2, 1), ("n", 3, 1), ("b", 4, 1), ("c", 5, 2)], self.row()
        )
        self.assertEqual([3, 3, 0, 4, 3], [self.source_in(i) for i in range(5)])

    def test_over_replaces_what_is_there(self) -> None:
        self.do(kind="place", clip=video("n", 2), mode="over", at=SECOND)
        self.assertEqual([("a", 0, 1), ("n", 1, 2), ("b", 3, 1), ("c", 4, 2)], self.row())

    def test_above_takes_the_free_track_then_a_new_one(self) -> None:
        self.do(kind="place", clip=solid("n", 1), mode="above", at=SECOND)
        self.do(kind="place", clip=solid("o", 1), mode="above", at=SECOND)
        self.assertEqual([("n", 1, 1)], self.row(1))
        self.assertEqual([("o", 1, 1)], self.row(2))
        self.assertEqual(
            ["main", "picture", "picture", "sound"], [t.kind for t in self.document.tracks]
        )

    def test_sound_goes_to_a_sound_track(self) -> None:
        sound = {**video("s", 1), "kind": "sound"}
        self.do(kind="place", clip=sound, mode="push", at=SECOND)
        self.do(kind="place", clip=sound, mode="end")
        self.assertEqual([("s", 1, 1), ("s", 2, 1)], self.row(2))

    def test_lengths_become_whole_frames(self) -> None:
        self.do(kind="place", clip=video("n", 0.99))
        self.assertEqual(29 / 30, self.row()[3][2])
        with self.assertRaises(EditRefused):
            self.do(kind="place", clip=video("n", 0.01))


class TrimTest(EditTest):
    def test_the_end_stops_where_the_source_ends(self) -> None:
        self.do(kind="trim", clip=self.id("b"), edge="end", to=60 * SECOND)
        self.assertEqual([("a", 0, 2), ("b", 2, 7), ("c", 9, 2)], self.row())

    def test_the_start_of_the_first_clip_can_go_before_zero(self) -> None:
        self.do(kind="trim", clip=self.id("a"), edge="start", to=-SECOND)
        self.assertEqual([("a", 0, 3), ("b", 3, 2), ("c", 5, 2)], self.row())
        self.assertEqual(2, self.source_in(0))

    def test_shortening_the_start_closes_the_gap(self) -> None:
        self.do(kind="trim", clip=self.id("b"), edge="start", to=3 * SECOND)
        self.assertEqual([("a", 0, 2), ("b", 2, 1), ("c", 3, 2)], self.row())
        self.assertEqual(4, self.source_in(1))

    def test_on_a_free_track_it_stops_at_the_neighbour(self) -> None:
        for name, at in (("x", 0), ("y", 3)):
            self.do(kind="place", clip=solid(name, 1), mode="above", at=at * SECOND)
        self.do(kind="trim", clip=self.id("x"), edge="end", to=5 * SECOND)
        self.do(kind="trim", clip=self.id("y"), edge="start", to=0)
        self.assertEqual([("x", 0, 3), ("y", 3, 1)], self.row(1))

    def test_a_clip_keeps_one_frame(self) -> None:
        self.do(kind="trim", clip=self.id("a"), edge="end", to=0)
        self.assertEqual(1 / 30, self.row()[0][2])

    def test_away_left_and_right(self) -> None:
        self.do(kind="cut_away", clips=[self.id("b")], side="left", at=3 * SECOND)
        self.assertEqual(("b", 2, 1), self.row()[1])
        self.do(kind="cut_away", clips=[self.id("a")], side="right", at=SECOND)
        self.assertEqual([("a", 0, 1), ("b", 1, 1), ("c", 2, 2)], self.row())
        with self.assertRaisesRegex(EditRefused, "playhead"):
            self.do(kind="cut_away", clips=[self.id("c")], side="left", at=0)


class SplitTest(EditTest):
    def test_keys_stay_where_they_are_on_the_timeline(self) -> None:
        keys = {"keys": [{"at": 0, "value": 0.0}, {"at": 2 * SECOND, "value": 1.0}]}
        self.do(kind="adjust", clips=[self.id("b")], values={"opacity": keys})
        self.do(kind="split", clips=[self.id("b")], at=round(2.5 * SECOND))
        _, first, second, _ = self.document.main.clips
        self.assertAlmostEqual(0.1, value_at(first.opacity, SECOND // 5))  # type: ignore[attr-defined]
        self.assertAlmostEqual(0.35, value_at(second.opacity, SECOND // 5))  # type: ignore[attr-defined]

    def test_with_nothing_given_all_open_tracks_are_split(self) -> None:
        self.do(kind="place", clip=solid("x", 3), mode="above", at=0)
        self.do(kind="split", at=SECOND)
        self.assertEqual([4, 2], [len(track.clips) for track in self.document.tracks[:2]])

    def test_nothing_under_the_playhead_is_said(self) -> None:
        with self.assertRaisesRegex(EditRefused, "nothing to split"):
            self.do(kind="split", at=2 * SECOND)


class MoveTest(EditTest):
    def test_on_the_main_track_it_goes_to_the_nearest_join(self) -> None:
        self.do(kind="move", clip=self.id("c"), to=SECOND // 2)
        self.assertEqual(["c", "a", "b"], [name for name, _, _ in self.row()])

    def test_to_another_track_the_gap_closes(self) -> None:
        above = self.document.tracks[1].id
        self.do(kind="move", clip=self.id("b"), to=5 * SECOND, track=above)
        self.assertEqual([("a", 0, 2), ("c", 2, 2)], self.row())
        self.assertEqual([("b", 5, 2)], self.row(1))

    def test_raise_and_lower_are_there_and_back(self) -> None:
        self.do(kind="raise", clip=self.id("b"))
        self.assertEqual([("b", 2, 2)], self.row(1))
        self.do(kind="lower", clip=self.id("b"))
        self.assertEqual([("a", 0, 2), ("b", 2, 2), ("c", 4, 2)], self.row())

    def test_raise_takes_a_new_track_only_where_there_is_no_room(self) -> None:
        self.do(kind="place", clip=solid("x", 1), mode="above", at=2 * SECOND)
        tracks = len(self.document.tracks)
        self.do(kind="raise", clip=self.id("b"))
        self.assertEqual(tracks + 1, len(self.document.tracks))
        self.assertEqual(([("x", 2, 1)], [("b", 2, 2)]), (self.row(1), self.row(2)))
        self.do(kind="raise", clip=self.id("x"))
        self.assertEqual([("x", 2, 1)], self.row(3))

    def test_a_sound_does_not_go_among_pictures(self) -> None:
        self.do(kind="place", clip={**video("s", 1), "kind": "sound"})
        with self.assertRaisesRegex(EditRefused, "does not hold"):
            self.do(kind="move", clip=self.id("s"), to=0, track=self.document.main.id)

    def test_shift_moves_several_over_others(self) -> None:
        for name, at in (("x", 0), ("y", 1), ("z", 3)):
            self.do(kind="place", clip=solid(name, 1), mode="above", at=at * SECOND)
        self.do(kind="shift", clips=[self.id("x"), self.id("y")], by=2 * SECOND)
        self.assertEqual([("x", 2, 1), ("y", 3, 1)], self.row(1))


class OtherTest(EditTest):
    def test_delete_closes_the_gap_on_main_and_elsewhere_if_asked(self) -> None:
        self.do(kind="remove", clips=[self.id("a")])
        self.assertEqual([("b", 0, 2), ("c", 2, 2)], self.row())
        for name, at in (("x", 0), ("y", 2)):
            self.do(kind="place", clip=solid(name, 1), mode="above", at=at * SECOND)
        self.do(kind="remove", clips=[self.id("x")], close=True)
        self.assertEqual([("y", 1, 1)], self.row(1))

    def test_duplicate_comes_right_behind(self) -> None:
        self.do(kind="duplicate", clips=[self.id("a")])
        self.assertEqual(["a", "a", "b", "c"], [name for name, _, _ in self.row()])
        self.assertEqual(4, len({clip.id for clip in self.document.main.clips}))

    def test_adjust_refuses_what_no_clip_has(self) -> None:
        for values in ({"colour": "#ffffff"}, {"start": 0}, {"place/nothing": 1}):
            with self.assertRaises(EditRefused, msg=values):
                self.do(kind="adjust", clips=[self.id("a")], values=values)
        with self.assertRaisesRegex(EditRefused, "does not fit"):
            self.do(kind="adjust", clips=[self.id("a")], values={"opacity": "much"})

    def test_locked_tracks_are_left_alone(self) -> None:
        self.do(kind="set_track", track=self.document.main.id, locked=True)
        with self.assertRaisesRegex(EditRefused, "locked"):
            self.do(kind="remove", clips=[self.id("a")])

    def test_the_main_track_stays_and_gone_clips_are_said(self) -> None:
        with self.assertRaises(EditRefused):
            self.do(kind="remove_track", track=self.document.main.id)
        with self.assertRaises(EditRefused):
            self.do(kind="remove", clips=["gone"])
        with self.assertRaises(NotThere):
            self.do(kind="set_track", track="gone", muted=True)

    def test_another_rate_keeps_times_to_the_nearest_frame(self) -> None:
        self.do(kind="set_rate", rate={"num": 24000, "den": 1001})
        for (_, start, length), wanted in zip(self.row(), (0, 2, 4), strict=True):
            self.assertAlmostEqual(wanted, start, delta=0.03)
            self.assertAlmostEqual(2, length, delta=0.03)

    def test_places_are_marked_anew_under_their_name(self) -> None:
        clip = self.document.main.clips[1]
        self.do(kind="add_marker", clip=clip.id, at=2 * SECOND, name="kept")
        mark = {"kind": "mark_places", "clip": clip.id, "name": "Unsure", "tag": "amber"}
        # Those beyond the clip, and those twice, are left out.
        self.do(**mark, at=[3 * SECOND, SECOND, 3 * SECOND + 1, 4 * SECOND])
        self.do(**mark, at=[3 * SECOND, 2 * SECOND])
        markers = self.document.main.clips[1].markers
        found = [(one.name, one.at / SECOND, one.tag) for one in markers]
        expected = [("Unsure", 0, "amber"), ("Unsure", 1, "amber"), ("kept", 0, "")]
        self.assertEqual(expected, sorted(found))
        self.do(**mark, at=[])
        self.assertEqual(["kept"], [one.name for one in self.document.main.clips[1].markers])

"""Multicam clips: what is done to angles and switches, and what stays as it was."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from kitecore import edits
from kitecore.document import Document, GroupClip, MulticamClip, empty_document, load
from kitecore.edits._files import files_of
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import EditRefused

FRAME = SECOND // 30


def take(name: str, seconds: float, kind: str = "video") -> dict[str, Any]:
    return {"media": name, "name": f"{name}.mp4", "kind": kind, "length": round(seconds * SECOND)}


class MulticamCase(TestCase):
    def setUp(self) -> None:
        self.document: Document = empty_document()
        self.do(
            kind="gather_angles",
            takes=[take("near", 10), take("wide", 12), take("far", 9), take("mic", 11, "sound")],
        )

    def do(self, **fields: Any) -> None:
        self.document = edits.apply(self.document, edit(**fields))

    def on(self, kind: str, **fields: Any) -> None:
        self.do(kind=kind, clip=self.clip.id, **fields)

    @property
    def parts(self) -> list[MulticamClip]:
        return [clip for clip in self.document.main.clips if isinstance(clip, MulticamClip)]

    @property
    def clip(self) -> MulticamClip:
        return self.parts[0]

    def places(self, part: MulticamClip | None = None) -> dict[str, int]:
        """Where each file's own tick 0 lies on the timeline."""
        part = part or self.clip
        by = part.start - part.source_in
        return {
            file.clip.media: file.at + by
            for index in range(len(part.tracks))
            for file in files_of(part.angle(index))
        }

    def switches(self, part: MulticamClip | None = None) -> list[tuple[float, int]]:
        return [(one.at / SECOND, one.angle) for one in (part or self.clip).switches]

    def refuses(self, words: str, kind: str, **fields: Any) -> None:
        before = self.document
        with self.assertRaisesRegex(EditRefused, words):
            self.on(kind, **fields)
        self.assertIs(before, self.document)


class AnglesTest(MulticamCase):
    def test_takes_become_angles_in_order_each_with_its_colour(self) -> None:
        self.assertEqual(12 * SECOND, self.clip.length)
        self.assertEqual(["near", "wide", "far", "mic"], [t.name for t in self.clip.tracks])
        self.assertEqual(
            ["main", "picture", "picture", "sound"], [t.kind for t in self.clip.tracks]
        )
        self.assertEqual(4, len({self.clip.angle(index).tag for index in range(4)}))
        self.assertEqual([(0, 0)], self.switches())

    def test_angles_need_pictures_and_things_that_run(self) -> None:
        with self.assertRaisesRegex(EditRefused, "is a still"):
            self.do(kind="gather_angles", takes=[take("near", 3), take("card", 0, "still")])
        self.on("hear_angles", hears=[3, 3, 3, 3])
        for index in (2, 1):
            self.on("remove_angle", angle=index)
        self.refuses("at least one angle with a picture", "remove_angle", angle=0)

    def test_one_is_begun_empty_and_filled(self) -> None:
        self.document = empty_document()
        self.do(kind="gather_angles", takes=[])
        self.assertEqual((10 * SECOND, ()), (self.clip.length, self.clip.tracks))
        self.assertEqual(((), ()), (self.clip.seen(0, SECOND), self.clip.heard(0, SECOND)))
        for kind, more in (
            ("switch", {"cuts": [{"at": SECOND, "angle": 0}]}),
            ("remove_angle", {"angle": 0}),
            ("lay_out", {}),
        ):
            with self.subTest(kind), self.assertRaises(EditRefused):
                self.on(kind, **more)
        self.do(kind="set_rate", rate={"num": 25, "den": 1})
        self.on("add_angles", takes=[take("mic", 14, "sound")])
        self.assertEqual((14 * SECOND, ()), (self.clip.length, self.clip.seen(0, SECOND)))
        self.assertEqual(1, len(self.clip.heard(0, SECOND)))
        self.on("add_angles", takes=[take("near", 8), take("far", 20)])
        self.assertEqual(["sound", "main", "picture"], [track.kind for track in self.clip.tracks])
        self.assertEqual((20 * SECOND, [(0, 1)]), (self.clip.length, self.switches()))
        self.on("hear_angles", hears=[0, 0, 0])
        self.on("lay_out")
        names = {clip.name for track in self.document.tracks for clip in track.clips}
        self.assertEqual({"near", "mic", "Gap"}, names)

    def test_several_files_of_one_angle_come_one_behind_another(self) -> None:
        self.on("add_angles", takes=[take("far2", 4), take("far3", 2)], angle=2)
        self.assertEqual(9 * SECOND, self.places()["far2"])
        self.assertEqual(13 * SECOND, self.places()["far3"])

    def test_lining_up_puts_files_between_frames_and_keeps_all_switches(self) -> None:
        self.on("switch", cuts=[{"at": 3 * SECOND, "angle": 1}, {"at": 5 * SECOND, "angle": 2}])
        odd = FRAME // 3
        self.on(
            "line_up", places=[{"angle": 1, "at": 2 * SECOND}, {"angle": 3, "at": SECOND + odd}]
        )
        self.assertEqual(
            {"near": 0, "wide": 2 * SECOND, "far": 0, "mic": SECOND + odd}, self.places()
        )
        self.assertEqual([(0, 0), (3, 1), (5, 2)], self.switches())
        self.assertEqual(14 * SECOND, self.clip.length)

    def test_an_angle_before_all_others_moves_them_and_not_what_is_shown_with_them(self) -> None:
        self.on("switch", cuts=[{"at": 3 * SECOND, "angle": 1}])
        self.do(kind="split", at=4 * SECOND)
        self.on("nudge_angle", angle=2, by=-FRAME - 5)
        first, second = self.parts
        for part in (first, second):
            places = self.places(part)
            self.assertEqual((places["near"] - FRAME - 5, 0), (places["far"], places["near"]))
            [seen] = part.seen(*part.used)
            self.assertEqual("wide", [clip.name for clip in seen.clips][-1])
        self.assertEqual(FRAME, first.switches[1].at - 3 * SECOND)

    def test_all_parts_of_a_scene_share_their_angles(self) -> None:
        self.do(kind="split", at=4 * SECOND)
        self.do(kind="split", at=6 * SECOND)
        self.do(kind="group", clips=[self.parts[2].id])
        wide = self.parts[1].angle(1)
        self.do(
            kind="set_grade",
            within=self.parts[1].id,
            clips=[wide.id],
            values={"light/exposure": 1},
        )
        self.on("name_angle", angle=0, name="Table", tag="rose")
        group = self.document.main.clips[2]
        assert isinstance(group, GroupClip)
        parts = [*self.parts, *group.tracks[0].clips]
        self.assertEqual(3, len(parts))
        for part in parts:
            assert isinstance(part, MulticamClip)
            grade, angle = part.angle(1).grade, part.angle(0)
            assert grade is not None
            self.assertEqual((1, "Table", "rose"), (grade.light.exposure, angle.name, angle.tag))

    def test_a_file_of_an_angle_is_exchanged_and_all_switches_stay(self) -> None:
        self.on("switch", cuts=[{"at": 3 * SECOND, "angle": 1}, {"at": 5 * SECOND, "angle": 2}])
        self.do(kind="split", at=4 * SECOND)
        before = [self.switches(part) for part in self.parts]
        angle = self.parts[0].angle(1)
        file = angle.tracks[0].clips[0].id
        self.do(kind="replace", clip=file, take=take("wide2", 30), within=angle.id)
        self.assertEqual(before, [self.switches(part) for part in self.parts])
        for part in self.parts:
            [shown] = part.angle(1).tracks[0].clips
            self.assertEqual(("wide2", 12 * SECOND), (shown.name, shown.length))

    def test_an_angle_of_two_files(self) -> None:
        self.on("add_angles", takes=[take("far2", 4)], angle=2, at=3 * SECOND)
        self.assertEqual(9 * SECOND, self.places()["far2"], "it would lie over the first")
        self.on("line_up", places=[{"angle": 2, "file": 1, "at": 9 * SECOND + 40 * FRAME}])
        files = self.clip.angle(2).tracks[0].clips
        self.assertEqual([0, 9 * SECOND + 40 * FRAME], [clip.start for clip in files])
        self.on("join_angles", angle=1, into=0)
        self.assertEqual(["near", "far", "mic"], [track.name for track in self.clip.tracks])
        self.assertEqual(10 * SECOND, self.places()["wide"])

    def test_what_was_cut_and_laid_within_an_angle_stays(self) -> None:
        angle = self.clip.angle(0)
        within = {"within": angle.id}
        self.do(kind="split", at=4 * SECOND, **within)
        second = self.clip.angle(0).tracks[0].clips[1].id
        self.do(kind="trim", clip=second, edge="end", to=8 * SECOND, **within)
        word = {"kind": "text", "name": "word", "length": SECOND}
        self.do(kind="place", clip=word, mode="above", at=5 * SECOND, **within)
        wide = self.clip.angle(1).id
        self.do(kind="trim", clip=wide, edge="end", to=11 * SECOND, within=self.clip.id)
        before = self._held()
        self.on("name_angle", angle=0, name="Table")
        self.on("move_angle", angle=0, to=2)
        self.on("move_angle", angle=2, to=0)
        self.assertEqual(before, self._held())
        self.on("line_up", places=[{"angle": 0, "file": n, "at": 2 * SECOND} for n in (0, 1)])
        self.on("nudge_angle", angle=1, by=-SECOND)
        later = [
            (name, start + by) for (name, start), by in zip(before, (3, 3, 3, 0, 1, 1), strict=True)
        ]
        self.assertEqual(later, self._held())
        self.assertEqual(11 * SECOND, self.clip.angle(1).length)

    def _held(self) -> list[tuple[str, float]]:
        """What each angle holds, and at which second of the multicam clip."""
        return [
            (clip.name, (clip.start + angle.start - angle.source_in) / SECOND)
            for angle in map(self.clip.angle, range(4))
            for track in angle.tracks
            for clip in track.clips
        ]

    def test_nudges_between_frames_and_back_lose_nothing(self) -> None:
        self.on("add_angles", takes=[take("far2", 4)], angle=2, at=9 * SECOND)
        before, length = self.places(), self.clip.length
        for way in (1, -1):
            for _ in range(40):
                self.on("nudge_angle", angle=2, by=way * SECOND // 1000)
        self.assertEqual(before, self.places())
        files = self.clip.angle(2).tracks[0].clips
        self.assertEqual([0, 9], [clip.start / SECOND for clip in files])
        self.assertEqual((length, [9, 4]), (self.clip.length, [c.length / SECOND for c in files]))

    def test_what_is_known_by_index_follows_when_angles_change_places(self) -> None:
        self.on("switch", cuts=[{"at": SECOND, "angle": 1}, {"at": 2 * SECOND, "angle": 2}])
        self.on("hear_angles", hears=[3, 0, 2, 3])
        self.on("move_angle", angle=2, to=0)
        self.assertEqual([(0, 1), (1, 2), (2, 0)], self.switches())
        self.assertEqual((0, 3, 1, 3), self.clip.hears)
        self.on("remove_angle", angle=1)
        self.assertEqual([(0, 0), (1, 1), (2, 0)], self.switches())
        self.on("add_angles", takes=[take("new", 2)])
        self.assertEqual(3, self.clip.hears[3], "a new one has its own sound")

    def test_within_a_multicam_clip_angles_stay_what_they_are(self) -> None:
        angle = self.clip.angle(0)
        for more in (
            {"kind": "copy_above", "clips": [angle.id]},
            {"kind": "split", "at": SECOND},
            {"kind": "remove", "clips": [angle.id]},
            {"kind": "order_track", "track": self.clip.tracks[0].id, "to": 1},
        ):
            with self.assertRaises(EditRefused):
                self.do(within=self.clip.id, **more)

    def test_levels_of_angles_are_matched_in_all_parts(self) -> None:
        self.do(kind="split", at=4 * SECOND)
        self.on("level_angles", gains=[0, -3.5, 6, 2])
        for part in self.parts:
            self.assertEqual([0, -3.5, 6, 2], [part.angle(n).gain for n in range(4)])
        self.refuses("for each angle", "level_angles", gains=[1])

    def test_another_frame_rate_moves_no_sound(self) -> None:
        self.on("nudge_angle", angle=1, by=FRAME // 3)
        self.on("switch", cuts=[{"at": SECOND + FRAME, "angle": 1}])
        before = self.places()
        self.do(kind="set_rate", rate={"num": 25, "den": 1})
        self.assertEqual(before, self.places())
        self.assertAlmostEqual(1 + 1 / 30, self.switches()[1][0], delta=0.02)

    def test_it_is_read_again_as_it_was(self) -> None:
        self.on("switch", cuts=[{"at": SECOND, "angle": 1}])
        self.on("cross_switch", transition={"kind": "dissolve", "length": 10 * FRAME})
        again = load(self.document.model_dump(mode="json", by_alias=True))
        self.assertEqual(self.document, again)


class SwitchesTest(MulticamCase):
    def test_taps_land_on_frames_and_the_stretch_they_were_tapped_in_is_new(self) -> None:
        cuts = [{"at": SECOND + 7, "angle": 1}, {"at": 2 * SECOND, "angle": 2}]
        self.on("switch", cuts=[*cuts, {"at": 5 * SECOND, "angle": 0}])
        self.assertEqual([(0, 0), (1, 1), (2, 2), (5, 0)], self.switches())
        self.on("switch", cuts=[{"at": SECOND * 3 // 2, "angle": 0}], until=3 * SECOND)
        self.assertEqual([(0, 0), (1, 1), (1.5, 0), (3, 2), (5, 0)], self.switches())

    def test_taps_of_a_loop_come_in_any_order(self) -> None:
        self.on("switch", cuts=[{"at": SECOND, "angle": 1}])
        cuts = [{"at": 4 * SECOND, "angle": 2}, {"at": SECOND // 2, "angle": 2}]
        self.on("switch", cuts=cuts, until=5 * SECOND)
        self.assertEqual([(0, 0), (0.5, 2), (5, 1)], self.switches())

    def test_the_first_angle_is_set_without_a_cut_and_stretches_are_replaced(self) -> None:
        self.on("switch", cuts=[{"at": SECOND, "angle": 1}, {"at": 2 * SECOND, "angle": 0}])
        self.on("show_angle", at=0, angle=2)
        self.on("show_angle", at=SECOND, angle=0)
        self.assertEqual([(0, 2), (1, 0)], self.switches())

    def test_rolling_stops_before_its_neighbours(self) -> None:
        self.on("switch", cuts=[{"at": SECOND, "angle": 1}, {"at": 2 * SECOND, "angle": 0}])
        self.on("roll_switch", at=SECOND, by=-3 * FRAME)
        self.assertEqual(SECOND - 3 * FRAME, self.clip.switches[1].at)
        self.on("roll_switch", at=SECOND - 3 * FRAME, by=9 * SECOND)
        self.assertEqual(2 * SECOND - FRAME, self.clip.switches[1].at)
        self.refuses("begins with the clip", "roll_switch", at=0, by=FRAME)
        self.on("remove_switch", at=2 * SECOND - FRAME)
        self.assertEqual([(0, 0)], self.switches())

    def test_transitions_have_the_room_that_there_is(self) -> None:
        self.on("switch", cuts=[{"at": SECOND, "angle": 1}, {"at": SECOND + 6 * FRAME, "angle": 0}])
        self.on("cross_switch", transition={"kind": "dissolve", "length": 20 * FRAME})
        lengths = [one.transition and one.transition.length // FRAME for one in self.clip.switches]
        self.assertEqual([None, 6, 6], lengths)
        self.on("roll_switch", at=SECOND + 6 * FRAME, by=-4 * FRAME)
        lengths = [one.transition and one.transition.length // FRAME for one in self.clip.switches]
        self.assertEqual([None, 2, 2], lengths)
        self.on("cross_switch", at=SECOND, transition=None)
        self.assertIsNone(self.clip.switches[1].transition)

    def test_switches_survive_splits_trims_and_slips(self) -> None:
        self.on("switch", cuts=[{"at": 2 * SECOND, "angle": 1}, {"at": 6 * SECOND, "angle": 2}])
        self.do(kind="cut_away", clips=[self.clip.id], side="left", at=SECOND)
        self.do(kind="slip", clips=[self.clip.id], by=-SECOND // 2)
        moments = [one.at - self.clip.source_in for one in self.clip.switches[1:]]
        self.assertEqual([SECOND, 5 * SECOND], moments, "they stay while what they show slips")
        self.do(kind="slip", clips=[self.clip.id], by=-SECOND // 2)
        self.assertEqual(0, self.clip.source_in)
        self.do(kind="split", at=3 * SECOND)
        self.assertEqual(*(part.switches for part in self.parts))

    def test_a_slip_beyond_a_switch_shows_what_was_shown(self) -> None:
        self.on("switch", cuts=[{"at": SECOND // 2, "angle": 1}, {"at": 6 * SECOND, "angle": 2}])
        self.do(kind="cut_away", clips=[self.clip.id], side="left", at=SECOND)
        self.do(kind="slip", clips=[self.clip.id], by=-SECOND)
        self.assertEqual([(0, 1), (5, 2)], self.switches())

    def test_what_cannot_be_shown_is_refused(self) -> None:
        self.refuses("sound alone", "switch", cuts=[{"at": SECOND, "angle": 3}])
        self.refuses("no such angle", "switch", cuts=[{"at": SECOND, "angle": 9}])
        self.refuses("so already", "switch", cuts=[{"at": SECOND, "angle": 0}])
        self.refuses("not there any more", "remove_switch", at=SECOND)

    def test_laid_out_as_clips_it_is_what_it_was(self) -> None:
        self.on("hear_angles", hears=[3, 3, 3, 3])
        self.on("switch", cuts=[{"at": 2 * SECOND, "angle": 1}, {"at": 6 * SECOND, "angle": 2}])
        self.on("cross_switch", at=2 * SECOND, transition={"kind": "dissolve", "length": 4 * FRAME})
        self.on("lay_out")
        row = self.document.main.clips
        self.assertEqual(["near", "wide", "far"], [clip.name for clip in row][:3])
        self.assertEqual([0, 2, 6], [clip.start / SECOND for clip in row][:3])
        assert row[1].transition is not None
        sounds = [c for track in self.document.tracks if track.kind == "sound" for c in track.clips]
        self.assertEqual(["mic"], [clip.name for clip in sounds])

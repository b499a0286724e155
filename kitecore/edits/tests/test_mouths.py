from __future__ import annotations

from typing import Any
from unittest import TestCase

from kitecore.document import (
    Document,
    GroupClip,
    MouthClip,
    StillClip,
    all_clips,
    empty_document,
)
from kitecore.document.properties import keys_in
from kitecore.edits import apply
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import EditRefused, NothingChanges

STILL = {"media": "m1", "name": "closed.png", "kind": "still"}


def begun() -> Document:
    """With a drawn mouth from 1 s to 4 s."""
    return apply(empty_document(), edit(kind="add_layer", layer="mouth", at=SECOND, seed="new"))


def mouth_of(document: Document) -> MouthClip:
    return next(clip for clip in all_clips(document.tracks) if isinstance(clip, MouthClip))


def done(document: Document, kind: str, **more: Any) -> Document:
    return apply(document, edit(kind=kind, clip=mouth_of(document).id, **more))


def turns(document: Document) -> list[tuple[float, str, bool]]:
    return [(one.at / SECOND, one.pose, one.by_hand) for one in mouth_of(document).turns]


def tap(at: float, pose: str) -> dict[str, Any]:
    return {"at": round(at * SECOND), "pose": pose}


class SayTest(TestCase):
    def test_taps_are_of_the_film_and_turns_of_the_mouth(self) -> None:
        after = done(begun(), "say", taps=[tap(2, "open"), tap(3, "round")])
        self.assertEqual([(1, "open", True), (2, "round", True)], turns(after))

    def test_what_was_tapped_anew_replaces_what_was_there(self) -> None:
        before = done(begun(), "say", taps=[tap(1, "wide"), tap(2, "open"), tap(3, "round")])
        after = done(before, "say", taps=[tap(1.5, "smile")], until=3.5 * SECOND)
        self.assertEqual(["wide", "smile", "round"], [pose for _, pose, _ in turns(after)])
        self.assertEqual([0, 0.5, 2.5], [at for at, _, _ in turns(after)])

    def test_poses_that_are_not_there_are_refused(self) -> None:
        with self.assertRaises(EditRefused):
            done(begun(), "say", taps=[tap(2, "far")])


class ProposeTest(TestCase):
    def test_what_was_chosen_by_hand_stays(self) -> None:
        before = done(begun(), "say", taps=[tap(2, "smile")])
        before = done(before, "say", taps=[tap(2.5, "open")])
        found = [tap(0, "small"), tap(0.5, "wide"), tap(1.2, "teeth"), tap(1.8, "tongue")]
        after = done(before, "propose_poses", turns=found, until=3 * SECOND)
        self.assertEqual(
            [(0, "small", False), (0.5, "wide", False), (1, "smile", True), (1.5, "open", True)],
            turns(after),
        )

    def test_it_goes_on_after_what_was_chosen_until_the_next_change(self) -> None:
        first = [tap(0, "small"), tap(1, "wide"), tap(2, "round")]
        before = done(begun(), "propose_poses", turns=first, until=3 * SECOND)
        before = done(before, "pose_turns", at=[SECOND], pose="smile")
        again = [tap(0, "open"), tap(0.5, "small"), tap(1.5, "tongue"), tap(2.2, "teeth")]
        after = done(before, "propose_poses", turns=again, until=3 * SECOND)
        self.assertEqual(
            [
                (0, "open", False),
                (0.5, "small", False),
                (1, "smile", True),
                (2, "tongue", False),
                (2.2, "teeth", False),
                (3, "round", False),
            ],
            turns(after),
        )
        anew = done(after, "propose_poses", turns=again, until=3 * SECOND, anew=True)
        self.assertFalse(any(by_hand for _, _, by_hand in turns(anew)))


class TurnTest(TestCase):
    def setUp(self) -> None:
        taps = [tap(1, "open"), tap(2, "round"), tap(3, "open")]
        self.document = done(begun(), "say", taps=taps)

    def test_all_of_a_kind_become_another_at_once(self) -> None:
        after = done(self.document, "pose_turns", at=[0, 2 * SECOND], pose="wide")
        self.assertEqual(["wide", "round", "wide"], [pose for _, pose, _ in turns(after)])

    def test_neighbours_that_become_alike_are_one(self) -> None:
        after = done(self.document, "pose_turns", at=[SECOND], pose="open")
        self.assertEqual([(0, "open", True)], turns(after))

    def test_a_change_stops_before_its_neighbours(self) -> None:
        after = done(self.document, "roll_turn", at=SECOND, by=5 * SECOND)
        self.assertAlmostEqual(2, turns(after)[1][0], delta=0.05)
        self.assertLess(turns(after)[1][0], 2)

    def test_removed_the_pose_before_goes_on(self) -> None:
        after = done(self.document, "remove_turns", at=[SECOND])
        self.assertEqual([(0, "open", True)], turns(after))
        with self.assertRaises(EditRefused):
            done(self.document, "remove_turns", at=[7])

    def test_it_rests_in_pauses_and_goes_on_after_them(self) -> None:
        after = done(self.document, "rest_in", spans=[[SECOND // 2, 3 * SECOND // 2]])
        self.assertEqual(
            [(0, "open"), (0.5, "closed"), (1.5, "round"), (2, "open")],
            [(at, pose) for at, pose, _ in turns(after)],
        )

    def test_markers_become_poses_and_back(self) -> None:
        marked = done(self.document, "markers_from_poses")
        names = [marker.name for marker in mouth_of(marked).markers]
        self.assertEqual(["open", "round", "open"], names)
        back = done(done(marked, "clear_turns"), "poses_from_markers")
        self.assertEqual(turns(self.document), turns(back))
        named = apply(begun(), edit(kind="add_marker", at=2 * SECOND, name="Round"))
        self.assertEqual([(1, "round", True)], turns(done(named, "poses_from_markers")))

    def test_the_same_again_changes_nothing(self) -> None:
        with self.assertRaises(NothingChanges):
            done(self.document, "say", taps=[tap(1, "open")])


class PoseTest(TestCase):
    def made(self) -> Document:
        document = empty_document()
        for number, name in enumerate(("open", "one", "Closed")):
            clip = {"kind": "still", "name": name, "media": f"m{number}", "length": 2 * SECOND}
            document = apply(document, edit(kind="place", clip=clip, mode="above", at=SECOND))
        ids = [clip.id for _, clip in document.clips()]
        return apply(document, edit(kind="make_mouth", clips=ids, seed="made"))

    def test_pictures_become_a_mouth_by_their_names(self) -> None:
        document = self.made()
        mouth = mouth_of(document)
        self.assertEqual((SECOND, 3 * SECOND), (mouth.start, mouth.end))
        held = {name: clip.media_at(0) for name, clip in mouth.poses.items()}  # type: ignore[attr-defined]
        self.assertEqual({"open": "m0", "small": "m1", "closed": "m2"}, held)
        self.assertEqual([mouth.id], [clip.id for _, clip in document.clips()])

    def test_a_pose_is_added_renamed_exchanged_and_taken_away(self) -> None:
        document = done(self.made(), "say", taps=[tap(1, "open"), tap(2, "small")])
        document = done(document, "add_pose", name="whistle", like="open")
        document = done(document, "set_pose", pose="small", name="hum", take=STILL)
        mouth = mouth_of(document)
        self.assertEqual(["open", "hum", "closed", "whistle"], list(mouth.poses))
        hum = mouth.poses["hum"]
        assert isinstance(hum, StillClip)
        self.assertEqual("m1", hum.media)
        self.assertEqual("hum", turns(document)[1][1])
        gone = done(document, "remove_pose", pose="open")
        self.assertEqual([(0, "closed", True), (1, "hum", True)], turns(gone))
        for kind, more in (
            ("add_pose", {"name": "hum"}),
            ("set_pose", {"pose": "far"}),
            ("set_pose", {"pose": "hum", "name": "open"}),
            ("remove_pose", {"pose": "far"}),
            ("order_pose", {"pose": "far", "to": 0}),
        ):
            with self.subTest(kind), self.assertRaises(EditRefused):
                done(document, kind, **more)

    def test_poses_stand_in_another_order(self) -> None:
        document = done(begun(), "say", taps=[tap(2, "open")])
        names = [track.name for track in mouth_of(document).tracks]
        moved = done(document, "order_pose", pose=names[2], to=0)
        self.assertEqual(
            [names[2], *names[:2], *names[3:]], [track.name for track in mouth_of(moved).tracks]
        )
        self.assertEqual(turns(document), turns(moved))
        last = done(moved, "order_pose", pose=names[2], to=20)
        self.assertEqual(names[2], mouth_of(last).tracks[-1].name)
        with self.assertRaises(NothingChanges):
            done(last, "order_pose", pose=names[2], to=20)

    def test_at_another_rate_poses_change_on_its_frames(self) -> None:
        document = done(
            begun(), "say", taps=[tap(1.5, "wide"), tap(2 + 1 / 30, "open"), tap(3, "round")]
        )
        after = apply(document, edit(kind="set_rate", rate={"num": 24, "den": 1}))
        step = after.rate.exact.frame_ticks
        self.assertEqual(["wide", "open", "round"], [pose for _, pose, _ in turns(after)])
        for one, before in zip(mouth_of(after).turns, mouth_of(document).turns, strict=True):
            self.assertEqual(0, one.at % step)
            self.assertLessEqual(abs(one.at - before.at), step // 2)

    def test_pictures_cannot_move_but_drawn_poses_can(self) -> None:
        with self.assertRaises(EditRefused):
            done(self.made(), "mouth_way", way={"kind": "moving"})
        drawn = done(begun(), "mouth_way", way={"kind": "bouncing", "bounce": 0.4})
        self.assertEqual(
            "moving", mouth_of(done(drawn, "mouth_way", way={"kind": "moving"})).way.kind
        )

    def test_what_is_laid_into_a_mouth_is_a_pose_of_its_own(self) -> None:
        document = begun()
        text = edit(kind="add_layer", layer="text", within=mouth_of(document).id)
        after = apply(document, text)
        self.assertEqual(9, len(mouth_of(after).poses))
        gone = mouth_of(after).tracks[-1].clips[0].id
        only = edit(kind="remove", clips=[gone], within=mouth_of(after).id)
        self.assertTrue(mouth_of(apply(after, only)).is_whole)
        every = [track.clips[0].id for track in mouth_of(document).tracks]
        with self.assertRaises(EditRefused):
            apply(document, edit(kind="remove", clips=every, within=mouth_of(document).id))

    def test_a_copy_keeps_poses_and_says_the_same(self) -> None:
        document = done(begun(), "say", taps=[tap(2, "open"), tap(3, "round")])
        clip = mouth_of(document)
        copy = {"lane": 0, "of": "picture", "clip": clip.model_dump(mode="json")}
        after = apply(document, edit(kind="paste", copies=[copy], at=9 * SECOND, seed="copy"))
        both = [one for _, one in after.clips() if isinstance(one, MouthClip)]
        self.assertEqual(2, len(both))
        self.assertEqual(both[0].turns, both[1].turns)
        self.assertEqual(list(both[0].poses), list(both[1].poses))
        self.assertEqual(
            0, len({one.id for one in both[0].tracks} & {o.id for o in both[1].tracks})
        )

    def test_laid_out_it_is_a_group_of_clips_with_keys(self) -> None:
        document = done(begun(), "say", taps=[tap(2, "open"), tap(3, "round")])
        clip = mouth_of(document)
        moving = done(document, "lay_out_mouth")
        [group] = [one for _, one in moving.clips() if one.id == clip.id]
        assert isinstance(group, GroupClip)
        [whole] = group.tracks[0].clips
        self.assertEqual(clip.length, whole.length)
        self.assertGreater(len(keys_in(whole.tracks[0].clips[0])), 0)  # type: ignore[attr-defined]
        swapped = done(document, "mouth_way", way={"kind": "swapped"})
        [group] = [one for _, one in done(swapped, "lay_out_mouth").clips() if one.id == clip.id]
        assert isinstance(group, GroupClip)
        row = [(one.start / SECOND, one.end / SECOND, one.name) for one in group.tracks[0].clips]
        self.assertEqual([(0, 1, "closed"), (1, 2, "open"), (2, 3, "round")], row)

    def test_a_sound_is_no_pose(self) -> None:
        document = empty_document()
        source = {"media": "m", "source_length": 9 * SECOND, "length": SECOND}
        for clip in ({"kind": "sound", **source}, {"kind": "text", "length": SECOND}):
            document = apply(document, edit(kind="place", clip=clip, mode="above"))
        ids = [clip.id for _, clip in document.clips()]
        with self.assertRaises(EditRefused):
            apply(document, edit(kind="make_mouth", clips=ids))

    def test_a_pose_of_one_frame_lasts_through_another_rate(self) -> None:
        document = begun()
        pose = mouth_of(document).tracks[1].clips[0].id
        short = {"kind": "trim", "clip": pose, "edge": "end", "to": 0}
        document = apply(document, edit(**short, within=mouth_of(document).id))
        after = apply(document, edit(kind="set_rate", rate={"num": 30000, "den": 1001}))
        self.assertEqual(list(mouth_of(document).poses), list(mouth_of(after).poses))

    def test_what_is_shorter_than_a_frame_is_no_pose(self) -> None:
        document = begun()
        for kind in ("add_pose", "set_pose"):
            take = {"media": "m", "name": "blink.mp4", "kind": "video", "length": 1}
            named = {"name": "far"} if kind == "add_pose" else {"pose": "open"}
            with self.assertRaisesRegex(EditRefused, "shorter than one frame"):
                apply(document, edit(kind=kind, clip=mouth_of(document).id, take=take, **named))

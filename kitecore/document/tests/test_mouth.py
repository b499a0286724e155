from __future__ import annotations

from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.document import ClipBase, GroupClip, MouthClip, Pictured, Place, ShapeClip
from kitecore.document.clips.mouth import may_move
from kitecore.document.morphing import Unlike, morphed
from kitecore.document.moves import Entrance, Moves
from kitecore.document.paths import PathKeys
from kitecore.document.properties import ColourKeys, NumberKeys, PointKeys
from kitecore.edits.fresh import fresh_clip
from kitecore.motion.posing import pose_at
from kitecore.ticks import TICKS_PER_SECOND as SECOND

FRAME = SECOND // 30


def mouth(way: dict[str, Any], *turns: tuple[float, str]) -> MouthClip:
    clip = fresh_clip("mouth")
    assert isinstance(clip, MouthClip)
    data = clip.model_dump(mode="json")
    data |= {"way": way, "turns": [{"at": round(at * SECOND), "pose": pose} for at, pose in turns]}
    return MouthClip.model_validate(data)


def row(clip: MouthClip, low: float, high: float) -> tuple[ClipBase, ...]:
    [track] = clip.seen(round(low * SECOND), round(high * SECOND))
    return track.clips


class SwappedTest(TestCase):
    talk = mouth({"kind": "swapped"}, (1, "open"), (2, "round"), (3, "far"))

    def test_it_rests_before_the_first_and_where_a_pose_is_missing(self) -> None:
        at = [0.0, 1.0, 1.99, 2.0, 3.5]
        poses = [self.talk.pose_at(round(one * SECOND)) for one in at]
        self.assertEqual(["closed", "open", "open", "round", "closed"], poses)

    def test_what_is_seen_are_poses_one_after_another(self) -> None:
        clips = row(self.talk, 0.5, 2.5)
        self.assertEqual(["closed", "open", "round"], [clip.name for clip in clips])
        self.assertEqual(
            [(0, 1), (1, 2), (2, 3)], [(c.start // SECOND, c.end // SECOND) for c in clips]
        )

    def test_it_is_silent_and_never_ends(self) -> None:
        self.assertEqual((), self.talk.heard(0, SECOND))
        later = self.talk.trimmed(SECOND, 90 * SECOND)
        self.assertEqual("open", later.pose_at(later.source_at(0)))

    @given(st.floats(0, 5), st.floats(0.01, 3))
    def test_what_is_seen_does_not_depend_on_what_is_asked_for(
        self, low: float, long: float
    ) -> None:
        for way in ({"kind": "swapped"}, {"kind": "bouncing"}):
            clip = self.talk.model_copy(update={"way": mouth(way).way})
            whole = {one.start: one for one in row(clip, 0, 9)}
            for part in row(clip, low, low + long):
                self.assertEqual(whole[part.start], part)


class BouncingTest(TestCase):
    def test_each_swings_in_and_settles_at_its_size(self) -> None:
        rest, wide, low = row(
            mouth({"kind": "bouncing", "bounce": 0.3}, (1, "open"), (2, "closed")), 0, 3
        )
        self.assertIsNone(rest.moves.comes)  # type: ignore[attr-defined]
        for clip, first in ((wide, (0.7, 1.3)), (low, (1.3, 0.7))):
            assert isinstance(clip, Pictured)
            sizes = [pose_at(clip, at, (180, 320)).size for at in (0, SECOND // 2)]
            np.testing.assert_allclose([first, (1, 1)], sizes)

    def test_so_does_one_whose_size_has_keys_and_none_that_comes_in_by_itself(self) -> None:
        talk = mouth({"kind": "bouncing", "bounce": 0.3}, (1, "open"))
        size = {"keys": [{"at": 0, "value": [1, 1]}, {"at": SECOND, "value": [2, 2]}]}
        for values, wanted in (
            ({"place": Place.model_validate({"size": size})}, (0.7, 1.3)),
            ({"moves": Moves(comes=Entrance(kind="fade"))}, (1, 1)),
        ):
            tracks = tuple(
                track.with_clips((track.clips[0].model_copy(update=values),))
                for track in talk.tracks
            )
            [clip] = row(talk.model_copy(update={"tracks": tracks}), SECOND, SECOND + 1)
            assert isinstance(clip, Pictured)
            np.testing.assert_allclose(wanted, pose_at(clip, 0, (180, 320)).size)


class MovingTest(TestCase):
    talk = mouth({"kind": "moving", "lasting": 0.2}, (1, "open"), (2, "round"), (2.1, "wide"))

    def lips(self, low: float, high: float) -> tuple[ClipBase, ShapeClip]:
        [clip] = row(self.talk, low, high)
        assert isinstance(clip, GroupClip)
        first = clip.tracks[0].clips[0]
        assert isinstance(first, ShapeClip)
        return clip, first

    def test_points_go_from_pose_to_pose_about_each_change(self) -> None:
        _, lips = self.lips(0.9, 1.1)
        self.assertIsInstance(lips.form.contours, PathKeys)  # type: ignore[union-attr]
        times = [key.at / SECOND for key in lips.form.contours.keys]  # type: ignore[union-attr]
        self.assertEqual([0, 0.9, 1.1], [round(at, 3) for at in times[:3]])

    def test_changes_close_to_each_other_leave_each_room(self) -> None:
        clip, lips = self.lips(2.0, 2.1)
        begin = clip.start / SECOND
        times = [begin + key.at / SECOND for key in lips.form.contours.keys]  # type: ignore[union-attr]
        self.assertEqual(sorted(set(times)), times)
        self.assertIn(2.05, [round(at, 3) for at in times])

    def test_layers_last_as_long_as_what_is_seen(self) -> None:
        clip, lips = self.lips(2.5, 40)
        self.assertGreaterEqual(clip.end, 40 * SECOND)
        self.assertEqual(clip.length, lips.length)

    def test_poses_that_are_not_alike_are_swapped(self) -> None:
        self.assertTrue(may_move(self.talk))
        odd = self.talk.tracks[2].with_clips((ShapeClip(length=SECOND, name="odd"),))
        clip = self.talk.model_copy(update={"tracks": (*self.talk.tracks[:2], odd)})
        self.assertFalse(may_move(clip))
        self.assertEqual(["odd"], [one.name for one in row(clip, 1.5, 1.6)])


class MorphingTest(TestCase):
    def test_all_that_takes_keys_gets_them_and_the_rest_stays(self) -> None:
        first = ShapeClip(length=SECOND, name="a")
        fill = first.fill.model_copy(update={"colour": "#102030"})  # type: ignore[union-attr]
        place = first.place.model_copy(update={"position": (10.0, 5.0)})
        second = first.model_copy(
            update={"fill": fill, "place": place, "opacity": 0.5, "name": "b"}
        )
        done = morphed([first, second], (0, 9), mouth({"kind": "moving"}).way.ease)  # type: ignore[union-attr]
        self.assertEqual("a", done.name)
        self.assertIsInstance(done.opacity, NumberKeys)
        self.assertIsInstance(done.place.position, PointKeys)
        self.assertIsInstance(done.fill.colour, ColourKeys)  # type: ignore[union-attr]
        self.assertIs(first.place.size, done.place.size)

    def test_what_takes_no_keys_cannot_differ(self) -> None:
        first = ShapeClip(length=SECOND)
        other = first.model_copy(update={"blend": "screen"})
        ease = mouth({"kind": "moving"}).way.ease  # type: ignore[union-attr]
        self.assertRaises(Unlike, morphed, [first, other], (0, 9), ease)

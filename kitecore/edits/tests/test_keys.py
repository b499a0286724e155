"""Keys in hand, paths, ready-made motions: what each edit means."""

import math
from itertools import pairwise
from typing import Any
from unittest import TestCase

from kitecore import edits
from kitecore.document import Document, ShapeClip, empty_document
from kitecore.document.moves import Entrance, Meanwhile, Moves
from kitecore.document.properties import Keys, PointKeys
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import EditRefused
from kitecore.motion import still_at, value_at
from kitecore.motion.posing import pose_at
from kitecore.motion.spatial import lengths_of

FRAME = SECOND // 30
CANVAS = (1080.0, 1920.0)


def keyed(*pairs: tuple[int, Any], **more: Any) -> dict[str, Any]:
    return {"keys": [{"at": at * FRAME, "value": value, **more} for at, value in pairs]}


class MotionCase(TestCase):
    def setUp(self) -> None:
        self.document: Document = empty_document()
        self.ids: list[str] = []

    def shape(self, start: int = 0, length: int = 60, **fields: Any) -> str:
        clip = {"kind": "shape", "length": length * FRAME, **fields}
        self.do(kind="place", clip=clip, mode="above", at=start * FRAME)
        known = {clip.id for _, clip in self.document.clips()} - set(self.ids)
        self.ids += known
        return known.pop()

    def do(self, **fields: Any) -> None:
        self.document = edits.apply(self.document, edit(**fields))

    def clip(self, name: str) -> ShapeClip:
        _, clip = self.document.find_clip(name)
        assert isinstance(clip, ShapeClip)
        return clip

    def turn(self, name: str) -> list[tuple[int, float]]:
        prop = self.clip(name).place.turn
        assert isinstance(prop, Keys)
        return [(key.at // FRAME, key.value) for key in prop.keys]

    def of(self, name: str, *frames: int, path: str = "place/turn") -> dict[str, Any]:
        return {"clip": name, "path": path, "at": [frame * FRAME for frame in frames]}


class KeysTest(MotionCase):
    def setUp(self) -> None:
        super().setUp()
        soft = {"kind": "bezier", "x1": 0.2, "y1": 0, "x2": 0.9, "y2": 1.4}
        turn = keyed((0, 0.0), (10, 30.0), (16, 10.0), ease=soft)
        self.one = self.shape(place={"turn": turn})
        self.two = self.shape(start=30, place={"turn": keyed((0, 1.0), (10, 2.0))})

    def test_shifted_keys_go_over_what_is_there(self) -> None:
        self.do(kind="shift_keys", keys=[self.of(self.one, 0, 10)], by=6 * FRAME)
        self.assertEqual([(6, 0), (16, 30)], self.turn(self.one))

    def test_keys_of_several_clips_are_stretched_about_the_first_of_all(self) -> None:
        hand = [self.of(self.one, 10, 16), self.of(self.two, 0, 10)]
        self.do(kind="stretch_keys", keys=hand, factor=2)
        self.assertEqual([(0, 0), (10, 30), (22, 10)], self.turn(self.one))
        # 20 and 30 frames after the first key in hand, in the second clip's own time.
        self.assertEqual([(20, 1), (40, 2)], self.turn(self.two))

    def test_the_last_stays_where_the_first_is_dragged(self) -> None:
        hand = [self.of(self.one, 0, 10, 16)]
        self.do(kind="stretch_keys", keys=hand, factor=1.5, stays="last")
        self.assertEqual([(-8, 0), (7, 30), (16, 10)], self.turn(self.one))

    def test_lengths_of_a_dash_have_keys_of_their_own(self) -> None:
        stroke = {"fill": {"kind": "plain", "colour": "#ffffff"}, "dashes": [9, 4]}
        name = self.shape(stroke=stroke)
        path = "stroke/dashes/1"
        self.do(kind="adjust", clips=[name], values={path: keyed((0, 4), (10, 24))})
        self.do(kind="shift_keys", keys=[self.of(name, 10, path=path)], by=10 * FRAME)
        found = still_at(self.clip(name), 10 * FRAME).stroke
        assert found is not None
        self.assertEqual((9, 14), found.dashes)
        with self.assertRaises(EditRefused):
            self.do(kind="adjust", clips=[name], values={path: -3})

    def test_reversed_keys_play_backwards(self) -> None:
        before = self.clip(self.one).place.turn
        self.do(kind="reverse_keys", keys=[self.of(self.one, 0, 10, 16)])
        after = self.clip(self.one).place.turn
        for frame in range(17):
            self.assertAlmostEqual(
                value_at(before, frame * FRAME), value_at(after, (16 - frame) * FRAME), places=6
            )

    def test_there_and_back(self) -> None:
        before = self.clip(self.one).place.turn
        self.do(kind="mirror_keys", keys=[self.of(self.one, 0, 10, 16)])
        after = self.clip(self.one).place.turn
        self.assertEqual([0, 10, 16, 22, 32], [frame for frame, _ in self.turn(self.one)])
        for frame in range(17):
            self.assertAlmostEqual(
                value_at(before, frame * FRAME), value_at(after, (32 - frame) * FRAME), places=6
            )

    def test_repeated_there_and_back_to_the_end_of_the_clip(self) -> None:
        before = self.clip(self.one).place.turn
        self.do(kind="repeat_keys", keys=[self.of(self.one, 0, 10, 16)], way="back")
        after = self.clip(self.one).place.turn
        length = self.clip(self.one).length // FRAME
        self.assertGreaterEqual(self.turn(self.one)[-1][0], length)
        for frame in range(length):
            there = frame % 32
            same = there if there <= 16 else 32 - there
            self.assertAlmostEqual(
                value_at(before, same * FRAME), value_at(after, frame * FRAME), places=6
            )

    def test_repeated_from_the_first_value_with_a_jump_of_a_frame(self) -> None:
        before = self.clip(self.one).place.turn
        self.do(kind="repeat_keys", keys=[self.of(self.one, 0, 10, 16)], way="again")
        after = self.clip(self.one).place.turn
        for frame in range(self.clip(self.one).length // FRAME):
            self.assertAlmostEqual(
                value_at(before, frame % 17 * FRAME), value_at(after, frame * FRAME), places=6
            )

    def test_repeated_from_where_it_ended(self) -> None:
        self.do(kind="repeat_keys", keys=[self.of(self.one, 0, 10)], way="on")
        self.assertEqual([(0, 0), (10, 30), (20, 60), (30, 90)], self.turn(self.one)[:4])
        keys = [{"at": 0, "value": [0, 0]}, {"at": 20 * FRAME, "value": [5, -1]}]
        self.do(kind="adjust", clips=[self.one], values={"place/position": {"keys": keys}})
        of = {"clip": self.one, "path": "place/position", "at": [0, 20 * FRAME]}
        self.do(kind="repeat_keys", keys=[of], way="on")
        position = self.clip(self.one).place.position
        assert isinstance(position, PointKeys)
        self.assertEqual((10, -2), tuple(position.keys[2].value))

    def test_one_key_does_not_repeat(self) -> None:
        with self.assertRaises(EditRefused):
            self.do(kind="repeat_keys", keys=[self.of(self.one, 10)])

    def test_one_ease_for_all_in_hand(self) -> None:
        self.do(kind="ease_keys", keys=[self.of(self.one, 0, 10)], ease={"kind": "bounce"})
        prop = self.clip(self.one).place.turn
        assert isinstance(prop, Keys)
        self.assertEqual(["bounce", "bounce", "bezier"], [key.ease.kind for key in prop.keys])

    def test_without_its_last_key_a_property_keeps_its_value(self) -> None:
        self.do(kind="remove_keys", keys=[self.of(self.one, 0), self.of(self.two, 0, 10)])
        self.assertEqual([(10, 30), (16, 10)], self.turn(self.one))
        self.assertEqual(1.0, self.clip(self.two).place.turn)
        with self.assertRaises(EditRefused):
            self.do(kind="remove_keys", keys=[self.of(self.two, 0)])

    def test_a_point_without_its_last_key_stands_where_that_was(self) -> None:
        keys = [{"at": 0, "value": [3, 4]}, {"at": FRAME, "value": [5, 6]}]
        self.do(kind="adjust", clips=[self.one], values={"place/position": {"keys": keys}})
        of = {"clip": self.one, "path": "place/position", "at": [0, FRAME]}
        self.do(kind="remove_keys", keys=[of])
        self.assertEqual((3.0, 4.0), self.clip(self.one).place.position)

    def test_pasted_at_a_moment_onto_another_layer(self) -> None:
        copied = {"path": "place/turn", "keys": [{"at": 0, "value": 7}, {"at": FRAME, "value": 8}]}
        self.do(kind="paste_keys", clips=[self.two], at=40 * FRAME, copied=[copied])
        self.assertEqual([(0, 1), (10, 7), (11, 8)], self.turn(self.two))
        with self.assertRaises(EditRefused):
            self.do(
                kind="paste_keys",
                clips=[self.two],
                at=0,
                copied=[{"path": "text", "keys": [{"at": 0, "value": 1}]}],
            )

    def test_pasted_before_a_layer_begins_with_it_and_not_after_it_is_over(self) -> None:
        copied = {"path": "place/turn", "keys": [{"at": 0, "value": 7}, {"at": FRAME, "value": 8}]}
        late = self.shape(start=20, length=30)
        self.do(kind="paste_keys", clips=[self.two, late], at=5 * FRAME, copied=[copied])
        self.assertEqual([(0, 7), (1, 8)], self.turn(late))
        end = self.clip(late).end
        before = self.clip(late)
        self.do(kind="paste_keys", clips=[self.two, late], at=end, copied=[copied])
        self.assertEqual(before, self.clip(late))
        with self.assertRaises(EditRefused):
            self.do(kind="paste_keys", clips=[late], at=end, copied=[copied])

    def test_pasted_about_where_the_layer_is(self) -> None:
        keys = [{"at": 0, "value": [100, 5]}, {"at": 9 * FRAME, "value": [130, 0]}]
        copied = {"path": "place/position", "keys": keys}
        self.do(kind="adjust", clips=[self.two], values={"place/position": [-40, 20]})
        self.do(kind="paste_keys", clips=[self.two], at=0, copied=[copied], relative=True)
        place = self.clip(self.two).place.position
        self.assertEqual([(-40, 20), (-10, 15)], [key.value for key in place.keys])

    def test_later_along_layers(self) -> None:
        clips = [self.one, self.two]
        self.do(kind="later_keys", clips=clips, paths=["place/turn"], by=3 * FRAME)
        self.assertEqual([0, 10, 16], [frame for frame, _ in self.turn(self.one)])
        self.assertEqual([3, 13], [frame for frame, _ in self.turn(self.two)])

    def test_parts_of_lists_have_keys_too(self) -> None:
        self.do(kind="add_parts", clips=[self.one], list="effects", parts=[{"kind": "flicker"}])
        [effect] = self.clip(self.one).effects
        path = f"effects/{effect.id}/strength"
        self.do(kind="adjust", clips=[self.one], values={path: keyed((0, 0.5), (9, 0.0))})
        self.do(kind="shift_keys", keys=[self.of(self.one, 9, path=path)], by=FRAME)
        prop = self.clip(self.one).effects[0].strength  # type: ignore[attr-defined]
        self.assertEqual([0, 10 * FRAME], [key.at for key in prop.keys])

    def test_trimming_a_group_leaves_the_keys_inside(self) -> None:
        self.do(kind="group", clips=[self.one])
        group = next(clip for _, clip in self.document.clips() if clip.kind == "group")
        self.do(kind="trim", clip=group.id, edge="start", to=8 * FRAME)
        inner = next(c for _, c in self.document.inside(group.id).clips())
        prop = inner.place.turn  # type: ignore[attr-defined]
        self.assertEqual([0, 10, 16], [key.at // FRAME for key in prop.keys])


class PathTest(MotionCase):
    def path(self, name: str) -> PointKeys:
        prop = self.clip(name).place.position
        assert isinstance(prop, PointKeys)
        return prop

    def test_a_drawn_path_is_gone_along_evenly(self) -> None:
        name = self.shape()
        points = [(400 * math.cos(t / 20), 300 * math.sin(t / 20)) for t in range(70)]
        self.do(kind="draw_motion", clip=name, points=points, length=50 * FRAME)
        keys = self.path(name)
        self.assertEqual((0, 50 * FRAME), (keys.keys[0].at, keys.keys[-1].at))
        spots = [value_at(keys, frame * FRAME) for frame in range(51)]
        steps = [math.dist(a, b) for a, b in pairwise(spots)]
        # Keys lie on frames, so that the pace is even but for a part of one.
        mean = sum(steps) / len(steps)
        self.assertLess(max(steps) / mean, 1.15)
        self.assertGreater(min(steps) / mean, 0.85)
        for x, y in spots:
            self.assertAlmostEqual(1, math.hypot(x / 400, y / 300), delta=0.05)

    def test_keys_are_moved_to_an_even_pace(self) -> None:
        name = self.shape(place={"position": keyed((0, [0, 0]), (5, [300, 0]), (40, [300, 100]))})
        self.do(kind="even_pace", clip=name)
        keys = self.path(name).keys
        self.assertEqual([0, 30, 40], [key.at // FRAME for key in keys])
        self.assertEqual([300.0, 100.0], lengths_of(keys))
        with self.assertRaises(EditRefused):
            self.do(kind="even_pace", clip=self.shape())

    def test_followers_are_kept_from_going_in_circles(self) -> None:
        one, two = self.shape(), self.shape()
        self.do(kind="follow", clips=[two], leader=one)
        with self.assertRaises(EditRefused):
            self.do(kind="follow", clips=[one], leader=two)
        self.do(kind="follow", clips=[two])
        self.assertIsNone(self.clip(two).moves.follow)


class ReadyMadeTest(MotionCase):
    def assert_same_poses(
        self, moves: Moves, which: str, fitted: bool = False, **fields: Any
    ) -> ShapeClip:
        """``fitted``: half a pixel off at most, instead of not at all."""
        name = self.shape(moves=moves.model_dump(mode="json"), **fields)
        before = self.clip(name)
        self.do(kind="moves_to_keys", clips=[name], which=which)
        after = self.clip(name)
        for frame in range(60):
            a, b = (pose_at(clip, frame * FRAME, CANVAS) for clip in (before, after))
            for x, y in zip(
                (*a.position, *a.size, a.turn, a.lean),
                (*b.position, *b.size, b.turn, b.lean),
                strict=True,
            ):
                self.assertAlmostEqual(x, y, delta=0.5 if fitted else 1e-6)
            for x, y in zip(a.size, b.size, strict=True):
                self.assertAlmostEqual(x, y, delta=0.0005 if fitted else 1e-6)
            self.assertAlmostEqual(
                a.opacity, min(max(b.opacity, 0), 1), delta=0.002 if fitted else 1e-6
            )
        return after

    def test_an_entrance_becomes_two_keys_that_do_the_same(self) -> None:
        for kind in ("rise", "drop", "slide", "pop", "fade", "spin", "unfold", "squash"):
            for which in ("comes", "goes"):
                entrance = Entrance(kind=kind, length=20 * FRAME)  # type: ignore[arg-type]
                after = self.assert_same_poses(
                    Moves(**{which: entrance}), which, place={"turn": 12.0, "size": [0.5, 2]}
                )
                self.assertIsNone(getattr(after.moves, which))

    def test_over_keys_it_becomes_few_keys_half_a_pixel_off_at_most(self) -> None:
        after = self.assert_same_poses(
            Moves(comes=Entrance(kind="slide", length=20 * FRAME)),
            "comes",
            fitted=True,
            place={"position": keyed((0, [0, 0]), (59, [100, 50]))},
        )
        position = after.place.position
        assert isinstance(position, PointKeys)
        self.assertLessEqual(len(position.keys), 8)

    def test_what_goes_on_becomes_keys(self) -> None:
        moves = Moves(meanwhile=(Meanwhile(kind="float"), Meanwhile(kind="pulse", rate=2)))
        after = self.assert_same_poses(moves, "meanwhile", fitted=True)
        self.assertEqual((), after.moves.meanwhile)
        for values in (after.place.position, after.place.size):
            assert isinstance(values, Keys)
            self.assertLess(len(values.keys), 24)

    def test_nothing_to_become_keys_is_said(self) -> None:
        with self.assertRaises(EditRefused):
            self.do(kind="moves_to_keys", clips=[self.shape()], which="comes")

    def test_a_kept_motion_fits_itself_to_its_target(self) -> None:
        name = self.shape(length=90, place={"position": [200, 10], "size": [2, 2]})
        motion = {
            "length": 30 * FRAME,
            "comes": {"kind": "pop", "length": 6 * FRAME},
            "properties": [
                {
                    "path": "place/position",
                    "keys": [{"at": 0, "value": [5, 5]}, {"at": 30 * FRAME, "value": [25, 0]}],
                },
                {
                    "path": "place/size",
                    "keys": [{"at": 0, "value": [1, 1]}, {"at": 10 * FRAME, "value": [1.5, 0.5]}],
                },
                {"path": "text", "keys": [{"at": 0, "value": "?"}]},
            ],
        }
        self.do(kind="apply_motion", clips=[name], motion=motion, name="Hop")
        clip = self.clip(name)
        assert clip.moves.comes is not None
        self.assertEqual(18 * FRAME, clip.moves.comes.length)
        self.assertEqual((220.0, 5.0), value_at(clip.place.position, 90 * FRAME))
        self.assertEqual((3.0, 1.0), value_at(clip.place.size, 30 * FRAME))
        self.do(kind="apply_motion", clips=[name], motion=motion, relative=False)
        self.assertEqual((25.0, 0.0), value_at(self.clip(name).place.position, 90 * FRAME))
        broken = {
            **motion,
            "properties": [{"path": "place/turn", "keys": [{"at": 0, "value": "x"}]}],
        }
        with self.assertRaises(EditRefused):
            self.do(kind="apply_motion", clips=[name], motion=broken)

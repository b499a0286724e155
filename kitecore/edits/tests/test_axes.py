"""Points whose two numbers have keys of their own."""

import math
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from kitecore.document import ShapeClip
from kitecore.document.properties import Axes, NumberKeys, PointKeys
from kitecore.edits._fitting import fitted
from kitecore.edits.tests.test_keys import FRAME, MotionCase, keyed
from kitecore.errors import EditRefused
from kitecore.motion import still_at, value_at
from kitecore.motion.axes import apart, together
from kitecore.motion.posing import moves_by_itself, pose_at

PATH = "place/position"
numbers = st.floats(-2000, 2000).map(lambda one: round(one, 2))
paces = st.sampled_from([{"kind": "steady"}, {"kind": "bounce"}, {"kind": "spring"}])


@st.composite
def number_keys(draw: st.DrawFn) -> dict[str, Any]:
    ats = draw(st.lists(st.integers(0, 90), min_size=1, max_size=5, unique=True))
    return {
        "keys": [
            {"at": at * FRAME, "value": draw(numbers), "ease": draw(paces)} for at in sorted(ats)
        ]
    }


class AxesTest(MotionCase):
    def position(self, name: str) -> Any:
        return self.clip(name).place.position

    def at(self, name: str, frame: float) -> Any:
        return value_at(self.position(name), round(frame * FRAME))

    def test_straight_ways_are_the_same_exactly_there_and_back(self) -> None:
        soft = {"kind": "bezier", "x1": 0.2, "y1": 0, "x2": 0.9, "y2": 1.4}
        name = self.shape(place={"position": keyed((0, [0, 0]), (20, [300, -50]), ease=soft)})
        before = self.position(name)
        self.do(kind="part_axes", clip=name, path=PATH)
        self.assertIsInstance(self.position(name), Axes)
        for frame in (0, 3.3, 7, 19.5, 40):
            self.assertEqual(value_at(before, round(frame * FRAME)), self.at(name, frame))
        self.do(kind="join_axes", clip=name, path=PATH)
        self.assertEqual(before, self.position(name))

    def test_a_path_that_bends_is_followed_within_half_a_pixel(self) -> None:
        name = self.shape(
            place={
                "position": {
                    "keys": [
                        {"at": 0, "value": [0, 0], "after": [0, -400]},
                        {"at": 50 * FRAME, "value": [800, 100], "before": [-300, -500]},
                    ]
                }
            }
        )
        before = self.position(name)
        self.do(kind="part_axes", clip=name, path=PATH)
        after = self.position(name)
        off = [
            math.dist(value_at(before, frame * FRAME), value_at(after, frame * FRAME))
            for frame in range(51)
        ]
        self.assertLess(max(off), 0.75)
        self.assertLess(len(after.across.keys) + len(after.down.keys), 24)

    def test_each_has_its_own_pace(self) -> None:
        name = self.shape(place={"position": keyed((0, [0, 0]), (30, [300, 600]))})
        self.do(kind="part_axes", clip=name, path=PATH)
        self.do(
            kind="ease_keys", keys=[self.of(name, 0, path=f"{PATH}/down")], ease={"kind": "hold"}
        )
        self.assertEqual((150, 0), self.at(name, 15))
        self.do(kind="shift_keys", keys=[self.of(name, 30, path=f"{PATH}/across")], by=30 * FRAME)
        self.assertEqual((75, 0), self.at(name, 15))
        self.assertEqual((150, 600), self.at(name, 30))

    def test_one_number_is_given_keys_and_loses_them(self) -> None:
        name = self.shape(place={"position": [40, 70]})
        self.do(kind="adjust", clips=[name], values={f"{PATH}/down": 9})
        self.assertEqual((40, 9), self.position(name))
        self.do(kind="adjust", clips=[name], values={f"{PATH}/down": keyed((0, 9), (10, 20))})
        self.assertEqual((40, 14.5), self.at(name, 5))
        self.assertTrue(moves_by_itself(self.clip(name)))
        self.do(kind="remove_keys", keys=[self.of(name, 0, 10, path=f"{PATH}/down")])
        self.assertEqual((40, 9), self.position(name))

    def test_keys_in_common_are_not_overwritten_by_those_of_one(self) -> None:
        name = self.shape(place={"position": keyed((0, [0, 0]), (30, [300, 600]))})
        with self.assertRaisesRegex(EditRefused, "has no"):
            self.do(kind="adjust", clips=[name], values={f"{PATH}/down": keyed((0, 9))})
        with self.assertRaisesRegex(EditRefused, "together already"):
            self.do(kind="join_axes", clip=name, path=PATH)
        resting = self.shape(place={"position": [1, 2]})
        with self.assertRaisesRegex(EditRefused, "no keys"):
            self.do(kind="part_axes", clip=resting, path=PATH)

    def test_keys_of_one_number_are_pasted_onto_what_rests(self) -> None:
        name = self.shape(place={"position": [40, 70]})
        copied = {
            "path": f"{PATH}/across",
            "keys": [{"at": 0, "value": 5}, {"at": FRAME, "value": 9}],
        }
        self.do(kind="paste_keys", clips=[name], at=0, copied=[copied], relative=True)
        self.assertEqual((44, 70), self.at(name, 1))

    def test_a_layer_turns_along_what_both_do(self) -> None:
        name = self.shape(
            place={
                "position": {"across": keyed((0, 0), (30, 300)), "down": keyed((0, 0), (30, 300))}
            },
            moves={"along": True},
        )
        for frame in (-5, 0, 15, 30, 50):
            pose = pose_at(self.clip(name), frame * FRAME, (1080.0, 1920.0))
            self.assertAlmostEqual(45, pose.turn)

    def test_a_group_that_is_turned_gives_its_turn_to_both(self) -> None:
        axes = {"across": keyed((0, 0), (20, 300)), "down": keyed((5, 0), (30, 200))}
        name = self.shape(place={"position": axes})
        self.do(kind="group", clips=[name])
        [group] = [clip for _, clip in self.document.clips()]
        self.do(kind="adjust", clips=[group.id], values={"place/turn": 90})
        self.do(kind="ungroup", clip=group.id)
        [clip] = [clip for _, clip in self.document.clips()]
        self.assertIsInstance(clip.place.position, PointKeys)  # type: ignore[attr-defined]
        for frame in (0, 7, 20, 28):
            x, y = value_at(clip.place.position, frame * FRAME)  # type: ignore[attr-defined]
            was = value_at(axes_of(axes), frame * FRAME)
            self.assertAlmostEqual(-was[1], x, delta=0.75)
            self.assertAlmostEqual(was[0], y, delta=0.75)

    def test_another_canvas_carries_both(self) -> None:
        axes = {"across": keyed((0, 0), (20, 300)), "down": 50}
        name = self.shape(place={"position": axes, "fit": "own"})
        half = fitted(self.clip(name), 0.5)
        assert isinstance(half, ShapeClip)
        self.assertEqual((75, 25), value_at(half.place.position, 10 * FRAME))

    def test_axes_without_keys_are_a_plain_point(self) -> None:
        self.assertEqual(
            (3, 4),
            self.clip(self.shape(place={"position": {"across": 3, "down": 4}})).place.position,
        )
        moving = self.clip(self.shape(place={"position": {"across": keyed((0, 1)), "down": 4}}))
        self.assertEqual((1, 4), still_at(moving, 0).place.position)


def axes_of(data: dict[str, Any]) -> Axes:
    return Axes.model_validate(data)


class RoundTest(MotionCase):
    @given(number_keys(), number_keys())
    def test_together_and_apart_lead_to_the_same_places(
        self, across: dict[str, Any], down: dict[str, Any]
    ) -> None:
        axes = axes_of({"across": across, "down": down})
        joined = together(axes, FRAME)
        assert isinstance(joined, PointKeys)
        parted = apart(joined, FRAME)
        for frame in range(0, 95, 3):
            there = value_at(axes, frame * FRAME)
            for found in (joined, parted):
                self.assertLess(math.dist(there, value_at(found, frame * FRAME)), 3.0)
        assert isinstance(parted.across, NumberKeys)

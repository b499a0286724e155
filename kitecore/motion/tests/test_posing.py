from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.document import ShapeClip
from kitecore.document.moves import Entrance, Follow, Meanwhile, Moves
from kitecore.document.properties import Key, NumberKeys
from kitecore.motion.entrances import entrances
from kitecore.motion.following import carried, frame_of, rest_of, shown_frame
from kitecore.motion.matrices import leaned, moved, parts, sized, turned
from kitecore.motion.meanwhiles import SWAY, meanwhiles
from kitecore.motion.pose import Pose
from kitecore.motion.posing import opacity_at, pose_at

SECOND = 705_600_000
CANVAS = (1080.0, 1920.0)


def clip(name: str = "c", **fields: Any) -> ShapeClip:
    return ShapeClip(**{"id": name, "length": 4 * SECOND, **fields})


class EntranceTest(TestCase):
    def test_every_kind_ends_where_the_layer_is(self) -> None:
        for kind in entrances:
            one = clip(moves=Moves(comes=Entrance(kind=kind, length=SECOND)))  # type: ignore[arg-type]
            rest = pose_at(clip(), 0, CANVAS)
            self.assertEqual(rest, pose_at(one, SECOND, CANVAS))
            self.assertNotEqual(rest, pose_at(one, SECOND // 10, CANVAS))

    def test_going_out_is_coming_in_backwards(self) -> None:
        for kind in ("pop", "fade", "spin", "slide"):
            entrance = Entrance(kind=kind, length=SECOND)  # type: ignore[arg-type]
            both = clip(moves=Moves(comes=entrance, goes=entrance))
            for at in (0, SECOND // 7, SECOND // 2):
                self.assertEqual(
                    pose_at(both, at, CANVAS), pose_at(both, both.length - at, CANVAS), kind
                )

    def test_what_rises_in_goes_on_upwards(self) -> None:
        entrance = Entrance(kind="rise", length=SECOND)
        both = clip(moves=Moves(comes=entrance, goes=entrance))
        self.assertGreater(pose_at(both, 0, CANVAS).position[1], 100)
        self.assertLess(pose_at(both, both.length, CANVAS).position[1], -100)

    def test_opacity_alone_agrees_with_the_pose(self) -> None:
        one = clip(
            opacity=0.8,
            moves=Moves(
                comes=Entrance(kind="fade", length=SECOND),
                meanwhile=(Meanwhile(kind="flicker", rate=5),),
            ),
        )
        for at in range(0, 2 * SECOND, SECOND // 9):
            self.assertAlmostEqual(pose_at(one, at, CANVAS).opacity, opacity_at(one, at))


class MeanwhileTest(TestCase):
    def test_sway_is_a_sine(self) -> None:
        one = clip(moves=Moves(meanwhile=(Meanwhile(kind="sway", rate=0.5),)))
        turns = [pose_at(one, n * SECOND // 2, CANVAS).turn for n in range(5)]
        np.testing.assert_allclose([0, SWAY, 0, -SWAY, 0], turns, atol=1e-9)

    def test_a_trim_does_not_shift_its_phase(self) -> None:
        for kind in meanwhiles:
            one = clip(moves=Moves(meanwhile=(Meanwhile(kind=kind, rate=3.3),)))  # type: ignore[arg-type]
            later = one.trimmed(SECOND, one.end)
            self.assertEqual(pose_at(one, 2 * SECOND, CANVAS), pose_at(later, SECOND, CANVAS), kind)

    def test_its_strength_may_die_away(self) -> None:
        keys = NumberKeys(keys=(Key(at=0, value=1.0), Key(at=2 * SECOND, value=0.0)))
        one = clip(moves=Moves(meanwhile=(Meanwhile(kind="flicker", rate=8, strength=keys),)))
        early = [opacity_at(one, n * SECOND // 30) for n in range(15)]
        self.assertLess(min(early), 0.75)
        self.assertEqual(1.0, opacity_at(one, 3 * SECOND))


numbers = st.floats(-500, 500)
sizes = st.floats(0.1, 4) | st.floats(-4, -0.1)


class FollowingTest(TestCase):
    @given(sizes, sizes, st.floats(-179, 179), st.floats(-70, 70))
    def test_a_frame_is_taken_apart_and_put_together(
        self, across: float, down: float, turn: float, lean: float
    ) -> None:
        matrix = turned(turn) @ leaned(lean) @ sized(across, down)
        w, h, t, skew = parts(matrix)
        np.testing.assert_allclose(turned(t) @ leaned(skew) @ sized(w, h), matrix, atol=1e-9)

    @given(st.tuples(numbers, numbers), st.tuples(sizes, sizes), st.floats(-179, 179))
    def test_a_frame_is_its_factors_multiplied_out(
        self, position: tuple[float, float], size: tuple[float, float], turn: float
    ) -> None:
        pose = Pose(position, size, (30.0, -20.0), turn, 12.0)
        wanted = (
            moved(540 + position[0] + 30, 960 + position[1] - 20)
            @ turned(turn)
            @ leaned(12)
            @ sized(*size)
        )
        np.testing.assert_allclose(wanted, frame_of(pose, CANVAS), atol=1e-9)

    def test_a_follower_stays_where_it_was_and_goes_along(self) -> None:
        turn = NumberKeys(keys=(Key(at=0, value=20.0), Key(at=2 * SECOND, value=110.0)))
        leader = clip("lead", place={"turn": turn, "position": (100.0, 0.0), "pivot": (0.0, -50.0)})
        rest = rest_of(frame_of(pose_at(leader, 0, CANVAS), CANVAS), CANVAS)
        child = clip("child", moves=Moves(follow=Follow(clip="lead", rest=rest)))
        clips = {"lead": leader, "child": child}
        first = carried(child, 0, clips, CANVAS)
        assert first is not None
        np.testing.assert_allclose(np.eye(3), first, atol=1e-9)
        # A quarter of a turn about the leader's pivot, which is at (640, 910) of the canvas.
        later = carried(child, 2 * SECOND, clips, CANVAS)
        wanted = moved(640, 910) @ turned(90) @ moved(-640, -910)
        np.testing.assert_allclose(wanted, later, atol=1e-9)

    def test_only_what_is_inherited_is_taken_over(self) -> None:
        leader = clip("lead", place={"position": (70.0, 10.0), "turn": 45.0, "size": (2.0, 2.0)})
        for inherits, wanted in (
            (("position",), moved(70, 10)),
            (("turn",), moved(540, 960) @ turned(45) @ moved(-540, -960)),
            (("size",), moved(540, 960) @ sized(2, 2) @ moved(-540, -960)),
        ):
            child = clip("child", moves=Moves(follow=Follow(clip="lead", inherits=inherits)))
            found = carried(child, 0, {"lead": leader}, CANVAS)
            np.testing.assert_allclose(wanted, found, atol=1e-9)

    def test_leaders_of_leaders_and_circles(self) -> None:
        a = clip("a", place={"position": (10.0, 0.0)})
        b = clip("b", moves=Moves(follow=Follow(clip="a")))
        c = clip("c", moves=Moves(follow=Follow(clip="b")))
        found = shown_frame(c, 0, {"a": a, "b": b, "c": c}, CANVAS)
        np.testing.assert_allclose(frame_of(Pose(position=(10.0, 0.0)), CANVAS), found)
        looped = a.model_copy(update={"moves": Moves(follow=Follow(clip="c"))})
        self.assertTrue(np.isfinite(shown_frame(c, 0, {"a": looped, "b": b, "c": c}, CANVAS)).all())
        self.assertIsNone(carried(c, 0, {}, CANVAS))

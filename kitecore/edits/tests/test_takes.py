"""Takes, fresh layers and kept elements as they become clips."""

from __future__ import annotations

from typing import Any

import numpy as np

from kitecore.document import (
    ClipBase,
    GroupClip,
    Place,
    SequenceClip,
    ShapeClip,
    SolidClip,
    StillClip,
    Track,
    empty_document,
)
from kitecore.document.moves import Follow, Moves
from kitecore.document.properties import PointKeys
from kitecore.edits._fitting import fitted
from kitecore.edits.fresh import fresh_clip, fresh_layers
from kitecore.edits.takes import STILL_LENGTH, TakePart
from kitecore.edits.tests.cutcase import SECOND, CutCase
from kitecore.errors import EditRefused, UnknownName
from kitecore.motion.following import rest_of, shown_frame

FRAME = SECOND // 30


class EmptyCase(CutCase):
    def setUp(self) -> None:
        self.document = empty_document()

    def top(self) -> ClipBase:
        """The last clip of the track in front."""
        return [t for t in self.document.tracks if t.kind != "sound"][-1].clips[-1]


def part(name: str = "launch.mp4", kind: str = "video", **more: Any) -> dict[str, Any]:
    length = 0 if kind == "still" else 10 * SECOND
    return {"media": "m", "name": name, "kind": kind, "length": length} | more


class TakePartTest(EmptyCase):
    def test_without_marks_all_of_a_take_is_meant(self) -> None:
        clip: Any = TakePart.model_validate(part()).clip(STILL_LENGTH)
        self.assertEqual(("launch", 10 * SECOND, 0), (clip.name, clip.length, clip.source_in))

    def test_marks_bound_it_and_never_beyond_the_take(self) -> None:
        marked = part(mark_in=2 * SECOND, mark_out=99 * SECOND)
        clip: Any = TakePart.model_validate(marked).clip(STILL_LENGTH)
        self.assertEqual((2 * SECOND, 8 * SECOND), (clip.source_in, clip.length))
        self.assertEqual(10 * SECOND, clip.source_length)

    def test_a_still_is_as_long_as_it_is_said(self) -> None:
        self.do(kind="place_takes", takes=[part("kite.cutout.png", "still")])
        [clip] = self.document.main.clips
        self.assertEqual(("kite.cutout", STILL_LENGTH), (clip.name, clip.length))

    def test_marks_that_leave_nothing_are_refused(self) -> None:
        for marks in ({"mark_in": 10 * SECOND}, {"mark_out": 0}, {"length": 0}):
            with self.subTest(marks), self.assertRaises(EditRefused):
                self.do(kind="place_takes", takes=[part(**marks)])


class PlaceTakesTest(EmptyCase):
    def test_a_row_goes_one_after_another_from_where_it_is_pushed_in(self) -> None:
        self.do(kind="place_takes", takes=[part("ground.mp4")])
        rows = [part(f"{n}.mp4", mark_out=n * SECOND) for n in (1, 2)]
        self.do(kind="place_takes", takes=rows, mode="push", at=4 * SECOND)
        self.assertEqual(
            [("ground", 4), ("1", 1), ("2", 2), ("ground", 6)],
            [(clip.name, clip.length // SECOND) for clip in self.document.main.clips],
        )

    def test_stacked_takes_start_together_on_tracks_above(self) -> None:
        takes = [part(f"{n}.mp4") for n in (1, 2, 3)]
        self.do(kind="place_takes", takes=takes, how="stack", mode="push")
        starts = [clip.start for track in self.document.tracks for clip in track.clips]
        self.assertEqual([0, 0, 0], starts)

    def test_numbered_stills_hold_their_order_and_end_where_they_began(self) -> None:
        takes = [
            part(name, "still", media=name.replace(".", ""))
            for name in ("s-10.png", "s-2.png", "s-1.png")
        ]
        more = {"frames_each": 5, "order": "there_and_back"}
        self.do(kind="place_sequence", takes=takes, **more)
        [clip] = self.document.main.clips
        assert isinstance(clip, SequenceClip)
        self.assertEqual(("s-1png", "s-2png", "s-10png"), clip.pictures)
        self.assertEqual(("s", 20 * FRAME), (clip.name, clip.length))

    def test_only_stills_become_one_clip(self) -> None:
        with self.assertRaises(EditRefused):
            self.do(kind="place_sequence", takes=[part()])


class FreshLayersTest(EmptyCase):
    def test_each_lies_above_at_the_playhead_for_three_seconds(self) -> None:
        self.do(kind="place_takes", takes=[part()])
        for name, layer in fresh_layers.items():
            with self.subTest(name):
                self.do(kind="add_layer", layer=name, at=SECOND)
                clip = self.top()
                self.assertIn(clip.name, layer.title.title())
                self.assertEqual((SECOND, 3 * SECOND), (clip.start, clip.length))
        self.assertEqual(1, len(self.document.main.clips))

    def test_on_a_smaller_canvas_what_is_drawn_is_made_smaller(self) -> None:
        self.do(kind="set_canvas", canvas={"width": 540, "height": 960})
        for name, size in (("text", (0.5, 0.5)), ("colour", (1, 1))):
            self.do(kind="add_layer", layer=name)
            clip: Any = self.top()
            self.assertEqual(size, clip.place.size)

    def test_an_unknown_one_is_refused(self) -> None:
        with self.assertRaises(UnknownName):
            fresh_clip("hologram")


def still(**place: Any) -> StillClip:
    return StillClip(id="s", media="m", length=SECOND, place=Place(**place))


class ElementsTest(EmptyCase):
    def test_a_fitted_picture_moves_and_the_canvas_makes_it_larger(self) -> None:
        done: Any = fitted(still(position=(100, 50), size=(1, 2), pivot=(10, 0)), 0.5)
        self.assertEqual(((50, 25), (1, 2)), (done.place.position, done.place.size))
        self.assertEqual((5, 0), done.place.pivot)

    def test_one_with_a_size_of_its_own_shrinks_about_the_middle_of_the_canvas(self) -> None:
        done: Any = fitted(still(position=(100, 50), size=(1, 2), pivot=(10, 0), fit="own"), 0.5)
        self.assertEqual(((45, 25), (0.5, 1)), (done.place.position, done.place.size))

    def test_keys_and_the_handles_between_them_are_fitted_too(self) -> None:
        keys = PointKeys.model_validate(
            {
                "keys": [
                    {"at": 0, "value": [10, 20], "after": [4, 6]},
                    {"at": SECOND, "value": [30, 40]},
                ]
            }
        )
        done: Any = fitted(still(position=keys), 0.5)
        first, second = done.place.position.keys
        self.assertEqual(((5, 10), (2, 3), (15, 20)), (first.value, first.after, second.value))

    def test_what_lies_in_a_group_is_fitted_with_it(self) -> None:
        inner = Track(id="t", kind="picture", clips=(still(position=(8, 8)),))
        group = GroupClip(id="g", length=SECOND, tracks=(inner,))
        done: Any = fitted(group, 0.5)
        self.assertEqual((4, 4), done.tracks[0].clips[0].place.position)

    def test_lengths_within_grow_too(self) -> None:
        given = still().model_dump() | {
            "effects": [{"kind": "soft_blur", "sigma": 8}, {"kind": "shadow", "shift": [10, 20]}],
            "key": {"kind": "chroma", "shrink": 2, "soften": 1},
            "cell": {"screen": "s", "rows": [2], "place": 0, "gap": 12},
            "masks": [{"kind": "ellipse", "size": [0.3, 0.2]}],
        }
        group = GroupClip.model_validate(
            {
                "id": "g",
                "length": SECOND,
                "tracks": [{"id": "t", "kind": "picture", "clips": [given]}],
            }
        )
        done: Any = fitted(group, 0.5)
        inner = done.tracks[0].clips[0]
        self.assertEqual((4, (5, 10)), (inner.effects[0].sigma, inner.effects[1].shift))
        self.assertEqual((1, 0.5, 6), (inner.key.shrink, inner.key.soften, inner.cell.gap))
        # Counted in parts of the picture.
        self.assertEqual((0.3, 0.2), inner.masks[0].size)

    def test_what_is_drawn_keeps_its_own_lengths_and_is_sized(self) -> None:
        shape = ShapeClip.model_validate(
            {"id": "s", "length": SECOND, "stroke": {"fill": {"kind": "plain"}, "width": 8}}
        )
        done: Any = fitted(shape, 2)
        self.assertEqual((8, (2, 2)), (done.stroke.width, done.place.size))
        solid = SolidClip.model_validate(
            {"id": "s", "length": SECOND, "fill": {"kind": "straight", "begin": [0, -400]}}
        )
        grown: Any = fitted(solid, 2)
        self.assertEqual((0, -800), grown.fill.begin)

    def test_a_follower_goes_on_following_as_it_did(self) -> None:
        leader = ShapeClip.model_validate(
            {"id": "lead", "length": SECOND, "place": {"position": [60, -20], "size": [1.5, 1.5]}}
        )
        follower = still(position=(30, 10), fit="own")
        area = (1080.0, 1920.0)
        rest = rest_of(shown_frame(leader, 0, {}, area), area)
        moves = Moves(follow=Follow(clip="lead", rest=rest))
        leader = leader.model_copy(update={"place": Place(position=(100, 0), size=(2, 2), turn=30)})
        clips: Any = {"lead": leader, "s": follower.model_copy(update={"moves": moves})}
        small: Any = {name: fitted(clip, 0.5, clips) for name, clip in clips.items()}
        whole = shown_frame(clips["s"], 0, clips, area)
        half = shown_frame(small["s"], 0, small, (540.0, 960.0))
        np.testing.assert_allclose(whole[:2] * 0.5, half[:2], atol=1e-9)

    def test_a_paste_is_fitted_from_the_canvas_it_was_made_on(self) -> None:
        copy = {
            "clip": still(position=(100, 0)).model_dump(mode="json"),
            "lane": 0,
            "of": "picture",
        }
        self.do(kind="paste", copies=[copy], at=0, made_on={"width": 2160, "height": 3840})
        clip: Any = self.top()
        self.assertEqual((50, 0), clip.place.position)

"""What moves, on the picture and in exported files, where its formula says."""

from __future__ import annotations

import math
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import numpy as np

from kitecore.document.ease import Spring
from kitecore.edits.tests.populated import SECOND
from kitecore.motion.easing import eased
from kitecore.picture.layer import Rgba
from kitecore.render.export import ExportSettings, make
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.layers import bending_lines, extents
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.ticks import Span

FRAME = SECOND // 30
WHITE = {"kind": "plain", "colour": "#ffffff"}


def middle(picture: Rgba) -> tuple[float, float]:
    """The middle of what is bright, from the middle of the picture."""
    light = picture[..., 0].astype(float)
    light[light < 40] = 0
    rows, columns = np.indices(light.shape)
    x, y = (light * columns).sum() / light.sum(), (light * rows).sum() / light.sum()
    return x + 0.5 - light.shape[1] / 2, y + 0.5 - light.shape[0] / 2


class MoveCase(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.scene = Scene(Path(folder.name))
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def square(self, seconds: float = 2, side: float = 24, at: float = 0, **more: Any) -> str:
        known = {clip.id for _, clip in self.scene.document.clips()}
        clip = {
            "kind": "shape",
            "form": {"kind": "rectangle", "size": [side, side]},
            "fill": WHITE,
            "length": round(seconds * SECOND),
            **more,
        }
        self.scene.do(kind="place", clip=clip, mode="above", at=round(at * SECOND))
        return ({clip.id for _, clip in self.scene.document.clips()} - known).pop()

    def shot(self, frame: float, size: tuple[int, int] = SIZE, **more: Any) -> Rgba:
        return render(self.scene.document, round(frame * FRAME), size, self.sources, **more)


class ExportedTest(MoveCase):
    def test_frames_of_a_film_show_it_where_the_formula_says(self) -> None:
        radius, kappa = 60.0, 4 / 3 * (math.sqrt(2) - 1)
        spring = {"kind": "spring", "stiffness": 200.0, "damping": 12.0}
        keys = [
            {"at": 0, "value": [radius, -60], "after": [0, kappa * radius]},
            {
                "at": 30 * FRAME,
                "value": [0, radius - 60],
                "before": [kappa * radius, 0],
                "ease": spring,
            },
            {"at": 60 * FRAME, "value": [-50, radius - 60]},
        ]
        self.square(place={"position": {"keys": keys}})
        film = self.scene.root / "film"
        make(self.scene.document, ExportSettings(), film, self.sources)
        with av.open(str(film)) as source:
            pictures = [frame.to_ndarray(format="rgb24") for frame in source.decode(video=0)]
        self.assertEqual(60, len(pictures))
        for number, picture in enumerate(pictures):
            x, y = middle(picture)
            if number <= 30:
                angle = math.radians(90 * number / 30)
                wanted = radius * math.cos(angle), radius * math.sin(angle) - 60
            else:
                share = eased(Spring(stiffness=200, damping=12), (number - 30) / 30)
                wanted = -50 * share, radius - 60
            self.assertAlmostEqual(wanted[0], x, delta=0.3)
            self.assertAlmostEqual(wanted[1], y, delta=0.3)


class BlurTest(MoveCase):
    def test_a_moving_edge_is_a_ramp_as_long_as_its_way(self) -> None:
        """20 pixels a frame, shutter 180: each edge is spread over 10 pixels, evenly."""
        keys = [{"at": 0, "value": [-60, 0]}, {"at": 6 * FRAME, "value": [60, 0]}]
        self.square(place={"position": {"keys": keys}}, moves={"shutter": 180.0})
        row = self.shot(3)[SIZE[1] // 2, :, 0].astype(float)
        at = np.arange(SIZE[0]) + 0.5 - SIZE[0] / 2
        wanted = 255 * np.clip((12 + 5 - np.abs(at)) / 10, 0, 1)
        self.assertLess(np.abs(row - wanted).max(), 26)
        self.assertLess(np.abs(row - wanted).mean(), 3)

    def test_what_rests_stays_sharp(self) -> None:
        sharp = self.square()
        before = self.shot(3)
        self.scene.do(kind="adjust", clips=[sharp], values={"moves/shutter": 360})
        np.testing.assert_array_equal(before, self.shot(3))

    def test_a_bending_warp_is_blurred_too(self) -> None:
        keys = [{"at": 0, "value": [0, 0.4]}, {"at": 6 * FRAME, "value": [2, 0.4]}]
        pins = [
            {"id": "a", "rest": [0, -0.4], "at": [0, -0.4]},
            {"id": "b", "rest": [0, 0.4], "at": {"keys": keys}},
        ]
        clip = self.square(side=60, warp={"kind": "pins", "pins": pins})
        sharp = self.shot(3)
        self.scene.do(kind="adjust", clips=[clip], values={"moves/shutter": 360})
        soft = self.shot(3)

        def between(picture: Rgba) -> int:
            return int(((picture[..., 0] > 20) & (picture[..., 0] < 235)).sum())

        self.assertGreater(between(soft), 3 * between(sharp))


class FollowTest(MoveCase):
    def test_a_layer_goes_round_with_its_leader(self) -> None:
        turn = {"keys": [{"at": 0, "value": 0.0}, {"at": 30 * FRAME, "value": 90.0}]}
        leader = self.square(side=8, place={"turn": turn}, opacity=0.0)
        child = self.square(place={"position": [50, 0]})
        self.scene.do(kind="follow", clips=[child], leader=leader)
        for frame, wanted in ((0, (50, 0)), (15, (35.36, 35.36)), (30, (0, 50))):
            x, y = middle(self.shot(frame))
            self.assertAlmostEqual(wanted[0], x, delta=0.2)
            self.assertAlmostEqual(wanted[1], y, delta=0.2)
        told = extents(self.scene.document, 30 * FRAME, self.sources)["moved"][child]
        a, b, c, d, e, f = told
        spot = np.array([SIZE[0] / 2 + 50, SIZE[1] / 2])
        np.testing.assert_allclose(
            (SIZE[0] / 2, SIZE[1] / 2 + 50),
            (a * spot[0] + c * spot[1] + e, b * spot[0] + d * spot[1] + f),
            atol=1e-6,
        )

    def test_what_a_leader_does_is_told_apart_from_own_motions(self) -> None:
        leader = self.square(side=8, place={"position": [12, 5]}, opacity=0.0)
        child = self.square(place={"position": [50, 0]})
        self.scene.do(kind="follow", clips=[child], leader=leader)
        self.scene.do(kind="adjust", clips=[leader], values={"place/position": [30, 5]})
        sway = [{"kind": "sway", "id": "s", "strength": 20}]
        self.scene.do(kind="adjust", clips=[child], values={"moves/meanwhile": sway})
        told = extents(self.scene.document, 7 * FRAME, self.sources)
        np.testing.assert_allclose((1, 0, 0, 1, 18, 0), told["led"][child], atol=1e-6)
        self.assertGreater(abs(told["moved"][child][1]), 0.01)
        self.assertNotIn(leader, told["led"])

    def test_a_piece_is_made_anew_when_a_leader_elsewhere_changes(self) -> None:
        leader = self.square(seconds=0.5)
        child = self.square(at=1)
        self.scene.do(kind="follow", clips=[child], leader=leader)
        span = Span(40 * FRAME, 50 * FRAME)

        def key() -> str:
            return content_key(self.scene.document, span, self.scene.find)

        before = key()
        self.scene.do(kind="adjust", clips=[leader], values={"name": "other"})
        self.assertEqual(before, key())
        self.scene.do(kind="adjust", clips=[leader], values={"place/position": [9, 0]})
        self.assertNotEqual(before, key())

    def test_a_piece_is_made_anew_when_a_clip_begins_earlier_with_its_entrance(self) -> None:
        clip = self.square(at=1, moves={"comes": {"kind": "fade", "length": SECOND}})
        span = Span(40 * FRAME, 50 * FRAME)
        before = content_key(self.scene.document, span, self.scene.find)
        self.scene.do(kind="trim", clip=clip, edge="start", to=SECOND // 2)
        self.assertNotEqual(before, content_key(self.scene.document, span, self.scene.find))


class ComingTest(MoveCase):
    def words(self, **entrance: Any) -> None:
        clip = {
            "kind": "text",
            "text": "one two",
            "size": 30,
            "width": 170,
            "fill": WHITE,
            "length": 2 * SECOND,
            "moves": {"comes": {"length": SECOND, **entrance}},
        }
        self.scene.do(kind="place", clip=clip, mode="above", at=0)

    def test_letters_come_one_after_the_other(self) -> None:
        self.words(kind="fade", unit="letter")
        amounts = [int(self.shot(n)[..., 0].astype(int).sum()) for n in (0, 8, 16, 24, 30)]
        self.assertEqual(0, amounts[0])
        self.assertEqual(sorted(amounts), amounts)
        self.assertGreater(amounts[3], amounts[1] * 1.5)
        half = self.shot(12)[..., 0]
        left, right = half[:, : SIZE[0] // 2], half[:, SIZE[0] // 2 :]
        self.assertGreater(int(left.astype(int).sum()), 3 * int(right.astype(int).sum()))

    def test_once_they_are_there_it_is_the_plain_text(self) -> None:
        self.words(kind="spin", unit="word")
        there = self.shot(30)
        self.scene.document = type(self.scene.document).model_validate(
            self.scene.document.model_dump(by_alias=True)
        )
        [text] = [clip for _, clip in self.scene.document.clips()]
        self.scene.do(kind="adjust", clips=[text.id], values={"moves/comes": None})
        np.testing.assert_array_equal(self.shot(30), there)

    def test_just_before_letters_stand_where_the_text_stands(self) -> None:
        self.words(kind="rise", unit="letter", later=0.2)
        almost, there = self.shot(29.98).astype(int), self.shot(30).astype(int)
        self.assertLess(np.abs(almost - there).mean(), 1.5)


class SkinsTest(MoveCase):
    def test_neighbouring_keys_are_shown_thin(self) -> None:
        keys = [
            {"at": 0, "value": [-60, 0]},
            {"at": 10 * FRAME, "value": [0, 0]},
            {"at": 20 * FRAME, "value": [60, 0]},
        ]
        clip = self.square(place={"position": {"keys": keys}})
        picture = self.shot(10, onion=clip)
        row = picture[SIZE[1] // 2]
        before, now, after = (row[SIZE[0] // 2 + x] for x in (-60, 0, 60))
        self.assertEqual([255, 255, 255], now[:3].tolist())
        for skin in (before, after):
            self.assertTrue(40 < skin[:3].max() < 110, skin)
        self.assertGreater(before[2], before[0])
        self.assertGreater(after[0], after[2])
        self.assertEqual(0, self.shot(10)[SIZE[1] // 2, SIZE[0] // 2 - 60, 0])


class WarpTest(MoveCase):
    def strip(self, **warp: Any) -> str:
        return self.square(
            form={"kind": "rectangle", "size": [30, 120]}, warp={"kind": "pins", **warp}
        )

    def pins(self, top: Any, bottom: Any) -> list[dict[str, Any]]:
        return [
            {"id": "top", "rest": [0, -0.45], "at": top},
            {"id": "low", "rest": [0, 0.45], "at": bottom},
        ]

    def test_a_chain_goes_along_later(self) -> None:
        keys = {"keys": [{"at": 0, "value": [0, -0.45]}, {"at": 10 * FRAME, "value": [0.4, -0.45]}]}
        clip = self.strip(pins=self.pins(keys, [0, 0.45]), chain=["top", "low"], later=5 * FRAME)

        def pins(frame: int) -> list[list[float]]:
            found = bending_lines(self.scene.document, frame * FRAME, clip, self.sources)["pins"]
            return [[round(number, 4) for number in pin] for pin in found]

        self.assertEqual([[0.2, -0.45], [0.0, 0.45]], pins(5))
        self.assertEqual([[0.4, -0.45], [0.2, 0.45]], pins(10))
        self.assertEqual([[0.4, -0.45], [0.4, 0.45]], pins(15))

    def test_pins_at_rest_change_nothing_and_moved_ones_do(self) -> None:
        clip = self.strip(pins=self.pins([0, -0.45], [0, 0.45]))
        rest = self.shot(0)
        self.scene.do(kind="adjust", clips=[clip], values={"warp/on": False})
        np.testing.assert_array_equal(self.shot(0), rest)
        self.scene.do(
            kind="adjust", clips=[clip], values={"warp/on": True, "warp/pins/top/at": [0.3, -0.4]}
        )
        self.assertGreater(middle(self.shot(0))[0], 5)

    def test_pins_on_a_moving_picture_bend_what_its_matte_leaves(self) -> None:
        """Two bars before green: one is moved, the other, no part of it, stays where it is."""

        def bars(number: int) -> av.VideoFrame:
            picture = np.zeros((SIZE[1], SIZE[0], 3), np.uint8)
            picture[...] = (47, 160, 76)
            for left in (30, 120):
                picture[60 + number : 260, left : left + 30] = (240, 210, 180)
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24")
            return frame.reformat(format="yuv420p", dst_colorspace="ITU709")

        self.scene.video("bars", frames=10, draw=bars)
        pins = [
            {"id": "left", "rest": [-0.14, 0], "at": [-0.14, 0]},
            {"id": "right", "rest": [0.14, 0], "at": [0.14, 0]},
        ]
        key = {"kind": "chroma", "colour": "#2fa04c"}
        self.scene.place("bars", 0.3, key=key, warp={"kind": "pins", "pins": pins})
        [clip] = [clip.id for _, clip in self.scene.document.clips()]
        for frame in (0, 5):
            at = {"warp/pins/right/at": [0.14, 0.0]}
            self.scene.do(kind="adjust", clips=[clip], values=at)
            rest = self.shot(frame).astype(int)
            self.scene.do(kind="adjust", clips=[clip], values={"warp/pins/right/at": [0.14, 0.1]})
            moved = self.shot(frame).astype(int)
            self.assertLess(np.abs(moved - rest)[:, :90].max(), 12)
            self.assertFalse(moved[: 60 + frame + 25, 95:, 0].any())

    def test_a_grid_moves_its_corner_where_it_is_told(self) -> None:
        offsets = [[0.0, 0.0]] * 4
        offsets[1] = [0.5, 0.0]
        clip = self.square(
            side=60, warp={"kind": "grid", "columns": 1, "rows": 1, "points": offsets}
        )
        light = self.shot(0)[..., 0] > 128
        # The upper right corner goes half a height of the picture further right.
        top = np.flatnonzero(light[SIZE[1] // 2 - 29])
        low = np.flatnonzero(light[SIZE[1] // 2 + 29])
        self.assertGreater(len(top), len(low) + 24)
        self.scene.do(kind="adjust", clips=[clip], values={"warp/points": [[0.0, 0.0]] * 4})
        still = self.shot(0)
        self.scene.do(kind="adjust", clips=[clip], values={"warp": None})
        np.testing.assert_array_equal(self.shot(0), still)

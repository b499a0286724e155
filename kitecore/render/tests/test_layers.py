"""Layers as they come together: holdouts, clipping, adjustments, masks, keys, crops."""

from __future__ import annotations

import io
import tempfile
from base64 import b64decode
from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np
from PIL import Image

from kitecore.document import AdjustmentClip, Document, Pictured, SolidClip
from kitecore.document.keying import LumaKey
from kitecore.picture.composite import lay
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, moved, solid, turned
from kitecore.render.adjusting import area_of
from kitecore.render.compose import affected
from kitecore.render.covering import first_seen
from kitecore.render.frame import render, render_planes, stage_of
from kitecore.render.layers import extents, layer_pictures, under_finger
from kitecore.render.passing import covering_at
from kitecore.render.showing import showing_at
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SECOND, SIZE, Scene
from kitecore.render.trimming import trimmed

GOLDEN = Path(__file__).parent / "golden"
RED, GREEN, BLUE, WHITE = "#ff0000", "#00ff00", "#0000ff", "#ffffff"
MIDDLE = (SIZE[1] // 2, SIZE[0] // 2)


class LayerScene(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.scene = Scene(Path(folder.name))
        self.add("solid", "ground", fill={"kind": "plain", "colour": RED}, mode="end")

    def add(self, kind: str, name: str, mode: str = "above", **more: Any) -> None:
        clip = {"kind": kind, "name": name, "length": SECOND, **more}
        self.scene.do(kind="place", clip=clip, mode=mode, seed=name.replace(" ", "-"))

    def solid(self, name: str, colour: str, **more: Any) -> None:
        self.add("solid", name, fill={"kind": "plain", "colour": colour}, **more)

    def block(self, name: str, size: tuple[int, int], colour: str = WHITE, **more: Any) -> None:
        form = {"kind": "rectangle", "size": size}
        self.add("shape", name, form=form, fill={"kind": "plain", "colour": colour}, **more)

    @property
    def document(self) -> Document:
        return self.scene.document

    def sources(self) -> Sources:
        return Sources(self.scene.find)

    def shown(self, tick: int = 0, **more: Any) -> np.ndarray:
        return render(self.document, tick, SIZE, self.sources(), **more)

    def at(self, row: int, column: int, picture: np.ndarray | None = None) -> list[int]:
        found = self.shown() if picture is None else picture
        return found[row, column, :3].tolist()

    def id_of(self, name: str) -> str:
        return next(clip.id for _, clip in self.document.clips() if clip.name == name)


class HoldoutTest(LayerScene):
    def test_a_hole_shows_the_canvas_and_light_is_added_to_it(self) -> None:
        self.block("matte", (80, 80), blend="holdout_luma")
        self.assertEqual([0, 0, 0], self.at(*MIDDLE))
        self.assertEqual([255, 0, 0], self.at(5, 5))
        self.block("light", (40, 40), "#204060", blend="add")
        self.assertEqual([0x20, 0x40, 0x60], self.at(*MIDDLE))

    def test_by_alpha_and_inverted(self) -> None:
        self.block("matte", (80, 80), "#000000", blend="holdout_alpha")
        self.assertEqual([0, 0, 0], self.at(*MIDDLE))
        values = {"blend": "holdout_alpha_inverted"}
        self.scene.do(kind="adjust", clips=[self.id_of("matte")], values=values)
        self.assertEqual([255, 0, 0], self.at(*MIDDLE))
        self.assertEqual([255, 0, 0], self.at(*MIDDLE))

    def test_half_the_opacity_cuts_half_a_hole(self) -> None:
        self.block("matte", (80, 80), blend="holdout_luma", opacity=0.5)
        self.assertAlmostEqual(128, self.at(*MIDDLE)[0], delta=1)

    def test_in_a_group_the_hole_shows_what_lies_below_the_group(self) -> None:
        self.solid("over", BLUE)
        self.block("matte", (80, 80), blend="holdout_alpha")
        self.scene.do(kind="group", clips=[self.id_of("over"), self.id_of("matte")])
        self.assertEqual([255, 0, 0], self.at(*MIDDLE))
        self.assertEqual([0, 0, 255], self.at(5, 5))


class DrawnMasksTest(LayerScene):
    def test_a_pen_path_and_a_brush_that_intersect(self) -> None:
        """Masks count in heights of the picture: a square of 0.4, and a stroke of 0.2 across it."""
        corners = [(-0.2, -0.2), (0.2, -0.2), (0.2, 0.2), (-0.2, 0.2)]
        path = {"kind": "path", "id": "p", "contours": [{"nodes": [{"at": at} for at in corners]}]}
        stroke = {"points": [[-0.5, 0.1], [0.5, 0.1]], "width": 0.2, "softness": 0}
        brush = {"kind": "brush", "id": "b", "strokes": [stroke], "join": "intersect"}
        self.solid("over", BLUE, masks=[path, brush])
        height, width = self.shown().shape[:2]
        rows, columns = np.nonzero(self.shown()[..., 2] > 127)
        inside = (np.array([columns, rows]).T + 0.5 - (width / 2, height / 2)) / height
        wide = min(0.2, width / height / 2)
        np.testing.assert_allclose([-wide, 0.0], inside.min(axis=0), atol=0.01)
        np.testing.assert_allclose([wide, 0.2], inside.max(axis=0), atol=0.01)


class ClippedTest(LayerScene):
    def test_by_alpha_only_where_the_layer_below_is(self) -> None:
        self.block("base", (80, 80), GREEN)
        self.solid("on top", BLUE, clipped="alpha")
        self.assertEqual([0, 0, 255], self.at(*MIDDLE))
        self.assertEqual([255, 0, 0], self.at(5, 5))

    def test_several_share_a_base(self) -> None:
        self.block("base", (80, 80), GREEN)
        self.solid("first", BLUE, clipped="alpha")
        self.solid("second", WHITE, opacity=0.5, clipped="alpha")
        self.assertEqual([255, 0, 0], self.at(5, 5))
        self.assertEqual([128, 128, 255], self.at(*MIDDLE))

    def test_by_luma_as_far_as_the_base_is_bright(self) -> None:
        self.solid("base", "#808080")
        self.solid("on top", BLUE, clipped="luma")
        self.assertAlmostEqual(128 + 127 * 0.5, self.at(*MIDDLE)[2], delta=2)

    def test_a_base_that_fades_away_takes_it_along(self) -> None:
        self.block("base", (80, 80), GREEN, opacity=0.0)
        self.solid("on top", BLUE, clipped="alpha")
        self.assertEqual([255, 0, 0], self.at(*MIDDLE))


class AdjustmentTest(LayerScene):
    def test_its_grade_and_effects_work_on_all_below(self) -> None:
        self.block("block", (80, 80), WHITE)
        self.add("adjustment", "all", effects=[{"kind": "invert"}])
        self.assertEqual(([0, 0, 0], [0, 255, 255]), (self.at(*MIDDLE), self.at(5, 5)))
        self.solid("above it", BLUE, masks=[{"kind": "ellipse", "size": [0.05, 0.05]}])
        self.assertEqual([0, 0, 255], self.at(*MIDDLE))

    def test_masks_opacity_and_place_say_where_and_how_much(self) -> None:
        self.add("adjustment", "all", effects=[{"kind": "invert"}], opacity=0.5)
        self.assertEqual([128, 128, 128], [round(v / 2) * 2 for v in self.at(5, 5)])
        edge = {"masks": [{"kind": "edge", "turn": 90}], "opacity": 1.0}
        self.scene.do(kind="adjust", clips=[self.id_of("all")], values=edge)
        picture = self.shown()
        sides = {tuple(self.at(160, x, picture)) for x in (20, 160)}
        self.assertEqual({(255, 0, 0), (0, 255, 255)}, sides)
        small = {"masks": [], "place/size": [0.5, 0.5]}
        self.scene.do(kind="adjust", clips=[self.id_of("all")], values=small)
        self.assertEqual(([0, 255, 255], [255, 0, 0]), (self.at(*MIDDLE), self.at(5, 5)))

    def test_a_blur_does_not_darken_the_borders(self) -> None:
        self.add("adjustment", "soft", effects=[{"kind": "soft_blur", "sigma": 40}])
        self.assertEqual([255, 0, 0], self.at(0, 0))

    def test_only_what_it_needs_is_worked_on_and_it_looks_like_all_of_it(self) -> None:
        self.block("block", (300, 700), WHITE, place={"turn": 20})
        before = self.shown()
        masks = [{"kind": "ellipse", "centre": [0.1, -0.05], "size": [0.2, 0.3], "outwards": 0.05}]
        for effects in (
            [{"kind": "soft_blur", "sigma": 30}, {"kind": "exposure", "stops": -1}],
            [{"kind": "direction_blur", "length": 80, "angle": 30}],
            [{"kind": "box_blur", "radius": 25}],
            [{"kind": "vignette"}, {"kind": "soft_blur", "sigma": 30}],
        ):
            with self.subTest(effects):
                values = {"masks": masks, "effects": effects, "opacity": 0.8}
                self.add("adjustment", "soft", **values)
                clip = next(clip for _, clip in self.document.clips() if clip.name == "soft")
                assert isinstance(clip, AdjustmentClip)
                stage = stage_of(self.document, SIZE, self.sources())
                whole = Layer(before, moved(0, 0), stage.scale[0], endless=True)
                changed = apply_effects(whole, clip.effects, 0).pixels
                area = area_of(clip, 0, stage)
                assert area is not None
                share = area[..., None] / 255 * 0.8
                off = np.abs(self.shown() - (before * (1 - share) + changed * share))
                self.assertLess(off.max(), 3)
                self.assertLess(off.mean(), 0.3)
                self.scene.do(kind="remove", clips=[clip.id])

    def test_a_clipped_one_stays_within_its_base(self) -> None:
        self.block("base", (80, 80), WHITE)
        self.add("adjustment", "inside", effects=[{"kind": "invert"}], clipped="alpha")
        self.assertEqual(([0, 0, 0], [255, 0, 0]), (self.at(*MIDDLE), self.at(5, 5)))


class PictureTest(LayerScene):
    def test_a_crop_cuts_and_a_flip_turns_over(self) -> None:
        halves = {
            "kind": "straight", "begin": [-1, 0], "end": [1, 0],
            "stops": [{"at": 0, "colour": BLUE}, {"at": 1, "colour": GREEN}],
        }  # fmt: skip
        self.add("solid", "halves", fill=halves)
        self.assertEqual([0, 0, 255], self.at(160, 20))
        values = {"place/mirrored": True, "crop": {"top": 0.25}}
        self.scene.do(kind="adjust", clips=[self.id_of("halves")], values=values)
        picture = self.shown()
        self.assertEqual([0, 255, 0], self.at(160, 20, picture))
        self.assertEqual(
            ([255, 0, 0], [0, 255, 0]), (self.at(70, 20, picture), self.at(90, 20, picture))
        )

    def test_a_keyed_layer_is_not_taken_for_one_that_covers(self) -> None:
        self.scene.video("take", frames=10)
        clip = {
            "kind": "video", "media": "take", "name": "take", "length": SECOND // 3,
            "source_length": SECOND // 3,
        }  # fmt: skip
        self.scene.do(kind="place", clip=clip, mode="above")
        self.assertIsNotNone(covering_at(self.document, 0, self.sources()))
        part = {"kind": "ellipse", "size": [0.1, 0.1]}
        for values in (
            {"key": {"kind": "luma"}},
            {"key": None, "masks": [part]},
            {"masks": [], "crop": {}},
        ):
            self.scene.do(kind="adjust", clips=[self.id_of("take")], values=values)
            self.assertIsNone(covering_at(self.document, 0, self.sources()))
        frame = render_planes(self.document, 0, SIZE, self.sources())
        self.assertEqual(SIZE, (frame.width, frame.height))

    def test_the_matte_of_a_layer_is_its_alpha_in_grey(self) -> None:
        masks = [{"kind": "ellipse", "size": [0.1, 0.1]}]
        effects = [{"kind": "glow", "of": "outline", "width": 90}]
        self.solid("spot", GREEN, masks=masks, opacity=0.2, effects=effects)
        matte = self.shown(matte=self.id_of("spot"))
        self.assertEqual(([255] * 3, [0] * 3), (self.at(*MIDDLE, matte), self.at(5, 5, matte)))
        self.add("adjustment", "all")
        self.assertEqual(255, self.shown(matte=self.id_of("all")).min())

    def test_a_path_mask_moves_by_its_keys(self) -> None:
        def square(x: float) -> list[dict[str, Any]]:
            corners = ((x - 0.1, -0.1), (x + 0.1, -0.1), (x + 0.1, 0.1), (x - 0.1, 0.1))
            return [{"nodes": [{"at": at} for at in corners]}]

        keys = [{"at": 0, "value": square(-0.15)}, {"at": SECOND, "value": square(0.15)}]
        self.solid("moving", BLUE, masks=[{"kind": "path", "contours": {"keys": keys}}])
        for tick in (0, SECOND // 2):
            blue = self.shown(tick)[160, :, 2] > 127
            middle = np.flatnonzero(blue).mean()
            self.assertAlmostEqual(90 + (-0.15 + 0.3 * tick / SECOND) * 320, middle, delta=2)


class HiddenTest(LayerScene):
    def test_what_lies_behind_something_opaque_is_not_drawn_and_nobody_sees_it(self) -> None:
        self.block("hidden", (80, 80), WHITE, effects=[{"kind": "soft_blur", "sigma": 9}])
        self.solid("wall", BLUE)
        self.block("seen", (40, 40), GREEN)
        for values, count in (
            ({}, 2),
            ({"opacity": 0.9}, 4),
            ({"opacity": 1.0, "blend": "screen"}, 4),
            ({"blend": "normal", "place/turn": 3.0}, 4),
            ({"place/size": [1.5, 1.5]}, 2),
            ({"place/turn": 0.0, "place/size": [0.99, 1.0]}, 4),
            ({"place/size": [1.0, 1.0], "fill/opacity": 0.5}, 4),
        ):
            with self.subTest(values):
                self.scene.do(kind="adjust", clips=[self.id_of("wall")], values=values)
                stage = stage_of(self.document, SIZE, self.sources())
                showing = showing_at(self.document.tracks, 0)
                self.assertEqual(count, len(showing) - first_seen(showing, 0, stage))
        corner = self.at(5, 5)
        self.assertEqual(([127, 0, 128], [0, 255, 0]), (corner, self.at(*MIDDLE)))

    def test_what_is_clear_around_a_layer_is_left_out_and_nobody_sees_it(self) -> None:
        mask = {"kind": "ellipse", "centre": [0.1, 0.2], "size": [0.05, 0.08], "outwards": 0.02}
        place = {"turn": 17, "position": [13.3, 8.6], "size": [0.9, 0.9]}
        for more in ({}, {"effects": [{"kind": "glow"}]}, {"blend": "screen", "place": place}):
            with self.subTest(more):
                self.solid("light", GREEN, masks=[mask], **more)
                clip = next(clip for _, clip in self.document.clips() if clip.name == "light")
                assert isinstance(clip, Pictured)
                stage = stage_of(self.document, SIZE, self.sources())
                layer = affected(clip, 0, stage)
                small = trimmed(layer, clip, stage)
                self.assertLess(small.pixels.size, 0.5 * layer.pixels.size)
                drawn = [solid(*SIZE, (200, 30, 90)) for _ in range(2)]
                for canvas, one in zip(drawn, (layer, small), strict=True):
                    lay(canvas, one, 1.0, clip.blend)
                off = np.abs(drawn[0].astype(int) - drawn[1])
                self.assertLessEqual(int(off.max()), 1)
                self.assertLess(off.mean(), 1e-3)
                self.scene.do(kind="remove", clips=[clip.id])

    def test_what_a_key_makes_clear_is_left_out_and_nobody_sees_it(self) -> None:
        pixels = np.zeros((SIZE[1], SIZE[0], 4), np.uint8)
        pixels[20:50, 30:44] = 180
        layer = Layer(pixels, turned(9) @ moved(7.3, 2.6))
        stage = stage_of(self.document, SIZE, self.sources())
        small = trimmed(layer, SolidClip(length=SECOND, key=LumaKey()), stage)
        self.assertLess(small.pixels.size, 0.5 * pixels.size)
        self.assertIs(layer, trimmed(layer, SolidClip(length=SECOND), stage))
        drawn = [solid(*SIZE, (200, 30, 90)) for _ in range(2)]
        for canvas, one in zip(drawn, (layer, small), strict=True):
            lay(canvas, one)
        self.assertLessEqual(np.abs(drawn[0].astype(int) - drawn[1]).max(), 1)
        self.assertGreater(np.ptp(drawn[0][..., 1]), 100)

    def test_a_layer_clipped_to_one_that_is_hidden_is_hidden_too(self) -> None:
        self.block("base", (80, 80), WHITE)
        self.solid("clipped", GREEN, clipped="alpha")
        self.solid("wall", BLUE)
        self.assertEqual([0, 0, 255], self.at(*MIDDLE))


class LayersTest(LayerScene):
    def setUp(self) -> None:
        super().setUp()
        self.block("block", (80, 80), GREEN)
        self.add("text", "words", text="O", size=120, width=0)
        self.add("adjustment", "all")

    def test_a_finger_finds_what_is_under_it_from_the_front(self) -> None:
        names = {clip.id: clip.name for _, clip in self.document.clips()}

        def under(x: float, y: float) -> list[str]:
            found = under_finger(self.document, 0, (x, y), self.sources())
            return [names[one] for one in found["clips"]]

        self.assertEqual(["ground", "all"], under(5, 5))
        self.assertEqual("block", under(MIDDLE[1], MIDDLE[0])[0])
        self.assertIn("words", under(MIDDLE[1] + 36, MIDDLE[0] + 6))
        self.assertEqual([], under(-5, 5))

    def test_sizes_of_what_is_drawn_are_told(self) -> None:
        found = extents(self.document, 0, self.sources())["extents"]
        self.assertEqual({self.id_of("block"), self.id_of("words")}, set(found))
        self.assertEqual([82, 82], [round(side) for side in found[self.id_of("block")]])

    def test_a_layer_alone_fills_its_small_picture(self) -> None:
        pictures = layer_pictures(self.document, 0, 96, self.sources())
        data = pictures[self.id_of("block")].split(",")[1]
        pixels = np.asarray(Image.open(io.BytesIO(b64decode(data))))
        self.assertGreater((pixels[..., 1] > 200).mean(), 0.5)
        self.assertLess(pixels[1, 1].max(), 110)


class GoldenTest(LayerScene):
    """A frame of everything together, kept small: it looks as it did."""

    def test_the_frame_is_as_kept(self) -> None:
        stops = [{"at": 0, "colour": "#27406e"}, {"at": 1, "colour": "#f0b58c"}]
        sky = {"kind": "straight", "begin": [0, -160], "end": [0, 160], "stops": stops}
        self.add("solid", "sky", fill=sky)
        glow = {"kind": "glow", "of": "outline", "width": 20, "strength": 1.0}
        star = {"kind": "star", "radius": 50, "inner": 22}
        line = {"fill": {"kind": "plain", "colour": "#fff4e2"}, "width": 4}
        place = {"position": [0, -40], "turn": 12}
        self.add(
            "shape", "star", form=star, stroke=line, effects=[glow], place=place,
            fill={"kind": "round", "begin": [0, 0], "end": [0, 50], "stops": stops},
        )  # fmt: skip
        self.solid(
            "shade",
            "#5d4384",
            blend="multiply",
            masks=[{"kind": "edge", "invert": True, "outwards": 0.2}],
        )
        self.add("text", "title", text="Kite", size=44, place={"position": [0, 90]},
                 outline={"kind": "plain", "colour": "#221d28"}, outline_width=3)  # fmt: skip
        self.add("adjustment", "corners", effects=[{"kind": "vignette"}])
        picture = self.shown()[..., :3]
        kept = np.asarray(Image.open(GOLDEN / "layers.png").convert("RGB")).astype(int)
        off = np.abs(kept - picture)
        self.assertLess(off.mean(), 0.5)
        self.assertLess(np.percentile(off, 99.5), 12)

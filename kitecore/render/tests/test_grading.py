"""Grades on pictures of the timeline: exact enough, where they belong, alike in every way of use."""

from __future__ import annotations

import json
import struct
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import numpy as np
import simplejpeg

from kitecore.colour.chain import graded
from kitecore.colour.looks import shipped
from kitecore.document import Grade
from kitecore.document.grade import grade_of
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import BadInput, NotThere
from kitecore.render.deep import render_deep, render_deep_planes
from kitecore.render.export import ExportSettings
from kitecore.render.extract import content_key
from kitecore.render.frame import render, render_planes
from kitecore.render.instruments import ScopesWanted, marked
from kitecore.render.measuring import as_cube, match, neutral_spot, suggestion
from kitecore.render.sources import Sources
from kitecore.render.still import measured_still
from kitecore.render.tests.scene import RAMP_FIRST, SIZE, Scene
from kitecore.ticks import Span

SAND = (188, 156, 128, 255)


class GradingCase(TestCase):
    def setUp(self) -> None:
        self.scene = Scene(Path(self.enterContext(tempfile.TemporaryDirectory())))
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def grade(self, zone: str | None = None, clip: int = 0, **values: Any) -> None:
        paths = {path.replace("__", "/"): value for path, value in values.items()}
        ids = [self.scene.document.main.clips[clip].id]
        self.scene.do(kind="set_grade", clips=ids, values=paths, zone=zone)

    def zone(self, **fields: Any) -> str:
        clip = self.scene.document.main.clips[0]
        self.scene.do(kind="add_zone", clips=[clip.id], zone=fields)
        return str(self.scene.document.main.clips[0].grade.zones[-1].id)

    def picture(self, tick: int = 0, **how: Any) -> np.ndarray:
        return render(self.scene.document, tick, SIZE, self.sources, **how)


class PictureTest(GradingCase):
    def setUp(self) -> None:
        super().setUp()
        self.scene.still("sand", SAND, SIZE)
        self.scene.place("sand", 2)

    def wanted(self, **stages: Any) -> np.ndarray:
        rgb = np.array(SAND[:3]) / 255
        done = graded(rgb, Grade.model_validate(stages), shipped)
        return np.rint(np.clip(done, 0, 1) * 255)

    def test_a_picture_is_graded_as_the_chain_says(self) -> None:
        stages = {"light": {"exposure": -0.5}, "colour": {"hue": 30}, "lut": {"look": "tin-sky"}}
        self.grade(light__exposure=-0.5, colour__hue=30, lut__look="tin-sky")
        np.testing.assert_allclose(self.picture()[9, 9, :3], self.wanted(**stages), atol=1)

    def test_keys_change_it_over_time(self) -> None:
        keys = {"keys": [{"at": 0, "value": -1}, {"at": SECOND, "value": 0}]}
        self.grade(light__exposure=keys)
        half = self.wanted(light={"exposure": -0.5})
        np.testing.assert_allclose(self.picture(SECOND // 2)[9, 9, :3], half, atol=1)
        np.testing.assert_array_equal(self.picture(SECOND)[9, 9], SAND)

    def test_a_still_is_graded_once_and_anew_when_its_grade_changes(self) -> None:
        self.grade(light__exposure=-1)
        first = self.picture()
        kept = len(self.sources.cache)
        np.testing.assert_array_equal(first, self.picture(SECOND))
        self.assertEqual(kept, len(self.sources.cache))
        self.grade(light__exposure=-2)
        self.assertLess(self.picture()[9, 9, 0], first[9, 9, 0])

    def test_a_grade_that_is_off_or_gone_is_not_seen(self) -> None:
        self.grade(light__exposure=1)
        self.grade(on=False)
        np.testing.assert_array_equal(self.picture()[9, 9], SAND)

    def test_a_zone_works_inside_its_mask_only(self) -> None:
        zone = self.zone(masks=[{"kind": "ellipse", "size": [0.1, 0.1], "id": "m"}])
        self.grade(zone, adjust__light__exposure=-2)
        picture = self.picture()
        dark = self.wanted(light={"exposure": -2})
        np.testing.assert_allclose(picture[160, 90, :3], dark, atol=1)
        np.testing.assert_array_equal(picture[100, 90], SAND)
        inside = (picture[..., 0] < 150).sum() / (np.pi * 32 * 32)
        self.assertAlmostEqual(1, inside, delta=0.03)
        self.grade(zone, invert=True)
        np.testing.assert_array_equal(self.picture()[160, 90], SAND)
        np.testing.assert_allclose(self.picture()[100, 90, :3], dark, atol=1)

    def test_a_mask_stays_on_its_picture_when_that_is_moved_and_sized(self) -> None:
        zone = self.zone(masks=[{"kind": "ellipse", "size": [0.1, 0.1], "centre": [0.1, 0.2]}])
        self.grade(zone, adjust__light__exposure=-2)
        clip = self.scene.document.main.clips[0].id
        values = {"place/position": [20, -30], "place/size": [0.5, 0.5]}
        self.scene.do(kind="adjust", clips=[clip], values=values)
        x, y = round(90 + 20 + 0.5 * 32), round(160 - 30 + 0.5 * 64)
        picture = self.picture()
        self.assertLess(picture[y, x, 0], 120)
        self.assertEqual(SAND[0], picture[y - 24, x, 0])

    def test_a_zone_of_hue_and_mask_needs_both(self) -> None:
        mask = {"kind": "edge", "id": "m"}
        zone = self.zone(masks=[mask], hues={"middle": 330, "width": 40})
        self.grade(zone, adjust__light__exposure=-2)
        np.testing.assert_array_equal(self.picture(), np.broadcast_to(SAND, (*SIZE[::-1], 4)))
        self.grade(zone, hues__middle=123)
        picture = self.picture()
        self.assertLess(picture[40, 90, 0], 120)
        self.assertEqual(SAND[0], picture[300, 90, 0])
        matte = self.picture(matte=zone)
        self.assertEqual([255, 0], [matte[40, 90, 0], matte[300, 90, 0]])

    def test_a_zone_looks_at_the_picture_before_its_grade_on_request(self) -> None:
        """The base grade turns all hues away; alone, with a mask, and after another zone."""
        for masks in ([], [{"kind": "ellipse", "size": [2, 2], "id": "m"}]):
            for earlier in (False, True):
                with self.subTest(masks=bool(masks), earlier=earlier):
                    self.setUp()
                    self.grade(colour__hue=120)
                    if earlier:
                        self.zone(masks=[{"kind": "edge", "id": "e"}])
                    plain = self.picture()[160, 90]
                    zone = self.zone(masks=masks, hues={"middle": 123, "width": 40})
                    self.grade(zone, adjust__light__exposure=-2)
                    np.testing.assert_array_equal(plain, self.picture()[160, 90])
                    self.grade(zone, original=True)
                    self.assertLess(int(self.picture()[160, 90, 1]), int(plain[1]) - 40)

    def test_zones_work_one_after_the_other_on_what_is_there(self) -> None:
        self.grade(light__exposure=-1)
        for name in ("first", "second"):
            masks = [{"kind": "edge", "id": "m"}] if name == "first" else []
            zone = self.zone(name=name, masks=masks)
            self.grade(zone, adjust__light__exposure=-1)
        picture = self.picture()
        thrice, twice = self.wanted(light={"exposure": -3}), self.wanted(light={"exposure": -2})
        np.testing.assert_allclose(picture[20, 90, :3], thrice, atol=2)
        np.testing.assert_allclose(picture[300, 90, :3], twice, atol=2)

    def test_amount(self) -> None:
        zone = self.zone(masks=[{"kind": "edge", "id": "m"}], amount=50)
        self.grade(zone, adjust__colour__saturation=-100)
        grey = self.wanted(colour={"saturation": -100})
        half = (np.array(SAND[:3]) + grey) / 2
        np.testing.assert_allclose(self.picture()[20, 90, :3], half, atol=1)

    def test_what_is_made_from_a_grade_has_a_key_of_its_own(self) -> None:
        def key() -> str:
            return content_key(self.scene.document, Span(0, SECOND), self.scene.find)

        plain = key()
        self.grade(light__exposure=1)
        self.assertNotEqual(plain, key())

    def test_a_missing_look_says_so(self) -> None:
        self.grade(lut__look="gone")
        with self.assertRaisesRegex(NotThere, "look"):
            self.picture()


class MovingTest(GradingCase):
    def test_a_graded_video_is_alike_as_still_and_for_the_encoder(self) -> None:
        self.scene.video("a", frames=30)
        self.scene.place("a", 1)
        self.grade(light__exposure=-0.7, balance__warmth=40)
        still = self.picture()[..., :3].astype(int)
        planes = render_planes(self.scene.document, 0, SIZE, self.sources)
        again = planes.to_ndarray(format="rgb24").astype(int)
        self.assertLess(np.abs(still - again).mean(), 2.5)


class DeepTest(GradingCase):
    def setUp(self) -> None:
        super().setUp()
        self.scene.ramp("ramp")
        self.scene.place("ramp", 0.2)

    def luma(self, frame: av.VideoFrame) -> np.ndarray:
        return frame.to_ndarray()[: SIZE[1], 90].astype(int)

    def test_ten_bits_go_through_untouched_and_graded(self) -> None:
        plain = render_deep_planes(self.scene.document, 0, SIZE, self.sources)
        rows = np.arange(RAMP_FIRST, RAMP_FIRST + SIZE[1])
        self.assertLessEqual(np.abs(self.luma(plain) - rows).max(), 1)
        self.grade(contrast__contrast=40)
        done = self.luma(render_deep_planes(self.scene.document, 0, SIZE, self.sources))
        level = (rows - 64) / 876
        grade = self.scene.document.main.clips[0].grade
        assert grade is not None
        wanted = graded(np.repeat(level[:, None], 3, axis=1), grade, shipped)[:, 0] * 876 + 64
        self.assertLess(np.abs(done - wanted).max(), 2)
        # A steeper curve through 8 bits would leave steps of four and more.
        self.assertLessEqual(np.diff(done).max(), 3)

    def test_an_8_bit_export_of_it_is_graded_from_10_bits(self) -> None:
        self.grade(contrast__contrast=100)
        rows = self.picture()[:, 90, 0].astype(int)
        inner = rows[(rows > 5) & (rows < 250)]
        self.assertLessEqual(np.diff(inner).max(), 1)

    def test_what_lies_over_it_is_laid_in_16_bits(self) -> None:
        veil = {
            "kind": "solid",
            "fill": {"kind": "plain", "colour": "#000000"},
            "length": SECOND // 5,
            "opacity": 0.5,
        }
        self.scene.do(kind="place", clip=veil, mode="above", at=0)
        picture = render_deep(self.scene.document, 0, SIZE, self.sources)
        plain = self.sources.video16("ramp", 0, self.scene.document.main.clips[0].id, SIZE)
        np.testing.assert_allclose(picture, plain * (127 / 255), atol=200)
        self.assertGreater(len(np.unique(picture[:, 90, 1])), 300)

    def test_zones_of_it_keep_their_bits(self) -> None:
        zone = self.zone(masks=[{"kind": "edge", "turn": 90, "id": "m"}])
        self.grade(zone, adjust__light__exposure=0.5)
        picture = render_deep(self.scene.document, 0, SIZE, self.sources)
        self.assertGreater(len(np.unique(picture[:, 140, 1])), 300)
        self.assertGreater(int(picture[60, 140, 1]), int(picture[60, 40, 1]) + 2000)

    def test_scopes_of_10_bits_see_every_level(self) -> None:
        wanted = ScopesWanted(scopes=("histogram",), deep=True)
        answer = measured_still(self.scene.document, 0, SIZE[1], self.sources, wanted)
        [length] = struct.unpack("<I", answer[:4])
        facts = json.loads(answer[4 : 4 + length])
        self.assertEqual([4, 1024], facts["arrays"][0]["shape"])
        counts = np.frombuffer(answer, np.uint32, 4 * 1024, 4 + length + facts["jpeg"])
        self.assertGreater((counts[:1024] > 0).sum(), 300)

    def test_a_finished_10_bit_file_holds_the_levels(self) -> None:
        self.grade(contrast__contrast=40)
        for name in ("hevc10", "av1"):
            settings = ExportSettings(format=name, quality="best")
            path = self.scene.root / f"{name}.mp4"
            work = settings.work(self.scene.document)
            settings.recipe.encode_piece(work, range(6), path, self.sources)
            with av.open(str(path)) as film:
                frames = list(film.decode(video=0))
            self.assertEqual(6, len(frames))
            self.assertEqual("yuv420p10le", frames[3].format.name)
            self.assertGreater(len(np.unique(self.luma(frames[3]))), 200)


class MeasuringTest(GradingCase):
    def setUp(self) -> None:
        super().setUp()
        self.scene.still("sand", SAND, SIZE)
        self.scene.still("slate", (90, 110, 140, 255), SIZE)
        self.scene.place("sand", 1)
        self.scene.place("slate", 1)
        self.sand, self.slate = (clip.id for clip in self.scene.document.main.clips)

    def test_a_tapped_spot_gives_the_balance_that_makes_it_neutral(self) -> None:
        found = neutral_spot(self.scene.document, self.sand, 0, (50, 60), self.sources)
        self.assertLess(found["warmth"], -20)
        self.assertGreater(found["distance"], 0.1)
        self.assertLess(found["after"], 0.02)
        self.assertEqual(list(SAND[:3]), found["rgb"])
        self.grade(balance__warmth=found["warmth"], balance__tint=found["tint"])
        self.assertLess(int(np.ptp(self.picture()[5, 5, :3])), 8)

    def test_a_tap_beside_the_picture_is_refused(self) -> None:
        values = {"place/size": [0.2, 0.2]}
        self.scene.do(kind="adjust", clips=[self.sand], values=values)
        with self.assertRaisesRegex(BadInput, "not there"):
            neutral_spot(self.scene.document, self.sand, 0, (5, 5), self.sources)

    def test_a_suggestion_goes_against_the_cast(self) -> None:
        self.assertLess(suggestion(self.scene.document, self.sand, 0, self.sources)["warmth"], 0)
        self.assertGreater(
            suggestion(self.scene.document, self.slate, 0, self.sources)["warmth"], 0
        )

    def test_a_match_brings_one_shot_to_the_other(self) -> None:
        ticks, others = [0, SECOND // 2], [SECOND + SECOND // 2]
        found = match(self.scene.document, self.sand, ticks, self.slate, others, self.sources)
        self.assertEqual("slate", found["name"])
        self.grade(match=found)
        np.testing.assert_allclose(self.picture()[5, 5, :3], (90, 110, 140), atol=2)

    def test_a_grade_as_a_cube_is_that_grade(self) -> None:
        from kitecore.colour.cubefile import read_cube

        self.grade(light__exposure=-0.5, colour__saturation=30)
        cube = read_cube(as_cube(self.scene.document, self.sand, 0, self.sources).encode())
        done = cube.apply(np.array([SAND[:3]]) / 255) * 255
        np.testing.assert_allclose(done[0], self.picture()[5, 5, :3], atol=1)

    def test_scopes_come_with_the_still(self) -> None:
        self.grade(levels__black=59.5)
        wanted = ScopesWanted(scopes=("histogram", "luma"), box=(0, 0, 0.5, 0.5))
        answer = measured_still(self.scene.document, 0, 160, self.sources, wanted)
        [length] = struct.unpack("<I", answer[:4])
        facts = json.loads(answer[4 : 4 + length])
        at = 4 + length
        picture = simplejpeg.decode_jpeg(answer[at : at + facts["jpeg"]])
        self.assertEqual((160, 90, 3), picture.shape)
        counts = np.frombuffer(answer, np.uint32, 4 * 256, at + facts["jpeg"]).reshape(4, 256)
        self.assertEqual(facts["pixels"], counts[0].sum())
        self.assertEqual([45 * 80] * 4, [int(row.max()) for row in counts])
        self.assertEqual([False], [one["wide"] for one in facts["arrays"][1:]])
        self.assertEqual(len(answer), at + facts["jpeg"] + 4 * 4 * 256 + 45 * 256)

    def test_the_empty_canvas_is_neither_crushed_nor_clipped(self) -> None:
        """A picture that covers a third of a black canvas, and is crushed nowhere."""
        self.scene.do(kind="adjust", clips=[self.sand], values={"place/size": [0.5, 0.6]})
        wanted = ScopesWanted(scopes=("luma",), marks=True)
        facts, picture = self._measured(wanted)
        self.assertEqual((0.0, 0.0), (facts["crushed"], facts["clipped"]))
        self.assertLess(picture[:4].max(), 6)
        self.grade(levels__black=250)
        facts, picture = self._measured(wanted)
        self.assertEqual(1.0, facts["crushed"])
        self.assertGreater(picture[80, 45].max() + picture[84, 45].max(), 60)

    def _measured(self, wanted: ScopesWanted) -> tuple[Any, Any]:
        answer = measured_still(self.scene.document, 0, 160, self.sources, wanted)
        [length] = struct.unpack("<I", answer[:4])
        facts = json.loads(answer[4 : 4 + length])
        jpeg = answer[4 + length : 4 + length + facts["jpeg"]]
        return facts, simplejpeg.decode_jpeg(jpeg)

    def test_marks_lie_where_the_picture_is_lost(self) -> None:
        pixels = np.full((40, 40, 4), 128, np.uint8)
        pixels[:20] = (0, 0, 0, 255)
        pixels[30:, :] = (255, 90, 90, 255)
        shown = marked(pixels)
        self.assertGreater((shown[:20] != pixels[:20]).any(axis=-1).mean(), 0.4)
        self.assertGreater((shown[30:] != pixels[30:]).any(axis=-1).mean(), 0.4)
        np.testing.assert_array_equal(shown[20:30], pixels[20:30])


class AdjustmentsTest(TestCase):
    def test_adjustments_of_a_zone_are_a_grade(self) -> None:
        grade = Grade.model_validate({"light": {"exposure": 1}, "zones": [{"name": "x"}]})
        inside = grade_of(grade)
        self.assertEqual((grade.light, ()), (inside.light, inside.zones))

"""Strokes on real pictures with made blemishes: what was there before is known."""

from __future__ import annotations

from typing import Any, Final
from unittest import TestCase

import cv2
import numpy as np
import skimage.data
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray

from kitecore.document.strokes import STROKES, HealStroke, StrokeBase
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.picture.retouch import retouch, touched
from kitecore.picture.retouch.completing import completed
from kitecore.picture.retouch.seeing import still_seen
from kitecore.picture.retouch.sourcing import source_of
from kitecore.picture.retouch.touching import steadied

_RUST: Final = (120, 40, 30)
SMOOTH: Final = (
    ("coffee", (435, 224)),
    ("coffee", (145, 262)),
    ("rocket", (275, 72)),
    ("moon", (163, 274)),
)
"""Real pictures, and places on them where little is to be seen."""


def picture(name: str) -> Rgba:
    """A real picture, opaque."""
    colours = getattr(skimage.data, name)()
    if colours.ndim == 2:
        colours = np.dstack([colours] * 3)
    return np.dstack([colours, np.full(colours.shape[:2], 255, np.uint8)])


def spoilt(clean: Rgba, at: tuple[int, int], radius: int) -> Rgba:
    out = clean.copy()
    disc = np.zeros(clean.shape[:2], np.uint8)
    cv2.circle(disc, at, radius, 255, -1, cv2.LINE_AA)
    share = disc[..., None] / 255
    out[..., :3] = np.rint(clean[..., :3] * (1 - share) + np.array(_RUST) * share)
    return out


def grid_of(pixels: Rgba) -> Grid:
    height, width = pixels.shape[:2]
    return Grid(width, height, width / height)


def stroke_at(kind: str, pixels: Rgba, at: tuple[float, float], width: float, **more: Any) -> Any:
    """A tap of so many pixels."""
    height, wide = pixels.shape[:2]
    point = ((at[0] + 0.5 - wide / 2) / height, (at[1] + 0.5 - height / 2) / height)
    return STROKES[kind].model_validate(
        {"kind": kind, "points": [point], "width": width / height, **more}
    )


def done(pixels: Rgba, stroke: StrokeBase) -> Rgba:
    out, grid = pixels.copy(), grid_of(pixels)
    found = touched(stroke, grid)
    if found is not None:
        retouch(out, stroke, grid, found)
    return out


def under(pixels: Rgba, stroke: StrokeBase) -> NDArray[np.bool_]:
    """Which pixels a stroke changes."""
    found = touched(stroke, grid_of(pixels))
    assert found is not None
    left, top, right, bottom = found.box
    out = np.zeros(pixels.shape[:2], np.bool_)
    out[top:bottom, left:right] = found.cover > 0
    return out


def psnr(one: NDArray[Any], other: NDArray[Any]) -> float:
    return float(10 * np.log10(255**2 / np.mean((one.astype(float) - other) ** 2)))


class HealTest(TestCase):
    def test_blemishes_on_even_parts_of_real_pictures_are_gone(self) -> None:
        for name, at in SMOOTH:
            clean = picture(name)
            before = spoilt(clean, at, 8)
            stroke = stroke_at("heal_stroke", clean, at, 26, softness=0.3)
            source = source_of(before, stroke, grid_of(clean))
            healed = done(before, stroke.model_copy(update={"source": source}))
            there = under(clean, stroke)
            self.assertGreater(psnr(healed[there], clean[there]), 38, name)
            self.assertLess(psnr(before[there], clean[there]), 30, name)
            np.testing.assert_array_equal(before[~there], healed[~there])

    def test_no_seam_is_left_where_the_light_changes(self) -> None:
        ramp = np.linspace(60, 200, 300)[None, :] + np.linspace(-30, 30, 240)[:, None]
        chance = np.random.default_rng(3).normal(0, 2, (240, 300))
        clean = np.dstack([np.rint(ramp + chance)] * 3 + [np.full(ramp.shape, 255)])
        clean = clean.astype(np.uint8)
        before = spoilt(clean, (150, 120), 15)
        stroke = stroke_at("heal_stroke", clean, (150, 120), 44, softness=0.2, source=(0.3, 0.1))
        healed = done(before, stroke).astype(float)[..., 0]
        there = under(clean, stroke).astype(np.uint8)
        edge = cv2.dilate(there, np.ones((3, 3))) - cv2.erode(there, np.ones((3, 3)))
        ways = [np.hypot(*np.gradient(cv2.GaussianBlur(one, (0, 0), 2))) for one in (healed, ramp)]
        self.assertLess(np.abs(ways[0] - ways[1])[edge > 0].mean(), 1.5)
        self.assertLess(np.abs(ways[0] - ways[1])[edge > 0].mean(), 0.3)
        # The grain is as strong as around.
        rough = [
            (one - cv2.GaussianBlur(one, (0, 0), 2)).std()
            for one in (healed[110:130, 140:160], clean[110:130, 40:60, 0].astype(float))
        ]
        self.assertAlmostEqual(1, rough[0] / rough[1], delta=0.25)

    def test_a_source_with_the_same_blemish_is_not_taken(self) -> None:
        clean = picture("coffee")
        before = spoilt(spoilt(clean, (300, 100), 8), (330, 100), 8)
        stroke = stroke_at("heal_stroke", clean, (300, 100), 26)
        found = source_of(before, stroke, grid_of(clean))
        assert found is not None
        x, y = (length * clean.shape[0] for length in found)
        self.assertGreater(np.hypot(x, y), 20)
        self.assertGreater(np.hypot(x - 30, y), 16)

    def test_along_an_edge_the_source_lies_on_the_edge(self) -> None:
        clean = np.full((200, 300, 4), 255, np.uint8)
        clean[:100, :, :3], clean[100:, :, :3] = (150, 170, 200), (60, 80, 40)
        before = spoilt(clean, (150, 100), 9)
        stroke = stroke_at("heal_stroke", clean, (150, 100), 38)
        source = source_of(before, stroke, grid_of(clean))
        healed = done(before, stroke.model_copy(update={"source": source}))
        self.assertLess(np.abs(healed.astype(int) - clean).max(), 3)

    def test_where_all_is_covered_there_is_no_source(self) -> None:
        grey = np.full((40, 60, 4), 128, np.uint8)
        stroke = stroke_at("heal_stroke", grey, (30, 20), 80)
        self.assertIsNone(source_of(grey, stroke, grid_of(grey)))
        beyond = HealStroke(points=((9.0, 9.0),))
        self.assertIsNone(source_of(grey, beyond, grid_of(grey)))
        np.testing.assert_array_equal(grey, done(grey, beyond))


class OtherStrokesTest(TestCase):
    def test_a_clone_is_the_source_bit_for_bit(self) -> None:
        clean = picture("coffee")
        at = (300.0, 200.0)
        stroke = stroke_at("clone_stroke", clean, at, 40, softness=0, source=(50 / 400, -30 / 400))
        out = done(clean, stroke)
        np.testing.assert_array_equal(out[190:210, 290:310], clean[160:180, 340:360])

    def test_a_source_beyond_the_edge_is_mirrored(self) -> None:
        clean = picture("coffee")
        stroke = stroke_at("clone_stroke", clean, (10, 200), 30, softness=0, source=(-40 / 400, 0))
        out = done(clean, stroke)
        np.testing.assert_array_equal(out[200, 10], clean[200, 30])

    def test_softening_takes_spots_and_keeps_grain_and_edges(self) -> None:
        chance = np.random.default_rng(5)
        rows, columns = np.mgrid[0:400, 0:300]
        skin = np.full((400, 300), 170.0)
        for x, y in chance.uniform(40, 160, (40, 2)):
            skin -= 12 * np.exp(-((columns - x) ** 2 + (rows - y - 100) ** 2) / 18)
        skin[:, 200:] -= 120
        grain = chance.normal(0, 3, skin.shape)
        before = np.clip(np.dstack([skin + grain] * 3 + [skin * 0 + 255]), 0, 255).astype(np.uint8)
        stroke = stroke_at("soften_stroke", before, (150, 200), 260, softness=0, spots=0.03)
        after = done(before, stroke)[..., 0].astype(float)
        part = np.s_[150:250, 60:150]

        def bands(one: NDArray[Any]) -> tuple[float, float]:
            fine = one - cv2.GaussianBlur(one, (0, 0), 0.7)
            middle = cv2.GaussianBlur(one, (0, 0), 2) - cv2.GaussianBlur(one, (0, 0), 12)
            return float(fine[part].std()), float(middle[part].std())

        (fine, spots), (fine_then, spots_then) = bands(before[..., 0].astype(float)), bands(after)
        self.assertAlmostEqual(1, fine_then / fine, delta=0.1)
        self.assertLess(spots_then, 0.5 * spots)
        step = [
            one[150:250, 203:206].mean() - one[150:250, 194:197].mean()
            for one in (before[..., 0].astype(float), after)
        ]
        self.assertAlmostEqual(step[0], step[1], delta=12)

    def test_what_is_finer_than_what_is_kept_stays(self) -> None:
        clean = picture("chelsea")
        stroke = stroke_at("soften_stroke", clean, (225, 150), 120, spots=0.01, keeps=0.01)
        np.testing.assert_allclose(done(clean, stroke), clean, atol=1)

    def test_sharpening_and_light(self) -> None:
        clean = picture("coffee")
        at = (300.0, 200.0)
        part = np.s_[190:210, 290:310]
        sharper = done(clean, stroke_at("sharpen_stroke", clean, at, 60, softness=0, amount=1.0))
        rough = [
            cv2.Laplacian(one[part][..., 1].astype(float), cv2.CV_64F).std()
            for one in (clean, sharper)
        ]
        self.assertGreater(rough[1], 1.2 * rough[0])
        grey = np.full((100, 100, 4), 100, np.uint8)
        grey[..., 3] = 255
        lit = done(grey, stroke_at("light_stroke", grey, (50, 50), 60, softness=0, stops=1.0))
        # One stop in linear light, with BT.1886 between.
        self.assertEqual(round(100 * 2 ** (1 / 2.4)), int(lit[50, 50, 0]))
        dark = done(grey, stroke_at("light_stroke", grey, (50, 50), 60, stops=1.0, strength=0.5))
        self.assertAlmostEqual((100 + int(lit[50, 50, 0])) / 2, int(dark[50, 50, 0]), delta=1)

    def test_an_uneven_line_is_evened_out_and_ends_where_it_did(self) -> None:
        xs = np.linspace(-0.4, 0.4, 60)
        points = tuple((float(x), float(0.01 * (-1) ** i)) for i, x in enumerate(xs))
        stroke = HealStroke(points=points, pressures=(0.5,) * 60, steady=0.5)
        even = steadied(stroke)
        ends = np.array([stroke.points[0], stroke.points[-1], even.points[0], even.points[-1]])
        np.testing.assert_allclose(ends[:2], ends[2:], atol=1e-9)
        self.assertLess(np.abs([y for _, y in even.points[20:-20]]).max(), 0.001)
        self.assertEqual(len(even.points), len(even.pressures))


class CompletedTest(TestCase):
    def test_a_pattern_goes_on_through_the_hole(self) -> None:
        rows, columns = np.mgrid[0:160, 0:200]
        tiles = (60 + 60 * ((columns // 8 + rows // 8) % 2)).astype(np.uint8)
        clean = np.dstack([tiles, tiles, tiles, np.full_like(tiles, 255)])
        hole = np.zeros(tiles.shape, np.bool_)
        hole[60:100, 80:120] = True
        before = clean.copy()
        before[hole] = 0
        closed = completed(before, hole)
        self.assertLess(np.abs(closed.astype(int) - clean)[hole].mean(), 6)
        np.testing.assert_array_equal(closed[~hole], clean[~hole])

    def test_texture_is_as_rough_in_the_hole_as_around(self) -> None:
        clean = picture("gravel")
        hole = np.zeros(clean.shape[:2], np.bool_)
        hole[220:280, 200:280] = True
        before = clean.copy()
        before[hole] = 0
        closed = completed(before, hole)
        inside, outside = closed[hole][:, 0].astype(float), clean[100:400, 100:400, 0].astype(float)
        self.assertAlmostEqual(1, inside.std() / outside.std(), delta=0.25)
        self.assertAlmostEqual(outside.mean(), inside.mean(), delta=10)
        smooth = cv2.inpaint(
            np.ascontiguousarray(before[..., 0]), hole.astype(np.uint8), 3, cv2.INPAINT_TELEA
        )
        self.assertGreater(inside.std(), 1.3 * smooth[hole].std())
        np.testing.assert_array_equal(closed, completed(before, hole))

    def test_a_picture_that_is_all_hole_or_none_stays(self) -> None:
        small = picture("coffee")[:30, :20]
        for value in (True, False):
            np.testing.assert_array_equal(small, completed(small, np.full(small.shape[:2], value)))

    def test_holes_at_the_edge_of_small_pictures_are_closed_somehow(self) -> None:
        for height, width in ((5, 5), (9, 40), (40, 9), (33, 31)):
            small = picture("coffee")[100 : 100 + height, 100 : 100 + width]
            hole = np.zeros((height, width), np.bool_)
            hole[: height // 2, : width // 2] = True
            closed = completed(small, hole)
            np.testing.assert_array_equal(closed[~hole], small[~hole])
            self.assertTrue((closed[..., 3] == 255).all())


class SeenTest(TestCase):
    def test_noise_and_light_are_the_same_and_what_passes_is_not(self) -> None:
        then = picture("coffee")[150:200, 250:330]
        chance = np.random.default_rng(2)
        darker = np.clip(then[..., :3] * 0.97 - 12 + chance.normal(0, 4, (50, 80, 3)), 0, 255)
        now = np.dstack([darker.astype(np.uint8), then[..., 3]])
        self.assertGreater(still_seen(now, then).mean(), 245)
        now[:, 50:, :3] = (90, 160, 40)
        seen = still_seen(now, then)
        self.assertGreater(seen[:, :44].mean(), 235)
        self.assertLess(seen[:, 56:].mean(), 40)

    def test_a_stroke_leaves_what_is_before_it_alone(self) -> None:
        clean = picture("coffee")
        before = spoilt(clean, (435, 224), 8)
        stroke = stroke_at("heal_stroke", clean, (435, 224), 26, source=(0.0, 0.12))
        grid = grid_of(clean)
        found = touched(stroke, grid)
        assert found is not None
        seen = np.zeros_like(found.cover)
        seen[:, : seen.shape[1] // 2] = 255
        out = before.copy()
        retouch(out, stroke, grid, found, seen=seen)
        changed = (out != before).any(axis=(0, 2))
        self.assertTrue(changed.any())
        self.assertFalse(changed[found.box[0] + seen.shape[1] // 2 :].any())


class AnyStrokeTest(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.data())
    def test_nothing_changes_beyond_a_stroke_and_colours_stay_within_their_alpha(
        self, data: st.DataObject
    ) -> None:
        number = st.floats(-1.2, 1.2, allow_nan=False)
        kind = data.draw(st.sampled_from(sorted(STROKES)))
        facts: dict[str, Any] = {
            "kind": kind,
            "points": data.draw(st.lists(st.tuples(number, number), min_size=1, max_size=4)),
            "width": data.draw(st.floats(0.001, 1.5)),
            "softness": data.draw(st.floats(0, 1)),
            "strength": data.draw(st.floats(0, 1)),
        }
        if "source" in STROKES[kind].model_fields:
            facts["source"] = data.draw(st.tuples(number, number))
        stroke = STROKES[kind].model_validate(facts)
        height, width = data.draw(st.tuples(st.integers(1, 70), st.integers(1, 70)))
        chance = np.random.default_rng(height * 100 + width)
        alpha = chance.integers(0, 256, (height, width, 1))
        colours = np.rint(chance.uniform(0, 1, (height, width, 3)) * alpha)
        before = np.concatenate([colours, alpha], axis=2).astype(np.uint8)
        after = done(before, stroke)
        self.assertTrue((after[..., :3] <= after[..., 3:]).all())
        if touched(stroke, grid_of(before)) is None:
            np.testing.assert_array_equal(before, after)
        else:
            there = under(before, stroke)
            np.testing.assert_array_equal(before[~there], after[~there])

"""Scopes against FFmpeg's filters and counting by NumPy."""

from unittest import TestCase

import av
import numpy as np
from av.filter import Graph

from kitecore.colour.measure import (
    match_of,
    neutral_balance,
    range_of_hues,
    statistics,
    suggested_balance,
)
from kitecore.colour.qualify import matte_of
from kitecore.colour.rgb import chroma, from_chroma, luma
from kitecore.colour.scopes import (
    SKIN_ANGLE,
    Box,
    distance_from_neutral,
    histogram,
    shares,
    targets,
    vectorscope,
    waveform,
)
from kitecore.colour.stages import stage_rules
from kitecore.colour.transfer import coded_of, linear_of
from kitecore.document import Zone
from kitecore.document.grade import Balance

RNG = np.random.default_rng(2)
PIXELS = RNG.integers(0, 256, (90, 120, 4), np.uint8)


def through(frame: av.VideoFrame, name: str, arguments: str) -> np.ndarray:
    """The picture that one of FFmpeg's scopes draws, its planes as an array."""
    graph = Graph()
    source = graph.add_buffer(
        width=frame.width, height=frame.height, format=frame.format.name, time_base="1/30"
    )
    scope, sink = graph.add(name, arguments), graph.add("buffersink")
    source.link_to(scope)
    scope.link_to(sink)
    graph.configure()
    graph.push(frame)
    return graph.pull().to_ndarray()


class HistogramTest(TestCase):
    def test_it_counts_every_level(self) -> None:
        counts = histogram(PIXELS)
        for channel in range(3):
            wanted = np.bincount(PIXELS[..., channel].ravel(), minlength=256)
            np.testing.assert_array_equal(counts[channel + 1], wanted)
        wanted = np.bincount(
            np.rint(luma(PIXELS[..., :3].astype(float))).astype(int).ravel(), minlength=256
        )
        self.assertLess(np.abs(np.cumsum(counts[0]) - np.cumsum(wanted)).max(), 12)
        self.assertEqual(90 * 120, counts[0].sum())

    def test_ten_bits(self) -> None:
        deep = RNG.integers(0, 1024, (20, 30, 3), np.uint16)
        counts = histogram(deep)
        self.assertEqual((4, 1024), counts.shape)
        np.testing.assert_array_equal(counts[2], np.bincount(deep[..., 1].ravel(), minlength=1024))


class WaveformTest(TestCase):
    def test_it_is_ffmpegs(self) -> None:
        small = RNG.integers(0, 256, (40, 64, 3), np.uint8)
        ours = waveform(small, 64)
        for channel in range(3):
            plane = av.VideoFrame.from_ndarray(small[..., channel].copy(), format="gray")
            how = "mode=column:intensity=0.0039216:components=1:mirror=0"
            np.testing.assert_array_equal(ours[channel + 1].T, through(plane, "waveform", how))

    def test_columns_are_put_together(self) -> None:
        wide, narrow = waveform(PIXELS, 120), waveform(PIXELS, 40)
        np.testing.assert_array_equal(narrow, wide.reshape(4, 40, 3, 256).sum(axis=2))


class VectorscopeTest(TestCase):
    def test_it_counts_colour_differences(self) -> None:
        counts = vectorscope(PIXELS)
        _, cb, cr = chroma(PIXELS[..., :3] / 255.0)
        across = np.clip((cb * 256 + 128.5).astype(int), 0, 255)
        up = np.clip((cr * 256 + 128.5).astype(int), 0, 255)
        wanted = np.zeros((256, 256), int)
        np.add.at(wanted, (up, across), 1)
        self.assertLess(np.abs(wanted - counts).sum(), 20)

    def test_it_lies_where_ffmpegs_does(self) -> None:
        """FFmpeg's counts the planes of the picture; ours goes by RGB, so a bar may be 1 off."""
        flat = np.zeros((16, 16, 3), np.uint8)
        flat[:] = (191, 40, 90)
        planes = av.VideoFrame.from_ndarray(flat, format="rgb24").reformat(
            format="yuv444p", dst_colorspace="ITU709", dst_color_range="JPEG"
        )
        drawn = through(planes, "vectorscope", "mode=gray:intensity=1")[0]
        row, column = np.unravel_index(drawn.argmax(), drawn.shape)
        up, across = np.unravel_index(vectorscope(flat).argmax(), (256, 256))
        self.assertLessEqual(abs(column - across), 1)
        self.assertLessEqual(abs((255 - row) - up), 1)

    def test_grey_is_in_the_middle_and_targets_are_the_bars(self) -> None:
        grey = np.full((4, 4, 3), 77, np.uint8)
        self.assertEqual(16, vectorscope(grey)[128, 128])
        red = targets()["red"]
        np.testing.assert_allclose(red, (-0.0859, 0.375), atol=1e-3)
        angles = {
            name: np.degrees(np.arctan2(cr, cb)) % 360 for name, (cb, cr) in targets().items()
        }
        self.assertTrue(angles["red"] < SKIN_ANGLE < angles["yellow"])


class SharesTest(TestCase):
    def test_crushed_and_clipped(self) -> None:
        pixels = np.full((10, 10, 3), 100, np.uint8)
        pixels[0] = 0
        pixels[1] = (0, 0, 4)
        pixels[2, :5] = (255, 20, 20)
        found = shares(pixels)
        self.assertAlmostEqual(0.1, found.crushed)
        self.assertAlmostEqual(0.05, found.clipped)
        inside = shares(Box(0, 0.0, 0.5, 0.1).of(pixels))
        self.assertEqual((1.0, 0.0), (inside.crushed, inside.clipped))

    def test_a_box_has_at_least_a_pixel(self) -> None:
        for box in (Box(0.5, 0.5, 0.5, 0.5), Box(1, 1, 2, 2), Box(-1, -1, 0, 0)):
            self.assertGreaterEqual(box.of(PIXELS).size, 4)

    def test_distance_from_neutral(self) -> None:
        self.assertAlmostEqual(0, distance_from_neutral(np.array([0.4, 0.4, 0.4])))
        self.assertAlmostEqual(1.0, distance_from_neutral(np.array([0, 0, 1.0])), delta=0.01)


class MeasureTest(TestCase):
    def test_a_card_in_other_light_becomes_neutral(self) -> None:
        card = np.tile([0.62, 0.52, 0.40], (50, 1))
        warmth, tint = neutral_balance(card)
        settings = Balance(warmth=warmth, tint=tint)
        done = coded_of(stage_rules["balance"].apply(linear_of(card), settings, no_look))
        self.assertLess(distance_from_neutral(done[0]), 0.005)

    def test_a_suggestion_goes_against_the_cast_and_not_too_far(self) -> None:
        neutral = RNG.random((4000, 1)).repeat(3, axis=1) * 0.6 + 0.2
        yellow = coded_of(linear_of(neutral) * (1.15, 1.0, 0.7))
        warmth, _ = suggested_balance(yellow)
        self.assertLess(warmth, -5)
        whole, _ = neutral_balance(yellow)
        self.assertGreater(warmth, whole)
        self.assertEqual((0.0, 0.0), suggested_balance(np.zeros((500, 3))))

    def test_a_match_gives_the_statistics_of_the_other_picture(self) -> None:
        own = RNG.normal(0.4, 0.05, (3000, 3)).clip(0.1, 0.9)
        wanted = (RNG.normal(0.55, 0.07, (3000, 3)) * (1.0, 0.9, 0.75)).clip(0.1, 0.9)
        match = match_of(own, wanted)
        done = coded_of(stage_rules["match"].apply(linear_of(own), match, no_look))
        for ours, theirs in zip(statistics(done), statistics(wanted), strict=True):
            np.testing.assert_allclose(ours, theirs, atol=0.004)

    def test_a_change_of_channel_gains_is_taken_out_wholly(self) -> None:
        wanted = RNG.random((4000, 3)) * 0.35 + 0.1
        for gains in ((1.4, 1.0, 0.7), (0.5, 0.8, 1.3), (2.5, 2.0, 2.2)):
            with self.subTest(gains):
                own = coded_of(linear_of(wanted) * gains)
                match = match_of(own, wanted)
                np.testing.assert_allclose(match.gains, 1 / np.array(gains), atol=1e-4)
                done = coded_of(stage_rules["match"].apply(linear_of(own), match, no_look))
                self.assertLess(np.abs(done - wanted).max(), 0.4 / 255)

    def test_the_hues_of_a_spot_are_a_range_that_means_them(self) -> None:
        for hue in (10.0, 123.0, 200.0, 355.0):
            with self.subTest(hue):
                angles = np.radians(hue + RNG.normal(0, 4, 400))
                spot = from_chroma(np.full(400, 0.5), 0.12 * np.cos(angles), 0.12 * np.sin(angles))
                found = range_of_hues(spot)
                assert found is not None
                away = abs((found["middle"] - hue + 180) % 360 - 180)
                self.assertLess(away, 1.5)
                self.assertTrue(30 < found["width"] < 50)
                zone = Zone.model_validate({"hues": found})
                self.assertGreater(matte_of(spot, zone).min(), 0.5)
                turned = from_chroma(
                    np.full(400, 0.5), 0.12 * np.cos(angles + 2), 0.12 * np.sin(angles + 2)
                )
                self.assertEqual(0, matte_of(turned, zone).max())
        self.assertIsNone(range_of_hues(np.full((50, 3), 0.4)))


def no_look(name: str) -> object:
    raise AssertionError("no look is asked for here")

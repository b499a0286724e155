"""Shapes, fills and text against the same drawn sixteen times larger."""

from __future__ import annotations

from typing import get_args
from unittest import TestCase

import cv2
import numpy as np
import skia
from hypothesis import given
from hypothesis import strategies as st

from kitecore.document import ShapeClip, TextClip
from kitecore.document.fills import PlainFill, RoundFill, Stop, StraightFill
from kitecore.document.outlines import outline_of
from kitecore.document.paths import polygon
from kitecore.document.shapes import (
    FORMS,
    EllipseForm,
    LineForm,
    PathForm,
    RectangleForm,
    StarForm,
    Stroke,
)
from kitecore.errors import BadInput
from kitecore.fonts import SHIPPED_FONTS, shipped_font
from kitecore.fonts.reading import title_of_font
from kitecore.picture.drawing.shapes import draw_shape, extent_of_shape
from kitecore.picture.drawing.surface import drawn
from kitecore.picture.drawing.text import (
    Unit,
    box_of_text,
    draw_text,
    extent_of_text,
    is_rtl,
    units,
)
from kitecore.picture.drawing.typefaces import typefaces

SUPER = 16
COVERAGE = 0.08
"""How far a pixel may be from its mean over 16 × 16; strokes in curves are flattened."""

FACES = typefaces(shipped_font)
WHITE = PlainFill(colour="#ffffff")
RECT = skia.Rect.MakeXYWH(-240, -160, 480, 320)


def shape(form: object, **more: object) -> ShapeClip:
    return ShapeClip(length=1, form=form, **({"fill": WHITE} | more))


def ends(fill: type, begin: tuple[float, float], end: tuple[float, float]) -> object:
    stops = (Stop(at=0, colour="#000000"), Stop(at=1, colour="#ffffff"))
    return fill(begin=begin, end=end, stops=stops)


class ShapeTest(TestCase):
    def _supersampled(self, clip: ShapeClip) -> float:
        width, height = (max(8, round(side)) for side in extent_of_shape(clip))
        small = draw_shape(clip, (width, height)).astype(float)
        large = draw_shape(clip, (width * SUPER, height * SUPER))
        mean = cv2.resize(large, (width, height), interpolation=cv2.INTER_AREA)
        return float(np.abs(small - mean).max() / 255)

    def test_every_form_is_covered_as_its_mean_at_16_times_the_size(self) -> None:
        forms = [
            RectangleForm(size=(61.3, 40.7), radius=9),
            EllipseForm(size=(50, 33.3)),
            FORMS["polygon"](radius=30, corners=5),
            StarForm(radius=30, inner=13, points=7),
            PathForm(contours=outline_of(EllipseForm(size=(40, 60)))),
        ]
        for form in forms:
            with self.subTest(form.kind):
                self.assertLess(self._supersampled(shape(form)), COVERAGE)
        stroke = Stroke(fill=WHITE, width=5, dashes=(9, 4))
        self.assertLess(self._supersampled(shape(LineForm(), fill=None, stroke=stroke)), COVERAGE)

    def test_areas_are_those_of_geometry(self) -> None:
        for form, area in (
            (RectangleForm(size=(200, 100)), 20000),
            (EllipseForm(size=(200, 100)), np.pi * 5000),
            (FORMS["polygon"](radius=100, corners=6), 3 * np.sqrt(3) / 2 * 1e4),
        ):
            clip = shape(form)
            size = tuple(round(side) for side in extent_of_shape(clip))
            scale = (size[0] / extent_of_shape(clip)[0]) * (size[1] / extent_of_shape(clip)[1])
            drawn = draw_shape(clip, size)[..., 3].sum() / 255 / scale  # type: ignore[arg-type]
            self.assertAlmostEqual(1, drawn / area, places=2)

    def test_forms_are_drawn_as_skia_draws_its_own(self) -> None:
        corners = [(220 * np.sin(a), -220 * np.cos(a)) for a in np.arange(6) * np.pi / 3]
        for form, primitive in (
            (RectangleForm(radius=40), lambda path: path.addRoundRect(RECT, 40, 40)),
            (EllipseForm(), lambda path: path.addOval(skia.Rect.MakeXYWH(-200, -200, 400, 400))),
            (
                FORMS["polygon"](),
                lambda path: path.addPoly([skia.Point(*map(float, at)) for at in corners], True),
            ),
        ):
            with self.subTest(form.kind):
                clip = shape(form, stroke=Stroke(fill=WHITE, width=7))
                size = tuple(max(8, round(side / 4)) for side in extent_of_shape(clip))
                path = skia.Path()
                primitive(path)

                def draw(canvas: skia.Canvas, path: skia.Path = path) -> None:
                    paint = skia.Paint(Color=0xFFFFFFFF, AntiAlias=True)
                    canvas.drawPath(path, paint)
                    paint.setStyle(skia.Paint.kStroke_Style)
                    paint.setStrokeWidth(7)
                    paint.setStrokeJoin(skia.Paint.kRound_Join)
                    canvas.drawPath(path, paint)

                wanted = drawn(size, extent_of_shape(clip), draw)  # type: ignore[arg-type]
                off = np.abs(draw_shape(clip, size).astype(int) - wanted)  # type: ignore[arg-type]
                self.assertLess(off.max(), 24)
                self.assertLess(off.mean(), 0.3)

    def test_gradients_run_from_end_to_end(self) -> None:
        clip = shape(RectangleForm(size=(200, 20)), fill=ends(StraightFill, (-100, 0), (100, 0)))
        row = draw_shape(clip, (202, 22))[11, 1:201, 0].astype(float)
        wanted = (np.arange(200) + 0.5) / 200 * 255
        self.assertLess(np.abs(row - wanted).max(), 2.5)
        rings = shape(EllipseForm(size=(200, 200)), fill=ends(RoundFill, (0, 0), (0, 100)))
        row = draw_shape(rings, (202, 202))[101, 101:190, 0].astype(float)
        self.assertLess(np.abs(row - (np.arange(89) + 0.7) / 100 * 255).max(), 4)

    def test_stops_may_stand_in_any_order(self) -> None:
        stops = (Stop(at=1, colour="#ffffff"), Stop(at=0, colour="#000000"))
        fill = StraightFill(begin=(-100, 0), end=(100, 0), stops=stops)
        ordered = ends(StraightFill, (-100, 0), (100, 0))
        one, other = (
            draw_shape(shape(RectangleForm(size=(200, 20)), fill=found), (202, 22))
            for found in (fill, ordered)
        )
        np.testing.assert_array_equal(one, other)

    def test_a_stroke_grows_along_its_line(self) -> None:
        lengths = []
        for end in (0.0, 0.25, 0.5, 1.0):
            stroke = Stroke(fill=WHITE, width=10, cap="butt", end=end)
            clip = shape(LineForm(begin=(-200, 0), end=(200, 0)), fill=None, stroke=stroke)
            wide, high = extent_of_shape(clip)
            drawn = draw_shape(clip, (round(wide), round(high)))
            lengths.append(drawn[..., 3].sum() / 255 / 10)
        np.testing.assert_allclose(lengths, [0, 100, 200, 400], atol=2)

    def test_crossing_contours_leave_a_hole(self) -> None:
        square = ((-50.0, -50.0), (50.0, -50.0), (50.0, 50.0), (-50.0, 50.0))
        inner = tuple((x / 2, y / 2) for x, y in square)
        clip = shape(PathForm(contours=(polygon(square), polygon(inner))))
        drawn = draw_shape(clip, tuple(round(side) for side in extent_of_shape(clip)))  # type: ignore[arg-type]
        self.assertEqual((0, 255), (drawn[51, 51, 3], drawn[51, 10, 3]))

    @given(st.sampled_from(sorted(FORMS)), st.sampled_from(["least", "most"]))
    def test_typed_numbers_without_measure_are_bounded(self, kind: str, end: str) -> None:
        told = FORMS[kind].model_json_schema()["properties"]
        names = [name for name in ("corners", "points", "radius", "inner") if name in told]
        form = FORMS[kind](**{name: told[name][end] for name in names})
        wild = Stroke.model_json_schema()["properties"]["begin"][end]
        stroke = Stroke(fill=WHITE, width=3, dashes=(1e-6, 1e-6), begin=wild, end=wild)
        drawn = draw_shape(shape(form, stroke=stroke), (40, 40))
        self.assertEqual((40, 40, 4), drawn.shape)

    def test_keys_do_not_become_a_path(self) -> None:
        keyed = RectangleForm(radius={"keys": [{"at": 0, "value": 3}]})
        with self.assertRaises(BadInput):
            outline_of(keyed)


def text(words: str, **more: object) -> TextClip:
    return TextClip(length=1, text=words, **({"size": 60, "fill": WHITE} | more))


def drawn_text(clip: TextClip, only: tuple[int, int] | None = None) -> np.ndarray:
    wide, high = extent_of_text(clip, FACES)
    return draw_text(clip, (round(wide), round(high)), FACES, only)


class TextTest(TestCase):
    def test_letters_are_covered_as_their_mean_at_16_times_the_size(self) -> None:
        clip = text("Kite", width=0)
        wide, high = (round(side) for side in extent_of_text(clip, FACES))
        small = draw_text(clip, (wide, high), FACES).astype(float)
        large = draw_text(clip, (wide * SUPER, high * SUPER), FACES)
        mean = cv2.resize(large, (wide, high), interpolation=cv2.INTER_AREA)
        # Letters are placed in quarters of a pixel, and coverage is made a little stronger.
        self.assertLess(np.abs(small - mean).mean() / 255, 0.01)

    def test_every_script_has_letters(self) -> None:
        blank = drawn_text(text("\U0010ffff\U0010fffe", width=0))
        for words in ("Wind", "Ветер", "Άνεμος", "رياح", "רוח", "हवा", "ลม", "風", "바람", "ქარი"):
            with self.subTest(words):
                drawn = drawn_text(text(words, width=0))
                self.assertGreater(drawn[..., 3].sum(), 0)
                box = drawn_text(text(chr(0x10FFFF) * len(words), width=0))
                same = box.shape == drawn.shape and np.array_equal(box, drawn)
                self.assertFalse(same, "only boxes for missing letters")
        self.assertIsNotNone(blank)

    def test_lines_of_either_direction_stand_where_their_script_begins(self) -> None:
        self.assertEqual([False, True, True, False], [*map(is_rtl, ("a", "رياح", "3 רוח", "12"))])
        clip = text("wind", align="start", width=500)
        columns = np.flatnonzero(drawn_text(clip)[..., 3].max(axis=0))
        rtl = np.flatnonzero(drawn_text(text("רוח", align="start", width=500))[..., 3].max(axis=0))
        middle = extent_of_text(clip, FACES)[0] / 2
        self.assertLess(columns.mean(), middle)
        self.assertGreater(rtl.mean(), middle)

    def test_units_are_parts_of_the_finished_text_in_any_direction(self) -> None:
        """Letters that join, ligatures, numbers and stops within lines from right to left."""
        texts = ("مرحبا بالعالم 12.", "שלום עולם, 34", "Affine VA office", "one 12\nשורה.\n\nb")
        for words in texts:
            clip = text(words, width=700)
            whole = drawn_text(clip)[..., 3].astype(int)
            size = (whole.shape[1], whole.shape[0])
            for unit in get_args(Unit):
                with self.subTest(words, unit=unit):
                    parts = (draw_text(clip, size, FACES, span) for span in units(words, unit))
                    total = sum(part[..., 3].astype(int) for part in parts)
                    off = np.abs(np.minimum(total, 255) - whole).sum() / whole.sum()
                    self.assertLess(off, 0.002)

    def test_words_wrap_in_their_box(self) -> None:
        one = box_of_text(text("four folds up", width=2000), FACES)
        two = box_of_text(text("four folds up", width=220), FACES)
        self.assertGreater(two.height, 1.9 * one.height)
        self.assertLessEqual(two.right - two.left, 220)
        self.assertLess(box_of_text(text("up", width=0), FACES).width, 120)

    def test_letters_alone_make_up_the_whole(self) -> None:
        clip = text("kite wind", width=0, font="instrument-sans")
        whole = drawn_text(clip).astype(int)
        for unit in ("letter", "word"):
            parts = [drawn_text(clip, only=span) for span in units(clip.text, unit)]
            together = np.minimum(sum(part.astype(int) for part in parts), 255)
            self.assertLess(np.abs(whole - together)[..., 3].max(), 60)
            self.assertLess(np.abs(whole - together).mean(), 0.2)

    def test_units_follow_graphemes_words_and_lines(self) -> None:
        self.assertEqual([(0, 1), (1, 3), (4, 5)], units("ae\u0301 o", "letter"))
        self.assertEqual([(0, 4), (5, 7)], units("four up", "word"))
        self.assertEqual([(0, 4), (6, 8)], units("four\n\nup", "line"))

    def test_outline_and_plate_lie_under_the_letters(self) -> None:
        red = PlainFill(colour="#ff0000")
        clip = text("O", width=0, outline=red, outline_width=6)
        plain, outlined = drawn_text(text("O", width=0)), drawn_text(clip)
        self.assertGreater(outlined[..., 3].sum(), 1.5 * plain[..., 3].sum())
        self.assertEqual(255, outlined[..., 1].max())
        plate = text("O", width=0, plate={"fill": {"kind": "plain", "colour": "#00ff00"}})
        drawn = drawn_text(plate)
        row = drawn[drawn.shape[0] // 2]
        self.assertTrue(((row[:, 1] == 255) & (row[:, 0] == 0)).any())

    def test_without_a_fill_only_the_outline_is_drawn(self) -> None:
        red = PlainFill(colour="#ff0000")
        drawn = drawn_text(text("O", width=0, fill=None, outline=red))
        self.assertEqual(0, drawn[..., 1].max())
        self.assertGreater(drawn[..., 0].max(), 200)

    def test_empty_words_are_no_error(self) -> None:
        self.assertEqual(0, drawn_text(text("", width=0))[..., 3].max())


class FontTest(TestCase):
    def test_shipped_fonts_can_be_read_and_name_themselves(self) -> None:
        for font in SHIPPED_FONTS.values():
            for path in font.files:
                self.assertEqual(font.title, title_of_font(path.read_bytes()).split(" Regular")[0])

    def test_what_is_no_font_is_refused(self) -> None:
        good = shipped_font("caveat")[0].read_bytes()
        for data in (b"", b"<svg/>", good[:4] + b"\0" * 50, good[: len(good) // 40]):
            with self.assertRaises(BadInput):
                title_of_font(data)

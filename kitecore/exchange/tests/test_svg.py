"""SVG drawings, read as shapes and drawn, against Skia's own SVG renderer."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
import skia

from kitecore.document import Canvas, FrameRate, GroupClip, ShapeClip, empty_document
from kitecore.document.clips import ClipBase
from kitecore.errors import BadInput
from kitecore.exchange.svg import read_svg
from kitecore.picture.drawing.shapes import draw_shape, extent_of_shape
from kitecore.render.compose import draw_tracks
from kitecore.render.frame import stage_of
from kitecore.render.sources import Sources

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100" height="100" viewBox="0 0 100 100">'
SECOND = 705_600_000


def svg(body: str) -> bytes:
    return f"{HEAD}{body}</svg>".encode()


def read(body: str, fit: float = 400) -> ClipBase:
    return read_svg(svg(body), "drawing", SECOND, fit).clip


def alone(body: str) -> np.ndarray:
    """What Skia draws of it, 4 pixels to a unit."""
    dom = skia.SVGDOM.MakeFromStream(skia.MemoryStream(svg(body)))
    dom.setContainerSize(skia.Size(400, 400))
    surface = skia.Surface(400, 400)
    surface.getCanvas().scale(4, 4)
    dom.render(surface.getCanvas())
    pixels = surface.toarray(colorType=skia.kRGBA_8888_ColorType).astype(float)
    pixels[..., :3] *= pixels[..., 3:] / 255
    return np.rint(pixels).astype(np.uint8)


def cropped(pixels: np.ndarray) -> np.ndarray:
    rows, columns = np.nonzero(pixels[..., 3] > 127)
    return pixels[rows.min() : rows.max() + 1, columns.min() : columns.max() + 1]


CORNERS = '<path d="M0 0 h1 v1 h-1 z M99 99 h1 v1 h-1 z" fill="#808080"/>'
"""So that a drawing is as large as its sheet."""
_STOPS = '<stop offset="0" stop-color="red"/><stop offset=".6" stop-color="#00c040" stop-opacity=".7"/><stop offset="100%" style="stop-color:navy"/>'
FILLED = {
    "of the box": f'<linearGradient id="g" x2="0" y2="1">{_STOPS}</linearGradient><rect x="10" y="20" width="70" height="40" fill="url(#g)"/>',
    "slanted by the box": f'<linearGradient id="g" x2="1" y2="1">{_STOPS}</linearGradient><rect x="5" y="20" width="90" height="30" fill="url(#g)"/>',
    "of the sheet": f'<linearGradient id="g" gradientUnits="userSpaceOnUse" x1="20" y1="20" x2="80" y2="60">{_STOPS}</linearGradient><circle cx="50" cy="50" r="45" fill="url(#g)"/>',
    "turned": f'<linearGradient id="g" gradientTransform="rotate(30)">{_STOPS}</linearGradient><g transform="translate(50 10) rotate(35) scale(1 .8)"><rect width="50" height="50" fill="url(#g)"/></g>',
    "round": f'<radialGradient id="g" cx=".4" cy=".4" r=".6">{_STOPS}</radialGradient><rect x="10" y="10" width="70" height="70" fill="url(#g)"/>',
    "taken over": f'<linearGradient id="s">{_STOPS}</linearGradient><linearGradient id="g" href="#s" xlink:href="#s" x1=".2" x2=".7"/><rect x="10" y="20" width="70" height="40" fill="url(#g)" fill-opacity=".6"/>',
    "opacity": '<g opacity=".5"><rect x="10" y="10" width="50" height="50" fill="red"/><rect x="30" y="30" width="50" height="50" fill="blue" opacity=".6"/></g>',
    "nonzero": '<path d="M10 10 h60 v60 h-60 z M30 30 h60 v60 h-60 z" fill="teal"/>',
    "even-odd": '<path fill-rule="evenodd" d="M10 10 h60 v60 h-60 z M30 30 h60 v60 h-60 z" fill="teal"/>',
}  # fmt: skip


def shown(body: str) -> np.ndarray:
    """What the renderer of the product makes of it, 4 pixels to a unit."""
    clip = read(CORNERS + body)
    document = empty_document(Canvas(width=400, height=400), FrameRate())
    track = document.main.model_copy(update={"clips": (clip,)})
    stage_document = document.with_track(track)
    pixels = np.zeros((400, 400, 4), np.uint8)
    sources = Sources(lambda media: None)  # type: ignore[arg-type, return-value]
    draw_tracks(pixels, stage_document.tracks, 0, stage_of(stage_document, (400, 400), sources))
    return pixels


class SvgTest(TestCase):
    def test_shapes_look_as_in_another_renderer(self) -> None:
        for body in (
            '<path fill="#d04030" d="M0 0 L100 20 L60 100 Z"/>',
            '<circle cx="50" cy="50" r="50" fill="teal"/>',
            '<rect x="0" y="20" width="100" height="60" rx="12" fill="#336699"/>',
            '<path d="M0 50 C 0 0 100 0 100 50 S 0 100 0 50 Z" fill="purple"/>',
            '<path d="M0 80 Q 50 -40 100 80 Z" fill="olive"/>',
            '<path d="M0 50 A 50 30 20 0 1 100 50 Z" fill="navy"/>',
            '<g transform="rotate(30 50 50) scale(0.7)"><ellipse cx="80" cy="60" rx="40" ry="20" fill="#123456"/></g>',
        ):
            with self.subTest(body):
                wanted = cropped(alone(body))
                clip = read(body, fit=max(wanted.shape[:2]))
                assert isinstance(clip, ShapeClip)
                size = tuple(round(side) for side in extent_of_shape(clip))
                found = cropped(draw_shape(clip, size))  # type: ignore[arg-type]
                self.assertLessEqual(np.abs(np.subtract(found.shape, wanted.shape)).max(), 5)
                height, width = np.minimum(found.shape, wanted.shape)[:2]
                off = np.abs(found[:height, :width].astype(int) - wanted[:height, :width])
                self.assertLess((off.max(axis=2) > 40).mean(), 0.04)

    def test_several_shapes_come_as_a_group_from_back_to_front(self) -> None:
        group = read('<rect width="100" height="100" fill="red"/><circle cx="50" cy="50" r="9"/>')
        assert isinstance(group, GroupClip)
        back, front = (track.clips[0] for track in group.tracks)
        self.assertEqual("#ff0000", back.fill.colour)  # type: ignore[attr-defined]
        spots = [node.at for node in front.form.contours[0].nodes]  # type: ignore[attr-defined]
        self.assertLess(np.abs(np.mean(spots, axis=0)).max(), 2)

    def test_strokes_and_missing_fills_are_kept(self) -> None:
        clip = read('<path d="M0 0 L100 0" fill="none" stroke="#00ff00" stroke-width="5"/>')
        assert isinstance(clip, ShapeClip)
        self.assertIsNone(clip.fill)
        self.assertEqual("#00ff00", clip.stroke.fill.colour)  # type: ignore[union-attr]
        self.assertEqual(20, clip.stroke.width)  # type: ignore[union-attr]
        self.assertFalse(clip.form.contours[0].closed)  # type: ignore[union-attr]

    def test_fills_look_as_in_another_renderer(self) -> None:
        """Gradients in all their units, classes, opacity of parts and of wholes, both fill rules."""
        for name, body in FILLED.items():
            with self.subTest(name):
                wanted = alone(CORNERS + body)
                found = shown(body)
                off = np.abs(found.astype(int) - wanted).max(axis=2)
                self.assertLess((off > 12).mean(), 0.02)
                self.assertLess(off.mean(), 2)

    def test_style_sheets_are_followed(self) -> None:
        sheet = "<style>.warm{fill:#e06030;stroke:#203040;stroke-width:4} #one{opacity:.5}</style>"
        styled = read(f'{sheet}<rect id="one" class="warm" x="10" y="10" width="60" height="50"/>')
        plain = read(
            '<rect x="10" y="10" width="60" height="50" fill="#e06030" stroke="#203040" '
            'stroke-width="4" opacity=".5"/>'
        )
        self.assertEqual(0.5, styled.opacity)  # type: ignore[attr-defined]
        self.assertEqual(plain.model_copy(update={"id": styled.id}), styled)

    def test_words_come_as_outlines_where_they_stand(self) -> None:
        body = (
            '<text x="50" y="40" font-size="20" text-anchor="middle" fill="#c03020">Paper'
            '<tspan x="50" dy="30" font-weight="bold" fill="#2040c0">مرحبا</tspan></text>'
        )
        group = read(CORNERS + body)
        assert isinstance(group, GroupClip)
        lines = [track.clips[0] for track in group.tracks][-2:]
        self.assertEqual(["#c03020", "#2040c0"], [line.fill.colour for line in lines])
        for line, baseline in zip(lines, (40, 70), strict=True):
            spots = np.array([node.at for c in line.form.contours for node in c.nodes]) / 4 + 50
            left, top = spots.min(axis=0)
            right, bottom = spots.max(axis=0)
            self.assertLess(abs((left + right) / 2 - 50), 2)
            self.assertLess(abs(bottom - baseline), 9)
            self.assertGreater(bottom - top, 10)
        # Letters that join have fewer outlines than letters.
        apart = read("".join(f'<text x="{x * 9}" y="9">{c}</text>' for x, c in enumerate("مرحبا")))
        single = sum(len(track.clips[0].form.contours) for track in apart.tracks)
        self.assertLess(len(lines[1].form.contours), single)

    def test_what_is_left_out_is_said(self) -> None:
        body = (
            '<image width="9" height="9"/><rect width="9" height="9" filter="url(#f)"/>'
            '<rect width="9" height="9" style="mix-blend-mode: screen"/>'
        )
        [remark] = read_svg(svg(body), "x", SECOND, 100).remarks
        self.assertEqual("Left out of the drawing: pictures, filters, blending.", remark)
        self.assertEqual((), read_svg(svg(FILLED["opacity"]), "x", SECOND, 100).remarks)

    def test_what_cannot_be_read_is_refused_with_a_reason(self) -> None:
        entity = b'<!DOCTYPE svg [<!ENTITY a "b">]>' + svg("<rect/>")
        many = svg('<rect width="3" height="3"/>' * 70)
        for data in (b"", b"no svg", svg(""), svg("<text> </text>"), entity, many):
            with self.subTest(data[:40]), self.assertRaises(BadInput):
                read_svg(data, "x", SECOND, 100)

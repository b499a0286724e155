"""SVG drawings, read as shapes and drawn, against Skia's own SVG renderer."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
import skia

from kitecore.document import GroupClip, ShapeClip
from kitecore.document.clips import ClipBase
from kitecore.errors import BadInput
from kitecore.exchange.svg import read_svg
from kitecore.picture.drawing.shapes import draw_shape, extent_of_shape

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100" viewBox="0 0 100 100">'
SECOND = 705_600_000


def svg(body: str) -> bytes:
    return f"{HEAD}{body}</svg>".encode()


def read(body: str, fit: float = 400) -> ClipBase:
    return read_svg(svg(body), "drawing", SECOND, fit)


def alone(body: str) -> np.ndarray:
    """What Skia draws of it, 4 pixels to a unit."""
    dom = skia.SVGDOM.MakeFromStream(skia.MemoryStream(svg(body)))
    dom.setContainerSize(skia.Size(400, 400))
    surface = skia.Surface(400, 400)
    surface.getCanvas().scale(4, 4)
    dom.render(surface.getCanvas())
    return surface.toarray(colorType=skia.kRGBA_8888_ColorType)


def cropped(pixels: np.ndarray) -> np.ndarray:
    rows, columns = np.nonzero(pixels[..., 3] > 127)
    return pixels[rows.min() : rows.max() + 1, columns.min() : columns.max() + 1]


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

    def test_what_cannot_be_read_is_refused_with_a_reason(self) -> None:
        entity = b'<!DOCTYPE svg [<!ENTITY a "b">]>' + svg("<rect/>")
        many = svg('<rect width="3" height="3"/>' * 70)
        for data in (b"", b"no svg", svg(""), svg("<text>hi</text>"), entity, many):
            with self.subTest(data[:40]), self.assertRaises(BadInput):
                read_svg(data, "x", SECOND, 100)

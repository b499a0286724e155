"""The same picture by planes and by RGB, at every size."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.edits.tests.populated import SECOND
from kitecore.media.planes import rows_of
from kitecore.render.frame import render, render_planes
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import Scene

SIZE = (540, 960)
SIZES = (SIZE, (360, 640), (270, 480), (202, 360), (180, 320))
LUMA = 180
GRADE = {"light": {"exposure": -0.2}, "contrast": {"contrast": 20}, "colour": {"saturation": 20}}
GREY = round((LUMA - 16) * 255 / 219)


def coded(luma: NDArray[np.uint8], cb: int = 128, cr: int = 128) -> av.VideoFrame:
    frame = av.VideoFrame(*SIZE, "yuv420p")
    for plane, level in zip(frame.planes, (luma, cb, cr), strict=True):
        rows_of(plane)[:, : plane.width] = level
    return frame


class GreyTest(TestCase):
    """A flat grey take and a coloured ramp of what a screen can show, in BT.709 without loss."""

    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        scene = Scene(cls.root)
        flat = np.full((1, 1), LUMA, np.uint8)
        ramp = np.linspace(70, 200, SIZE[0]).astype(np.uint8)[None]
        for name, luma, cb, cr in (("grey", flat, 128, 128), ("ramp", ramp, 116, 140)):
            scene.video(
                name,
                frames=3,
                size=SIZE,
                options={"qp": "0", "colorspace": "bt709", "color_range": "tv"},
                draw=lambda _, luma=luma, cb=cb, cr=cr: coded(luma, cb, cr),
            )

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def planes(self, size: tuple[int, int]) -> list[NDArray[np.float64]]:
        frame = render_planes(self.scene.document, 0, size, self.sources)
        return [rows_of(plane)[:, : plane.width].astype(float) for plane in frame.planes]

    def veil(self) -> None:
        """Something that is almost clear, so that all goes by RGB."""
        fill = {"kind": "plain", "colour": "#808080", "opacity": 0.001}
        clip = {"kind": "solid", "fill": fill, "length": SECOND}
        self.scene.do(kind="place", clip=clip, mode="above", at=0)

    def test_a_grey_film_stays_grey_at_every_size(self) -> None:
        self.scene.place("grey", 0.1, place={"fit": "fill"})
        for size in SIZES:
            with self.subTest(size):
                shown = render(self.scene.document, 0, size, self.sources)[..., :3].astype(int)
                self.assertLessEqual(np.abs(shown - GREY).max(), 1)
                self.assertLess(abs(shown.mean() - GREY), 0.3)

    def test_a_layer_above_changes_nothing_below(self) -> None:
        self.scene.place("ramp", 0.1, place={"fit": "fill"})
        alone = {size: self.planes(size) for size in SIZES}
        self.veil()
        for size in SIZES:
            with self.subTest(size):
                for before, after in zip(alone[size], self.planes(size), strict=True):
                    self.assertLess(abs((after - before).mean()), 0.25)
                    self.assertLessEqual(np.abs(after - before).max(), 2)

    def test_a_layer_above_changes_nothing_of_a_grade(self) -> None:
        self.scene.place("ramp", 0.1, place={"fit": "fill"}, grade=GRADE)
        alone = {size: self.planes(size) for size in SIZES}
        self.veil()
        for size in SIZES:
            with self.subTest(size):
                for before, after in zip(alone[size], self.planes(size), strict=True):
                    # Chroma is the same everywhere, so it is rounded alike everywhere.
                    self.assertLess(abs((after - before).mean()), 0.5)
                    self.assertLessEqual(np.abs(after - before).max(), 2)

    def test_what_is_watched_is_what_is_sent(self) -> None:
        self.scene.place("ramp", 0.1, place={"fit": "fill"})
        draft = Sources(self.scene.find, draft=True)
        self.addCleanup(draft.close)
        for size in ((270, 480), (180, 320)):
            with self.subTest(size):
                fine, quick = (
                    render(self.scene.document, 0, size, sources).astype(float)
                    for sources in (self.sources, draft)
                )
                self.assertLess(np.abs(fine.mean(axis=(0, 1)) - quick.mean(axis=(0, 1))).max(), 1)

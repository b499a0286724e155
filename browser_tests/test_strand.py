"""On a phone: a strand of hair is taken off a drawing, what lay behind it is closed, and it waves."""

from __future__ import annotations

from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw

from browser_tests.one_take import OneTakeTest
from kitecore.document import StillClip
from kitecore.document.properties import Keys
from kitecore.document.warps import Pin, PinWarp
from kitecore.media.tests.material import decoded

SIZE: Final = (360, 640)
ROOT, TIP = (232, 170), (258, 420)
HAIR: Final = (70, 44, 36)


def paper() -> NDArray[np.uint8]:
    """What the drawing is on: even from left to right, a little darker below, with fibres."""
    rows = np.linspace(214, 188, SIZE[1])[:, None, None] + np.zeros((1, SIZE[0], 1))
    fibres = np.random.default_rng(4).normal(0, 2, (SIZE[1], SIZE[0], 1))
    return np.clip((rows + fibres) * (1.0, 0.95, 0.86), 0, 255).astype(np.uint8)


def drawing() -> Image.Image:
    """A face with hair, and one long strand that hangs down beside it."""
    shot = Image.fromarray(paper())
    pen = ImageDraw.Draw(shot)
    pen.ellipse((80, 70, 240, 270), fill=HAIR)
    pen.ellipse((105, 110, 215, 290), fill=(226, 190, 160))
    pen.line((ROOT, (240, 300), TIP), fill=HAIR, width=20, joint="curve")
    return shot


class StrandTest(OneTakeTest):
    shape = SIZE

    def made(self, folder: Path) -> Path:
        path = folder / "drawing.png"
        drawing().save(path)
        return path

    def test_a_strand_is_taken_off_and_waves(self) -> None:
        self.take_off()
        self.wave()
        self.assert_clean_console()
        shots = decoded(self.exported())
        self.assertEqual(30, len(shots))
        for number, away in ((0, 0), (12, 60), (24, 0)):
            with self.subTest(number=number):
                self.assertAlmostEqual(TIP[0] + away, self.tip(shots[number]), delta=6)
        # Where it hung there is paper now.
        off = np.abs(shots[12].astype(float) - paper())[330:430, 225:275]
        self.assertLess(off.mean(), 8)

    def take_off(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.drawn(0)
        page.press("layer-part-cutout")
        page.press("cut-keep")
        page.test("stroke-surface")
        self.fingers.trace(*(self.at(spot) for spot in ((236, 240), (240, 300), (256, 415))))
        page.wait(lambda: self.clip.cutout, what="nothing was marked")
        page.press("cut-drop")
        for spots in (((320, 500), (320, 120)), ((150, 330), (190, 400)), ((160, 90), (160, 250))):
            before = len(self.clip.cutout.strokes)
            self.fingers.trace(*(self.at(spot) for spot in spots))
            page.wait(
                lambda before=before: len(self.clip.cutout.strokes) > before,
                what="nothing was dropped",
            )
        page.press("control-Pieces")
        page.press("take-off")
        page.confirm()
        page.wait(lambda: self.clip.taken_off, what="nothing was taken off")

    def wave(self) -> None:
        """Two pins, the lower one aside and back."""
        page = self.browser
        page.press("stage-move")
        page.press("move-part-warp")
        page.press("warp-pins")
        page.test("warp-ground")
        for number, spot in enumerate(((236, 240), TIP)):
            self.fingers.tap(self.at(spot, on="warp-ground"))
            page.wait(lambda number=number: len(self.pins) > number, what="no pin was set")
        page.press("control-All pins")
        page.press("key-pins")
        page.wait(lambda: isinstance(self.pins[1].at, Keys), what="the pins have no keys")
        for frame, way in ((12, 60), (24, -60)):
            for _ in range(12):
                page.press("step-forward")
            page.drawn(frame)
            at = self.fingers.middle("[data-test=pin-1]")
            wide = self.at((1, 0), on="warp-ground")[0] - self.at((0, 0), on="warp-ground")[0]
            self.fingers.drag((at, (at[0] + way * wide, at[1])))
            count = 2 if frame == 12 else 3
            page.wait(lambda count=count: len(self.pins[1].at.keys) == count, what="no key was set")

    @property
    def pins(self) -> tuple[Pin, ...]:
        [piece] = self.others()
        assert isinstance(piece, StillClip) and isinstance(piece.warp, PinWarp)
        return piece.warp.pins

    def tip(self, shot: NDArray[np.uint8]) -> float:
        """Where across the picture the strand is, a little above its end."""
        dark = (shot[400:412] < 120).all(axis=2)
        return float(np.flatnonzero(dark.any(axis=0)).mean())

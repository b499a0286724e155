"""Cut-outs of stills whose true alpha is known, through the whole of the drawing."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any, Final
from unittest import TestCase

import cv2
import numpy as np
import skimage.data
from numpy.typing import NDArray
from PIL import Image

from kitecore.document.cutouts import Cut
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused
from kitecore.media.tests.material import ingested
from kitecore.picture.cutting import cut_found
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene

HIGH: Final = 640
WIDE: Final = 360


def figure() -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Colours and alpha of a head with loose hair, and a body."""
    chance = np.random.default_rng(3)
    drawn = np.zeros((2 * HIGH, 2 * WIDE), np.uint8)
    cv2.ellipse(drawn, (WIDE, HIGH + 60), (150, 300), 0, 0, 360, 255, -1, cv2.LINE_AA)
    head = np.array([WIDE, HIGH - 300])
    cv2.circle(drawn, tuple(head.tolist()), 120, 255, -1, cv2.LINE_AA)
    for angle in chance.uniform(0, 2 * np.pi, 160):
        way = np.array([np.cos(angle), np.sin(angle)])
        line = [head + 116 * way]
        for _ in range(9):
            way = way + chance.normal(0, 0.15, 2)
            way /= np.hypot(*way)
            line.append(line[-1] + way * 9)
        cv2.polylines(drawn, [np.rint(line).astype(np.int32)], False, 255, 2, cv2.LINE_AA)
    alpha = cv2.resize(drawn, (WIDE, HIGH), interpolation=cv2.INTER_AREA) / 255
    soft = cv2.GaussianBlur(chance.uniform(0, 1, (HIGH, WIDE, 3)), (0, 0), 8)
    colours = (soft - soft.mean()) / soft.std() * 0.05 + np.array([0.75, 0.5, 0.35])
    return np.clip(colours, 0, 1), np.asarray(alpha, np.float64)


def ground() -> NDArray[np.float64]:
    """A real picture, its colours turned to blue."""
    return np.asarray(cv2.resize(skimage.data.coffee(), (WIDE, HIGH))[..., ::-1] / 255)


def spot(x: float, y: float) -> tuple[float, float]:
    return (x - WIDE / 2) / HIGH, (y - HIGH / 2) / HIGH


KEEP: Final = {"points": [spot(180, 170), spot(180, 450)], "width": 0.035}
DROP: Final = {
    "points": [spot(*at) for at in ((24, 600), (24, 40), (336, 40), (336, 600))],
    "width": 0.025,
    "drop": True,
}


def water() -> NDArray[np.float64]:
    """Waves of one colour."""
    waves = cv2.GaussianBlur(np.random.default_rng(9).uniform(0, 1, (HIGH, WIDE, 3)), (0, 0), 3)
    waves = (waves - waves.mean()) / waves.std() * 0.08 + np.array([0.25, 0.4, 0.5])
    return np.asarray(np.clip(waves, 0, 1))


def composite(behind: NDArray[np.float64] | None = None) -> NDArray[np.uint8]:
    colours, alpha = figure()
    behind = ground() if behind is None else behind
    mixed = alpha[..., None] * colours + (1 - alpha[..., None]) * behind
    return np.dstack([np.rint(mixed * 255), np.full(alpha.shape, 255)]).astype(np.uint8)


class CutFilm(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        Image.fromarray(composite()).save(cls.root / "x", "PNG")
        ingested(cls.root, "figure", cls.root / "x")

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)
        self.scene.place("figure", 1)

    @property
    def clip(self) -> Any:
        return self.scene.document.main.clips[0]

    def adjust(self, **values: Any) -> None:
        paths = {name.replace("__", "/"): value for name, value in values.items()}
        self.scene.do(kind="adjust", clips=[self.clip.id], values=paths)

    def shown(self) -> NDArray[np.float64]:
        return render(self.scene.document, 0, SIZE, self.sources)[..., :3].astype(float)

    def matte(self) -> NDArray[np.float64]:
        picture = render(self.scene.document, 0, SIZE, self.sources, matte=self.clip.id)
        return picture[..., 0] / 255


def smaller(picture: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.asarray(cv2.resize(picture, SIZE, interpolation=cv2.INTER_AREA))


class CutFoundTest(TestCase):
    def test_alpha_is_within_three_levels_and_within_25_in_hair(self) -> None:
        _, alpha = figure()
        cut = Cut.model_validate({"strokes": [KEEP, DROP], "edge": 0.07})
        found = cut_found(composite(), cut, WIDE / HIGH)
        true = cv2.resize(alpha, found.alpha.shape[::-1], interpolation=cv2.INTER_AREA)
        off = np.abs(found.alpha - true) * 255
        soft = ((true > 0.02) & (true < 0.98)).astype(np.uint8)
        hair = cv2.dilate(soft, np.ones((15, 15), np.uint8)) > 0
        self.assertLess(off[~hair].mean(), 3)
        self.assertLess(off[hair].mean(), 25)

    def test_a_brush_for_hair_makes_it_soft_where_it_was_hard(self) -> None:
        _, alpha = figure()
        turn = [spot(180 + 85 * np.sin(a), 170 + 85 * np.cos(a)) for a in np.linspace(0, 6.28, 40)]
        brushed = {"points": turn, "width": 0.1, "hair": True}
        errors = []
        for strokes in ([KEEP, DROP], [KEEP, DROP, brushed]):
            cut = Cut.model_validate({"strokes": strokes, "edge": 0.005})
            found = cut_found(composite(), cut, WIDE / HIGH)
            true = cv2.resize(alpha, found.alpha.shape[::-1], interpolation=cv2.INTER_AREA)
            errors.append(np.abs(found.alpha - true).mean())
        self.assertLess(errors[1], 0.6 * errors[0])
        self.assertFalse(Cut.model_validate({"strokes": [brushed]}).finds)
        with self.assertRaises(ValueError):
            Cut.model_validate({"strokes": [brushed | {"drop": True}]})

    def test_one_stroke_is_enough_where_colours_differ(self) -> None:
        _, alpha = figure()
        cut = Cut.model_validate({"strokes": [KEEP]})
        found = cut_found(composite(), cut, WIDE / HIGH)
        true = cv2.resize(alpha, found.alpha.shape[::-1], interpolation=cv2.INTER_AREA)
        self.assertLess(np.abs(found.alpha - true).mean() * 255, 12)

    def test_a_box_or_a_line_around_is_enough(self) -> None:
        """On a ground that is alike all around, and where the line leaves out what is not."""
        _, alpha = figure()
        spots = (180, 60), (285, 140), (275, 400), (180, 515), (90, 400), (70, 140)
        box, loop = [spot(12, 12), spot(348, 632)], [spot(*at) for at in spots]
        for around, behind in ((box, water()), (box[::-1], water()), (loop, ground())):
            with self.subTest(points=len(around)):
                cut = Cut.model_validate({"around": around, "edge": 0.07})
                found = cut_found(composite(behind), cut, WIDE / HIGH)
                true = cv2.resize(alpha, found.alpha.shape[::-1], interpolation=cv2.INTER_AREA)
                self.assertLess(np.abs(found.alpha - true).mean() * 255, 7)
                self.assertGreater(found.alpha[true > 0.98].mean(), 0.95)

    def test_beyond_the_line_nothing_is_kept(self) -> None:
        upper = {"around": [spot(20, 20), spot(340, 300)], "strokes": [KEEP]}
        alpha = cut_found(composite(), Cut.model_validate(upper), WIDE / HIGH).alpha
        row = round(300 * alpha.shape[0] / HIGH)
        x = round(180 * alpha.shape[0] / HIGH)
        self.assertGreater(alpha[: row - 8, x].mean(), 0.7)
        # But what a stroke keeps stays, and so does the soft edge about it.
        self.assertLess(alpha[row + 30 :, : x - 60].max(), 0.05)

    def test_what_strokes_say_stays_so(self) -> None:
        grid = {"points": [spot(180, 400)], "width": 0.06, "drop": True}
        cut = Cut.model_validate({"strokes": [KEEP, grid], "edge": 0.05})
        alpha = cut_found(composite(), cut, WIDE / HIGH).alpha
        x, y = (round(at * alpha.shape[0] / HIGH) for at in (180, 400))
        self.assertEqual(0, alpha[y, x])
        self.assertEqual(1, alpha[round(200 * alpha.shape[0] / HIGH), x])

    def test_what_reaches_the_edge_of_the_picture_is_kept_up_to_it(self) -> None:
        chance = np.random.default_rng(4)
        picture = np.full((120, 90, 4), 255, np.uint8)
        for rows, colour in ((np.s_[:50], (90, 140, 220)), (np.s_[50:], (150, 100, 60))):
            picture[rows, :, :3] = colour
        picture[..., :3] += chance.integers(0, 20, (120, 90, 3), np.uint8)
        tap = {"points": [(-0.1, 0.2), (0.1, 0.2)], "width": 0.05}
        alpha = cut_found(picture, Cut.model_validate({"strokes": [tap]}), 0.75).alpha
        self.assertGreater(alpha[55:].min(), 0.9)
        self.assertLess(alpha[:45].max(), 0.1)

    def test_nothing_kept_is_nothing(self) -> None:
        for strokes in ([], [DROP]):
            cut = Cut.model_validate({"strokes": strokes, "around": [(0, 0)]})
            self.assertEqual(0, cut_found(composite(), cut, WIDE / HIGH).alpha.max())

    def test_odd_pictures_are_no_trouble(self) -> None:
        tap = {"points": [(0, 0)], "width": 0.1}
        for height, width in ((1, 1), (2, 9), (30, 3), (40, 40)):
            grey = np.full((height, width, 4), 128, np.uint8)
            cut = Cut.model_validate({"strokes": [tap], "edge": 0.1})
            found = cut_found(grey, cut, width / height)
            self.assertTrue(np.isfinite(found.alpha).all())
            self.assertTrue((found.alpha >= 0).all() and (found.alpha <= 1).all())


class CutOutTest(CutFilm):
    def test_a_figure_stands_before_another_ground(self) -> None:
        self.adjust(cutout={"strokes": [KEEP, DROP], "edge": 0.07})
        colours, alpha = figure()
        true = smaller(alpha)
        self.assertLess(np.abs(self.matte() - true).mean() * 255, 6)
        # On the black canvas: its own colours, and nothing of the ground at the edge.
        wanted = smaller(colours * alpha[..., None]) * 255
        edge = (true > 0.2) & (true < 0.8)
        clean = np.abs(self.shown() - wanted)[edge].mean()
        self.adjust(cutout__clean=0.0)
        self.assertLess(clean, np.abs(self.shown() - wanted)[edge].mean())

    def test_the_rest_is_left_on_request(self) -> None:
        self.adjust(cutout={"strokes": [KEEP, DROP]})
        kept = self.matte()
        self.adjust(cutout__invert=True)
        np.testing.assert_allclose(kept + self.matte(), 1, atol=0.02)

    def test_the_rest_is_left_thin_on_request(self) -> None:
        self.adjust(cutout={"strokes": [KEEP, DROP]})
        kept = self.matte()
        self.adjust(cutout__rest=0.25)
        np.testing.assert_allclose(self.matte(), 0.25 + 0.75 * kept, atol=0.02)

    def test_it_grows_softens_and_is_switched_off(self) -> None:
        plain = self.shown()
        self.adjust(cutout={"strokes": [KEEP, DROP]})
        size = self.matte().sum()
        self.adjust(cutout__grow=0.01)
        self.assertGreater(self.matte().sum(), 1.02 * size)
        self.adjust(cutout__grow=-0.01)
        self.assertLess(self.matte().sum(), 0.98 * size)
        self.adjust(cutout__on=False)
        np.testing.assert_array_equal(plain, self.shown())

    def test_a_piece_is_taken_off_and_what_lay_behind_it_is_filled(self) -> None:
        self.adjust(cutout={"strokes": [KEEP, DROP]})
        self.scene.do(kind="take_off", clip=self.clip.id, name="Figure", pivot=[3.0, 4.0])
        rest = self.clip
        self.assertEqual((None, "Figure"), (rest.cutout, rest.taken_off[0].name))
        tracks = self.scene.document.tracks
        [piece] = [c for track in tracks for c in track.clips if c.id != rest.id]
        self.assertEqual(
            ((3.0, 4.0), rest.start, rest.length), (piece.place.pivot, piece.start, piece.length)
        )  # type: ignore[attr-defined]
        together = self.shown()
        _, alpha = figure()
        scene = cv2.resize(composite(), SIZE, interpolation=cv2.INTER_AREA)[..., :3]
        whole = smaller(alpha) > 0.98
        self.assertLess(np.abs(together - scene)[whole].mean(), 4)
        # Without the piece the figure's colours are nowhere.
        hidden = self.scene.document.with_track(
            next(t for t in tracks if piece in t.clips).with_clips(())
        )
        behind = render(hidden, 0, SIZE, self.sources)[..., :3].astype(float)
        own = np.abs(behind - np.array([0.75, 0.5, 0.35]) * 255).max(axis=2)
        self.assertLess((own[whole] < 40).mean(), 0.05)
        outside = cv2.dilate((smaller(alpha) > 0).astype(np.uint8), np.ones((9, 9), np.uint8)) == 0
        self.assertLess(np.abs(behind - scene)[outside].mean(), 1)

    def test_pieces_and_the_rest_become_one_group(self) -> None:
        with self.assertRaisesRegex(EditRefused, "no pieces"):
            self.scene.do(kind="gather_pieces", clip=self.clip.id)
        self.adjust(cutout={"strokes": [KEEP, DROP]})
        self.scene.do(kind="take_off", clip=self.clip.id, name="Figure")
        together = self.shown()
        self.scene.do(kind="gather_pieces", clip=self.clip.id)
        [group] = [clip for _, clip in self.scene.document.clips() if clip.kind == "group"]
        self.assertEqual(["still", "still"], [c.kind for t in group.tracks for c in t.clips])  # type: ignore[attr-defined]
        np.testing.assert_allclose(self.shown(), together, atol=2)

    def test_nothing_marked_is_refused(self) -> None:
        with self.assertRaisesRegex(EditRefused, "Nothing is marked"):
            self.scene.do(kind="take_off", clip=self.clip.id)
        solid = {"kind": "solid", "length": SECOND}
        self.scene.do(kind="place", clip=solid, mode="above", at=0)
        [other] = [c for t in self.scene.document.tracks for c in t.clips if c.kind == "solid"]
        with self.assertRaisesRegex(EditRefused, "Nothing is marked"):
            self.scene.do(kind="take_off", clip=other.id)

    def test_another_stroke_changes_the_piece(self) -> None:
        self.adjust(cutout={"strokes": [KEEP, DROP]})
        before = self.matte()
        item = {"points": [spot(180, 400)], "width": 0.06, "drop": True}
        self.scene.do(kind="add_item", clips=[self.clip.id], list="cutout/strokes", item=item)
        x, y = (round(at * SIZE[0] / WIDE) for at in (180, 400))
        self.assertEqual((1, 0), (before[y, x], self.matte()[y, x]))

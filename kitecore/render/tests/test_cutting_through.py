"""What is cut out of a moving take whose true alpha is known, from the file to the picture."""

from __future__ import annotations

import tempfile
from functools import cache
from pathlib import Path
from typing import Any, Final
from unittest import TestCase

import av
import cv2
import numpy as np
import skimage.data
from numpy.typing import NDArray

from kitecore.analysis import analyse, result_of
from kitecore.analysis.cut import read_mattes
from kitecore.document.cutouts import CutThrough, Marks
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_video
from kitecore.picture.cutting.carrying import begun, carried
from kitecore.picture.cutting.marking import made_small, marked_on
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.render.tests.test_cutting import DROP, HIGH, KEEP, WIDE, figure, spot
from kitecore.ticks import TICKS_PER_SECOND, Span

Array = NDArray[Any]
COUNT: Final = 24
FRAME: Final = TICKS_PER_SECOND // 30
LOST_FROM: Final = 12
"""From this frame on there is nobody in the take of a person who goes."""


@cache
def _painted() -> tuple[Array, Array, Array]:
    colours, alpha = figure()
    wide = cv2.resize(skimage.data.coffee(), (2 * WIDE, 2 * HIGH))[..., ::-1] / 255
    return colours, alpha, wide


def swaying(number: int) -> tuple[Array, Array]:
    """A figure that sways before a ground that goes by: its picture and its alpha."""
    colours, alpha, wide = _painted()
    time = number / 30
    turn = cv2.getRotationMatrix2D(
        (WIDE / 2, HIGH / 2), 8 * np.sin(2 * np.pi * time), 1 + 0.08 * np.sin(3 * time)
    )
    turn[:, 2] += 30 * np.sin(4 * time), 14 * np.sin(5 * time)
    there = cv2.warpAffine(alpha, turn, (WIDE, HIGH))
    own = cv2.warpAffine(colours, turn, (WIDE, HIGH), borderMode=cv2.BORDER_REPLICATE)
    past = np.array([[1, 0, -100 - 40 * time], [0, 1, -200]])
    ground = cv2.warpAffine(wide, past, (WIDE, HIGH))
    mixed = there[..., None] * own + (1 - there[..., None]) * ground
    return np.rint(mixed * 255).astype(np.uint8), there


def walking(number: int) -> Array:
    """A real picture of a person, on its own ground, that goes to the right; then the ground alone."""
    ground = cv2.resize(skimage.data.coffee(), (WIDE, HIGH))
    if number < LOST_FROM:
        person = cv2.resize(skimage.data.astronaut(), (240, 240), interpolation=cv2.INTER_AREA)
        ground[HIGH - 240 :, 20 + 4 * number : 260 + 4 * number] = person
    return np.asarray(ground)


def wanted(**more: Any) -> dict[str, Any]:
    view = {"at": 0, "strokes": [KEEP, DROP]}
    return {"views": [view], "edge": 0.07, "first": 0, "last": (COUNT - 1) * FRAME, **more}


def off(alpha: Array, true: Array) -> tuple[float, float]:
    """Mean errors of 255, outside hair and in it."""
    error = np.abs(alpha - true) * 255
    soft = ((true > 0.02) & (true < 0.98)).astype(np.uint8)
    hair = cv2.dilate(soft, np.ones((15, 15), np.uint8)) > 0
    return float(error[~hair].mean()), float(error[hair].mean())


def sized(alpha: Array, size: tuple[int, int]) -> Array:
    return np.asarray(cv2.resize(alpha, size, interpolation=cv2.INTER_AREA))


class CutThroughTest(TestCase):
    folders: dict[str, MediaFolder]

    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.folders = {}
        for name, drawn in (("sways", lambda n: swaying(n)[0]), ("walks", walking)):
            source = make_video(
                cls.root / f"{name}.mp4",
                frames=COUNT,
                size=(WIDE, HIGH),
                options={"crf": "12"},
                draw=lambda number, drawn=drawn: av.VideoFrame.from_ndarray(
                    np.ascontiguousarray(drawn(number)), format="rgb24"
                ),
            )
            cls.folders[name] = ingested(cls.root, name, source)

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    @property
    def clip(self) -> Any:
        return self.scene.document.main.clips[0]

    def adjust(self, **values: Any) -> None:
        paths = {name.replace("__", "/"): value for name, value in values.items()}
        self.scene.do(kind="adjust", clips=[self.clip.id], values=paths)

    def matte(self, number: int) -> Array:
        picture = render(
            self.scene.document, number * FRAME, SIZE, self.sources, matte=self.clip.id
        )
        return picture[..., 0] / 255

    def test_it_is_carried_through_the_take(self) -> None:
        """Under 1 of 255 outside hair, and 18 in it, in the mean."""
        mattes = read_mattes(self.folders["sways"], CutThrough.model_validate(wanted()))
        errors = []
        for number in range(COUNT):
            alpha = mattes.at(number)
            assert alpha is not None
            true = sized(swaying(number)[1], (alpha.shape[1], alpha.shape[0]))
            errors.append(off(alpha, true))
        self.assertLess(np.mean(errors, axis=0)[0], 1)
        self.assertLess(np.mean(errors, axis=0)[1], 18)
        self.assertGreater(mattes.sure.min(), 200)

    def test_the_film_shows_it_before_another_ground(self) -> None:
        self.scene.place("sways", COUNT * FRAME / SECOND)
        self.adjust(cutout={"views": wanted()["views"], "edge": 0.07, "through": wanted()})
        for number in (0, 9, COUNT - 1):
            true = sized(swaying(number)[1], SIZE)
            self.assertLess(np.abs(self.matte(number) - true).mean() * 255, 8)
            whole = true > 0.99
            shown = render(self.scene.document, number * FRAME, SIZE, self.sources)[..., :3]
            taken = sized(swaying(number)[0], SIZE)
            self.assertLess(np.abs(shown.astype(float) - taken)[whole].mean(), 4)
            self.assertLess(shown[true == 0].mean(), 3)

    def test_it_goes_on_from_the_frame_that_was_marked_both_ways(self) -> None:
        view = {"at": 10 * FRAME, "strokes": [KEEP, DROP]}
        given = CutThrough.model_validate(wanted(views=[view], first=6 * FRAME, last=14 * FRAME))
        mattes = read_mattes(self.folders["sways"], given)
        for number in (6, 10, 14):
            alpha = mattes.at(number)
            assert alpha is not None
            true = sized(swaying(number)[1], (alpha.shape[1], alpha.shape[0]))
            self.assertLess(off(alpha, true)[0], 4)
        self.assertEqual((None, None), (mattes.at(5), mattes.at(15)))

    def test_until_it_is_found_only_the_marked_frame_is_cut_out(self) -> None:
        self.scene.place("sways", COUNT * FRAME / SECOND)
        self.adjust(cutout={"views": [{"at": 5 * FRAME, "strokes": [KEEP, DROP]}], "edge": 0.07})
        self.assertEqual(1, self.matte(4).min())
        self.assertLess(np.abs(self.matte(5) - sized(swaying(5)[1], SIZE)).mean() * 255, 8)
        self.assertIsNone(result_of(self.folders["sways"], "cut", self.clip.cutout.through))

    def test_the_marked_frame_is_cut_out_alike_in_a_draft_and_for_all_frames(self) -> None:
        """By a line around alone: what lies within is told by little."""
        around = [spot(x, y) for x, y in ((60, 120), (300, 120), (330, 470), (40, 470))]
        view = {"at": 5 * FRAME, "around": around}
        self.scene.place("sways", COUNT * FRAME / SECOND)
        self.adjust(cutout={"views": [view], "edge": 0.02})
        true = sized(swaying(5)[1], SIZE)
        sent = self.matte(5)
        drafts = Sources(self.scene.find, draft=True)
        self.addCleanup(drafts.close)
        drawn = render(self.scene.document, 5 * FRAME, SIZE, drafts, matte=self.clip.id)
        self.assertLess(np.abs(drawn[..., 0] / 255 - sent).mean(), 0.003)
        through = CutThrough.model_validate(
            {"views": [view], "edge": 0.02, "first": 5 * FRAME, "last": 5 * FRAME}
        )
        found = read_mattes(self.folders["sways"], through).at(5)
        assert found is not None
        self.assertLess(np.abs(sized(found, SIZE) - sent).mean(), 0.02)
        self.assertLess(np.abs(sent - true).mean(), 0.2)

    def test_one_who_only_looks_does_not_wait_for_it(self) -> None:
        """Until it is found the picture is whole; then it has another name, so nothing old is shown."""
        self.scene.place("sways", COUNT * FRAME / SECOND)
        self.adjust(cutout={"through": wanted(edge=0.03)})
        looking = Sources(self.scene.find, draft=True)
        self.addCleanup(looking.close)
        span = Span(0, FRAME)

        def matte() -> Array:
            return render(self.scene.document, 0, SIZE, looking, matte=self.clip.id)[..., 0]

        before = content_key(self.scene.document, span, self.scene.find)
        self.assertEqual(255, matte().min())
        analyse(self.folders["sways"], "cut", self.clip.cutout.through)
        self.assertNotEqual(before, content_key(self.scene.document, span, self.scene.find))
        self.assertEqual(0, matte().min())

    def test_where_nothing_was_looked_for_the_picture_stays_whole(self) -> None:
        self.scene.place("sways", COUNT * FRAME / SECOND)
        self.adjust(cutout={"through": wanted(last=7 * FRAME)})
        self.assertLess(self.matte(7).mean(), 0.6)
        self.assertEqual(1, self.matte(8).min())
        self.adjust(cutout__on=False)
        self.assertEqual(1, self.matte(7).min())

    def test_it_follows_the_file_through_speed_and_trim(self) -> None:
        self.scene.place("sways", COUNT * FRAME / SECOND)
        self.adjust(cutout={"through": wanted()})
        before = self.matte(12)
        self.scene.do(kind="trim", clip=self.clip.id, edge="start", to=4 * FRAME)
        start = self.clip.start // FRAME
        np.testing.assert_array_equal(before, self.matte(start + 12 - 4))

    def test_a_correction_goes_on_until_the_next(self) -> None:
        """A hole painted into the body stays a hole, and goes along; before it there is none."""
        hole = {"points": [spot(180, 380)], "width": 0.06, "drop": True}
        views = [*wanted()["views"], {"at": 8 * FRAME, "strokes": [hole]}]
        mattes = read_mattes(self.folders["sways"], CutThrough.model_validate(wanted(views=views)))

        def there(number: int) -> float:
            alpha = mattes.at(number)
            assert alpha is not None
            moved = np.array([30 * np.sin(4 * number / 30), 14 * np.sin(5 * number / 30)])
            start = np.array([30 * np.sin(4 * 8 / 30), 14 * np.sin(5 * 8 / 30)])
            x, y = np.array([180, 380]) + moved - start
            scale = alpha.shape[0] / HIGH
            return float(alpha[round(y * scale), round(x * scale)])

        self.assertEqual([1, 1, 0], [there(number) for number in (0, 7, 8)])
        self.assertLess(max(there(number) for number in range(9, 14)), 0.3)

    def test_a_person_is_found_by_a_tap_and_told_when_gone(self) -> None:
        tap = {"at": 0, "persons": [spot(130, HIGH - 100)]}
        given = CutThrough.model_validate(wanted(views=[tap], edge=0.02))
        mattes = read_mattes(self.folders["walks"], given)
        for number in (0, 6, LOST_FROM - 1):
            alpha = mattes.at(number)
            assert alpha is not None
            scale = alpha.shape[0] / HIGH
            # The middle of the chest, and the ground above the person.
            x, y = (130 + 4 * number) * scale, (HIGH - 80) * scale
            self.assertGreater(alpha[round(y), round(x)], 0.9)
            self.assertLess(alpha[: round((HIGH - 260) * scale)].max(), 0.1)
        self.assertEqual(0, mattes.sure[LOST_FROM])
        gone = mattes.at(LOST_FROM)
        assert gone is not None
        self.assertEqual(0, gone.max())

    def test_where_colours_are_alike_it_stays_where_it_went(self) -> None:
        """A box over a wall of nearly its own colour, past dark windows."""
        side, high, wide = 40, 200, 120
        luck = np.random.default_rng(2)
        wall = np.full((high, 2 * wide, 3), (214, 190, 140), np.uint8)
        wall += luck.integers(0, 10, wall.shape, np.uint8)
        wall[40:70, ::9] = (40, 60, 80)
        box = luck.integers(0, 10, (side, side, 3), np.uint8) + np.uint8(200)
        box[[0, 1, -2, -1]] = box[:, [0, 1, -2, -1]] = 120

        def shown(number: int) -> tuple[Array, Array]:
            picture, there = (
                wall[:, number : number + wide].copy(),
                np.zeros((high, wide), np.bool_),
            )
            at = np.s_[60 : 60 + side, 20 + 2 * number : 20 + 2 * number + side]
            picture[at], there[at] = box, True
            return np.dstack([picture, np.full(there.shape, 255, np.uint8)]), there

        keep = {"points": [((40 - wide / 2) / high, (80 - high / 2) / high)], "width": 0.17}
        loop = [(x, y) for x, y in ((12, 52), (68, 52), (68, 108), (12, 108))]
        around = [((x - wide / 2) / high, (y - high / 2) / high) for x, y in loop]
        marks = Marks.model_validate({"strokes": [keep], "around": around})
        now = begun(marked_on(shown(0)[0], marks, wide / high), 0.01)
        for number in range(1, 20):
            picture, there = shown(number)
            now, _ = carried(now, made_small(picture)[0], 0.01)
            self.assertGreater((now.inside & there).sum() / (now.inside | there).sum(), 0.75)

    def test_takes_of_any_size_are_no_trouble(self) -> None:
        tap = {"strokes": [{"points": [(0, 0)], "width": 0.2}]}
        for high, wide in ((1, 1), (2, 9), (30, 3), (40, 40)):
            grey = np.full((high, wide, 4), 128, np.uint8)
            now = begun(marked_on(grey, Marks.model_validate(tap), wide / high), 0.1)
            for level in (128, 255, 0):
                picture = np.full((high, wide, 3), level / 255, np.float32)
                now, sure = carried(now, picture, 0.1)
                self.assertTrue(np.isfinite(now.alpha).all() and 0 <= sure <= 255)

    def test_what_cannot_be_cut_out_is_refused(self) -> None:
        folder = self.folders["sways"]
        for views, words in (
            ([{"at": 0, "strokes": [DROP]}], "Nothing is marked"),
            ([{"at": 0}], "Nothing is marked"),
        ):
            with self.assertRaisesRegex(BadInput, words):
                analyse(folder, "cut", CutThrough.model_validate(wanted(views=views)))
        for wrong in ({"views": []}, {"views": [{"at": 0}, {"at": 0}]}, {"first": FRAME}):
            with self.assertRaises(ValueError):
                CutThrough.model_validate(wanted(**wrong))

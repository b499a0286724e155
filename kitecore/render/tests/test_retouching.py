"""Strokes on real files: a shot that wanders over a photograph with a spot that was not there."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any, Final
from unittest import TestCase

import av
import cv2
import numpy as np
import skimage.data
from numpy.typing import NDArray
from PIL import Image

from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused
from kitecore.media.tests.material import ingested
from kitecore.render.extract import content_key
from kitecore.render.frame import covered_at, render
from kitecore.render.retouching import stroke_source
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.ticks import Span

FRAME: Final = SECOND // 30
COUNT: Final = 40
SPOT: Final = np.array([300.0, 150.0])
"""In pixels of the photograph, which is 600 × 400."""
RADIUS: Final = 5
AWAY: Final = range(24, 30)
"""Frames in which something passes before the spot."""


def photograph(*, spoilt: bool) -> NDArray[np.uint8]:
    picture = skimage.data.coffee().copy()
    if spoilt:
        cv2.circle(picture, SPOT.astype(int).tolist(), RADIUS, (20, 90, 200), -1, cv2.LINE_AA)
    return np.asarray(picture)


def corner(number: int) -> NDArray[np.float64]:
    """Where the upper left of the frame lies on the photograph."""
    return np.array([180 + 1.7 * number, 20 + 25 * np.sin(number / 9)])


def frame(number: int, *, spoilt: bool, passes: bool = True) -> NDArray[np.uint8]:
    x, y = corner(number)
    shift = np.array([[1, 0, -x], [0, 1, -y]])
    shot = cv2.warpAffine(photograph(spoilt=spoilt), shift, SIZE, flags=cv2.INTER_LINEAR)
    if passes and number in AWAY:
        left = int(spot(number)[0]) - 45
        shot[:, max(left, 0) : left + 90] = (150, 40, 150)
    return np.asarray(shot)


def spot(number: int) -> NDArray[np.float64]:
    """In pixels of the frame."""
    return np.asarray(SPOT - corner(number))


def heights(pixels: NDArray[np.float64]) -> list[float]:
    return [float(one) for one in (pixels + 0.5 - np.array(SIZE) / 2) / SIZE[1]]


def box(number: int, half: float) -> dict[str, Any]:
    corners = [spot(number) + np.array(one) * half for one in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
    return {"at": number * FRAME, "corners": [heights(one) for one in corners]}


class RetouchedFilm(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        scene = Scene(cls.root)
        scene.video(
            "shot",
            frames=COUNT,
            options={"preset": "ultrafast", "crf": "10"},
            draw=lambda number: av.VideoFrame.from_ndarray(
                frame(number, spoilt=True), format="rgb24"
            ),
        )
        Image.fromarray(photograph(spoilt=True)).save(cls.root / "x", "PNG")
        ingested(cls.root, "photo", cls.root / "x")

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def placed(self, take: str) -> Any:
        self.scene.place(take, COUNT / 30)
        return self.clip

    @property
    def clip(self) -> Any:
        return self.scene.document.main.clips[0]

    def stroke(self, kind: str, **more: Any) -> dict[str, Any]:
        """A tap on the spot as it is in the first frame."""
        point = heights(spot(0))
        return {"kind": kind, "points": [point], "width": 22 / SIZE[1], "softness": 0.3, **more}

    def add(self, *strokes: dict[str, Any]) -> None:
        self.scene.do(kind="add_parts", clips=[self.clip.id], list="strokes", parts=list(strokes))

    def along(self) -> None:
        """All strokes go along with the surroundings of the spot."""
        tracked = {"change": "turns", "views": [box(0, 20)]}
        tracked |= {"first": 0, "last": (COUNT - 1) * FRAME}
        ids = [one.id for one in self.clip.strokes]
        self.scene.do(
            kind="strokes_along", clip=self.clip.id, strokes=ids, tracked=tracked, since=0
        )

    def shown(self, number: int) -> NDArray[np.uint8]:
        return render(self.scene.document, number * FRAME, SIZE, self.sources)[..., :3]

    def around(self, picture: NDArray[Any], number: int) -> NDArray[np.float64]:
        x, y = np.rint(spot(number)).astype(int)
        return np.asarray(picture[y - 12 : y + 13, x - 12 : x + 13], np.float64)

    def off(self, number: int) -> float:
        """Mean difference from the clean shot around the spot."""
        gap = self.shown(number).astype(float) - frame(number, spoilt=False)
        return float(np.abs(self.around(gap, number)).mean())


class RetouchedTest(RetouchedFilm):
    def source(self, frame_number: int = 0) -> Any:
        stroke = self.stroke("heal_stroke")
        tick = frame_number * FRAME
        found = stroke_source(self.scene.document, self.clip.id, tick, stroke, self.sources)
        return found["source"]

    def test_one_stroke_heals_a_whole_moving_take(self) -> None:
        self.placed("shot")
        spoilt = {number: self.off(number) for number in (0, 10, 20, 39)}
        self.add(self.stroke("heal_stroke", source=self.source()))
        self.along()
        for number, before in spoilt.items():
            self.assertGreater(before, 12)
            self.assertLess(self.off(number), 0.3 * before, number)

    def test_without_a_tracker_it_stays_where_it_was_painted(self) -> None:
        self.placed("shot")
        plain = self.shown(20)
        self.add(self.stroke("heal_stroke", source=(0.1, 0.05)))
        x, y = np.rint(spot(0)).astype(int)
        changed = np.abs(self.shown(20).astype(int) - plain).max(axis=2) > 2
        rows, columns = np.nonzero(changed)
        self.assertLess(np.hypot(columns - x, rows - y).max(), 18)

    def test_what_passes_before_it_is_not_marred(self) -> None:
        self.placed("shot")
        self.add(self.stroke("heal_stroke", source=self.source()))
        plain = {number: frame(number, spoilt=True) for number in AWAY}
        self.along()
        for number in AWAY:
            gap = np.abs(self.around(self.shown(number).astype(float) - plain[number], number))
            self.assertLess(gap.mean(), 4, number)
        self.assertLess(self.off(AWAY.stop + 4), 6)

    def test_healed_parts_flicker_no_more_than_the_take(self) -> None:
        self.placed("shot")
        self.add(self.stroke("heal_stroke", source=self.source()))
        self.along()

        def steps(shots: list[NDArray[Any]]) -> float:
            """Mean change of the middle of the spot from frame to frame, where it should stay."""
            cuts = [self.around(shot, number)[8:17, 8:17] for number, shot in enumerate(shots)]
            means = np.array([cut.mean(axis=(0, 1)) for cut in cuts])
            return float(np.abs(np.diff(means, axis=0)).mean())

        clean = steps([frame(number, spoilt=False) for number in range(16)])
        self.assertLess(steps([self.shown(number) for number in range(16)]), clean + 1.0)

    def test_a_hole_is_closed_once_and_goes_along(self) -> None:
        self.placed("shot")
        before = {number: self.off(number) for number in (0, 15, 35)}
        self.add(self.stroke("fill_stroke"))
        self.along()
        for number in before:
            self.assertLess(self.off(number), 0.35 * before[number], number)

    def test_a_still_is_mended_and_only_there(self) -> None:
        self.placed("photo")
        plain = self.shown(0)
        x, y = SPOT * SIZE[0] / 600
        y += (SIZE[1] - 400 * SIZE[0] / 600) / 2
        point = [float((SPOT[0] + 0.5 - 300) / 400), float((SPOT[1] + 0.5 - 200) / 400)]
        self.add(self.stroke("heal_stroke", points=[point], width=0.06, source=(0.12, 0.06)))
        healed = self.shown(0)
        rows, columns = np.nonzero(np.abs(healed.astype(int) - plain).max(axis=2) > 1)
        self.assertLess(np.hypot(columns - x, rows - y).max(), 9)
        blue = healed[int(y), int(x), 2].astype(int) - healed[int(y), int(x), 0]
        self.assertLess(blue, 0)

    def test_all_strokes_are_put_out_of_sight_together_or_one_by_one(self) -> None:
        self.placed("photo")
        plain = self.shown(0)
        self.add(self.stroke("light_stroke"), self.stroke("clone_stroke"))
        self.assertGreater(np.abs(self.shown(0).astype(int) - plain).max(), 5)
        self.scene.do(kind="adjust", clips=[self.clip.id], values={"retouched": False})
        np.testing.assert_array_equal(plain, self.shown(0))
        self.scene.do(kind="adjust", clips=[self.clip.id], values={"retouched": True})
        for stroke in self.clip.strokes:
            values = {"on": False}
            self.scene.do(
                kind="set_part", clips=[self.clip.id], list="strokes", part=stroke.id, values=values
            )
        np.testing.assert_array_equal(plain, self.shown(0))

    def test_order_matters_and_can_be_changed(self) -> None:
        self.placed("photo")
        self.add(
            self.stroke("light_stroke", stops=-2.0), self.stroke("clone_stroke", source=(0.2, 0.0))
        )
        first = self.shown(0)
        darkens = self.clip.strokes[0].id
        self.scene.do(kind="order_part", clips=[self.clip.id], list="strokes", part=darkens, to=1)
        self.assertLess(self.shown(0).astype(int).sum(), first.astype(int).sum())

    def test_strokes_work_before_the_grade(self) -> None:
        self.placed("photo")
        self.add(self.stroke("clone_stroke", source=(0.2, 0.1)))
        grade = {"light": {"exposure": 1.0}}
        plain = self.shown(0)
        self.scene.do(kind="adjust", clips=[self.clip.id], values={"grade": grade})
        graded = self.shown(0)
        part = np.s_[130:190, 60:120]
        self.assertGreater(graded[part].mean(), plain[part].mean() + 10)

    def test_a_piece_is_made_anew_when_its_strokes_or_their_way_change(self) -> None:
        self.placed("shot")
        span = Span(0, 10 * FRAME)

        def key(heard: bool = False) -> str:
            return content_key(self.scene.document, span, self.scene.find, heard=heard)

        keys, heard = [key()], key(heard=True)
        self.add(self.stroke("heal_stroke"))
        keys.append(key())
        self.along()
        keys.append(key())
        path = f"trackers/{self.clip.trackers[0].id}/smooth"
        self.scene.do(kind="adjust", clips=[self.clip.id], values={path: 0.5})
        keys.append(key())
        self.assertEqual(4, len(set(keys)))
        self.assertEqual(heard, key(heard=True))

    def test_a_retouched_video_still_counts_as_covering_nothing_it_does_not(self) -> None:
        self.placed("shot")
        self.add(self.stroke("heal_stroke"))
        covered = covered_at(self.scene.document, 0, SIZE, self.sources)
        self.assertTrue(covered is None or covered.all())

    def test_what_is_no_picture_of_a_take_is_refused(self) -> None:
        solid = {"kind": "solid", "length": SECOND}
        self.scene.do(kind="place", clip=solid, mode="end", at=0)
        with self.assertRaisesRegex(EditRefused, "no picture of a take"):
            self.add(self.stroke("heal_stroke"))

    def test_a_stroke_whose_tracker_was_removed_stays_where_it_was_painted(self) -> None:
        self.placed("shot")
        self.add(self.stroke("heal_stroke", source=(0.1, 0.05)))
        stays = self.shown(20)
        self.along()
        self.assertGreater(np.abs(self.shown(20).astype(int) - stays).max(), 20)
        tracker = self.clip.trackers[0].id
        self.scene.do(kind="remove_item", clips=[self.clip.id], item=f"trackers/{tracker}")
        np.testing.assert_array_equal(stays, self.shown(20))

"""Holes closed from other frames: somebody walks before a photograph, filmed by a still or a moving hand."""

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

from kitecore.edits.tests.populated import SECOND
from kitecore.picture.retouch.revealing import revealed
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene

FRAME: Final = SECOND // 30
COUNT: Final = 48
SIDE: Final = (44, 70)
"""Of the one who walks, in pixels."""
PAINTED: Final = 24


def corner(number: int, *, held: bool) -> NDArray[np.float64]:
    """Where the upper left of the frame lies on the photograph."""
    return (
        np.array([200.0, 60.0])
        if held
        else np.array([180 + 1.1 * number, 60 + 9 * np.sin(number / 8)])
    )


def walker(number: int, *, held: bool) -> NDArray[np.float64]:
    """The middle of the one who walks, in pixels of the frame."""
    there = np.array([20 + 3.0 * number, 110.0])
    return there if held else there * [0.8, 1.0] + [30, 0]


def clean(number: int, *, held: bool) -> NDArray[np.uint8]:
    x, y = corner(number, held=held)
    shift = np.array([[1, 0, -x], [0, 1, -y]])
    return np.asarray(cv2.warpAffine(skimage.data.coffee(), shift, SIZE, flags=cv2.INTER_CUBIC))


def walks(number: int, *, held: bool) -> NDArray[np.uint8]:
    """With somebody who swings the arms."""
    shot = clean(number, held=held)
    x, y = walker(number, held=held).round().astype(int).tolist()
    wide, high = SIDE
    cv2.rectangle(shot, (x - 10, y - high // 2 + 4), (x + 10, y + high // 2 - 4), (30, 60, 160), -1)
    for side in (-1, 1):
        way = round(0.4 * wide * np.sin(number / 3) * side)
        cv2.line(shot, (x, y - 10), (x + way, y + 15), (200, 170, 60), 5)
    for dot in range(3):
        cv2.circle(shot, (x - 4 + 4 * dot, y - 22 + 18 * dot), 3, (230, 230, 240), -1)
    return shot


def stands(number: int) -> NDArray[np.uint8]:
    """Something that lies there and is taken away after a while."""
    shot = clean(number, held=True)
    if number < 30:
        cv2.circle(shot, (120, 110), 18, (30, 60, 160), -1)
        cv2.circle(shot, (120, 110), 9, (230, 230, 240), -1)
    return shot


def heights(pixels: NDArray[np.float64]) -> list[float]:
    return [float(one) for one in (pixels + 0.5 - np.array(SIZE) / 2) / SIZE[1]]


def box(number: int, middle: NDArray[np.float64], wide: float, high: float) -> dict[str, Any]:
    corners = [(-wide, -high), (wide, -high), (wide, high), (-wide, high)]
    return {
        "at": number * FRAME,
        "corners": [heights(middle + np.array(one) / 2) for one in corners],
    }


class BehindTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        films = {
            "held": lambda number: walks(number, held=True),
            "wanders": lambda number: walks(number, held=False),
            "lies": stands,
        }
        for name, shot in films.items():
            Scene(cls.root).video(
                name,
                frames=COUNT,
                options={"preset": "ultrafast", "crf": "12"},
                draw=lambda number, shot=shot: av.VideoFrame.from_ndarray(
                    shot(number), format="rgb24"
                ),
            )

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    @property
    def clip(self) -> Any:
        return self.scene.document.main.clips[0]

    def wiped(self, take: str, point: NDArray[np.float64], **stroke: Any) -> None:
        """A fill over somebody, from other frames."""
        self.scene.place(take, COUNT / 30)
        points = [heights(point + np.array([0, off])) for off in (-22, 0, 22)]
        whole = {
            "kind": "fill_stroke",
            "taken_from": "moments",
            "points": points,
            "width": 44 / SIZE[1],
            "softness": 0.2,
            "since": PAINTED * FRAME,
            **stroke,
        }
        self.scene.do(kind="add_parts", clips=[self.clip.id], list="strokes", parts=[whole])

    def follow(self, role: str, *views: dict[str, Any], **more: int) -> None:
        """Something new is followed, and is the stroke's ``tracker``, or what is ``behind`` it."""
        whole = {"first": 0, "last": (COUNT - 1) * FRAME}
        item = {"change": "moves", "views": views, **whole, **more}
        self.scene.do(kind="add_item", clips=[self.clip.id], list="trackers", item=item)
        self.set(**{role: self.clip.trackers[-1].id})

    def set(self, **values: Any) -> None:
        stroke = self.clip.strokes[0].id
        part = {"list": "strokes", "part": stroke, "values": values}
        self.scene.do(kind="set_part", clips=[self.clip.id], **part)

    def shown(self, number: int) -> NDArray[np.float64]:
        picture = render(self.scene.document, number * FRAME, SIZE, self.sources)
        return picture[..., :3].astype(np.float64)

    def off(self, number: int, *, held: bool) -> float:
        """Mean difference from the clean shot where somebody walks."""
        x, y = walker(number, held=held).round().astype(int)
        wide, high = SIDE
        part = np.s_[y - high // 2 : y + high // 2, max(x - wide // 2, 0) : x + wide // 2]
        return float(np.abs(self.shown(number)[part] - clean(number, held=held)[part]).mean())

    def test_who_walks_before_a_held_camera_is_gone_in_each_frame(self) -> None:
        self.wiped("held", walker(PAINTED, held=True))
        self.follow("tracker", *self.seen(held=True))
        for number in (6, 15, PAINTED, 33, 42):
            self.assertLess(self.off(number, held=True), 4.0, number)

    def test_a_camera_that_moves_is_told_by_what_lies_behind(self) -> None:
        self.wiped("wanders", walker(PAINTED, held=False))
        self.follow("tracker", *self.seen(held=False))
        wall = np.array([290.0, 290.0])
        middles = {at: wall - corner(at, held=False) for at in range(0, COUNT, 8)}
        self.follow("behind", *(box(at, one, 60, 40) for at, one in middles.items()))
        for number in (6, 15, PAINTED, 33, 42):
            self.assertLess(self.off(number, held=False), 6.0, number)

    def seen(self, *, held: bool) -> list[dict[str, Any]]:
        """Where a person marked the one who walks: the arms swing, so now and then."""
        return [box(at, walker(at, held=held), 26, 62) for at in range(0, COUNT, 6)]

    def test_what_lies_there_only_for_a_while_is_told_by_when_it_is_gone(self) -> None:
        self.wiped("lies", np.array([120.0, 110.0]), points=[heights(np.array([120.0, 110.0]))])
        part = np.s_[90:130, 100:140]
        for number in (0, 20, 40):
            gap = np.abs(self.shown(number)[part] - clean(number, held=True)[part])
            self.assertLess(gap.mean(), 4.0, number)

    def test_what_no_frame_shows_is_closed_from_around(self) -> None:
        point = np.array([60.0, 40.0])
        self.wiped("held", point, points=[heights(point)])
        from_moments = self.shown(PAINTED)
        self.set(taken_from="around")
        np.testing.assert_array_equal(from_moments, self.shown(PAINTED))

    def test_what_was_trimmed_away_tells_nothing(self) -> None:
        """Beyond it the one who walks is not covered: it is as if nothing were followed there."""
        self.wiped("held", walker(PAINTED, held=True))
        views = [view for view in self.seen(held=True) if 12 * FRAME <= view["at"] <= 34 * FRAME]
        shown = []
        ends = {"begins": 12 * FRAME, "ends": 34 * FRAME}
        for more in (ends, {"first": ends["begins"], "last": ends["ends"]}):
            self.follow("tracker", *views, **more)
            shown.append(self.shown(PAINTED))
        np.testing.assert_array_equal(*shown)
        self.assertLess(self.off(PAINTED, held=True), 5.0)

    def test_a_tracker_that_is_gone_means_that_it_stands_still(self) -> None:
        self.wiped("held", walker(PAINTED, held=True), behind="gone")
        self.follow("tracker", *self.seen(held=True))
        self.assertLess(self.off(33, held=True), 4.0)

    def test_a_pixel_comes_from_the_first_that_agrees_with_most(self) -> None:
        rows = np.array([10, 200, 12, 14, 11], np.uint8)
        samples = np.zeros((5, 4, 4, 4), np.uint8)
        samples[..., :3] = rows[:, None, None, None]
        samples[..., 3] = 255
        free = np.ones((5, 4, 4), np.bool_)
        free[0, :2] = False
        free[:, 3] = False
        # Lights differ by what they differ by where both are free: those rows alone are alike.
        picture, known = revealed(samples, free)
        self.assertFalse(known[3].any())
        self.assertTrue(known[:3].all())
        self.assertEqual(10, picture[2, 0, 0])

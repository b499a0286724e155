"""A shot that wanders, held by what is followed in it: what it shows stands still."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import cv2
import numpy as np
import skimage.data
from numpy.typing import NDArray

from kitecore.edits.tests.populated import SECOND
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.layers import extents
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.ticks import Span

FRAME = SECOND // 30
COUNT = 40


def way(number: int) -> NDArray[np.float64]:
    """From the photograph to the frame: a hand that shakes and turns."""
    turn = np.radians(4 * np.sin(number / 5))
    x, y = 6 * np.sin(number / 3), 9 * np.sin(number / 7 + 1) - 9 * np.sin(1)
    cos, sin = np.cos(turn), np.sin(turn)
    middle = np.array([90.0, 160.0])
    there = np.array([[cos, -sin], [sin, cos]])
    shift = middle + np.array([x, y]) - there @ (middle + np.array([200, 40]))
    return np.column_stack([there, shift])


def frame(number: int) -> av.VideoFrame:
    shot = cv2.warpAffine(skimage.data.coffee(), way(number), SIZE, borderMode=cv2.BORDER_REFLECT)
    return av.VideoFrame.from_ndarray(np.asarray(shot), format="rgb24")


class SteadyTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        options = {"preset": "ultrafast", "crf": "12"}
        Scene(cls.root).video("shaken", frames=COUNT, options=options, draw=frame)

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)
        self.scene.place("shaken", COUNT / 30)
        corners = [(-0.15, -0.15), (0.15, -0.15), (0.15, 0.15), (-0.15, 0.15)]
        tracker = {"views": [{"at": 0, "corners": corners}], "first": 0, "last": 39 * FRAME}
        self.scene.do(kind="add_item", clips=[self.clip.id], list="trackers", item=tracker)

    @property
    def clip(self) -> Any:
        return self.scene.document.main.clips[0]

    def hold(self, **how: Any) -> None:
        steady = {"tracker": self.clip.trackers[0].id, **how}
        self.scene.do(kind="adjust", clips=[self.clip.id], values={"steady": steady})

    def shown(self, number: int) -> NDArray[np.float64]:
        picture = render(self.scene.document, number * FRAME, SIZE, self.sources)
        return picture[..., :3].astype(float)

    def off(self, number: int) -> float:
        """Mean difference from the first frame in the middle."""
        part = np.s_[60:260, 30:150]
        return float(np.abs(self.shown(number) - self.shown(0))[part].mean())

    def test_what_it_shows_stands_still(self) -> None:
        shaken = [self.off(number) for number in (7, 15, 33)]
        self.hold(closer=False)
        for number, before in zip((7, 15, 33), shaken, strict=True):
            self.assertLess(self.off(number), 0.3 * before, number)

    def test_in_its_place_only_it_still_turns(self) -> None:
        self.hold(closer=False, takes=["position"])
        turning = self.off(7)
        self.hold(closer=False)
        self.assertLess(self.off(7), 0.6 * turning)

    def test_it_comes_as_close_as_hides_its_edges_and_no_closer(self) -> None:
        self.scene.do(kind="adjust", clips=[self.clip.id], values={"place/size": [1, 1]})
        for closer, seen in ((False, True), (True, False)):
            self.hold(closer=closer)
            black = [
                int((self.shown(number).max(axis=2) < 3).sum()) for number in range(0, COUNT, 3)
            ]
            self.assertEqual(seen, max(black) > 200, black)
        size = extents(self.scene.document, 0, self.sources)["moved"][self.clip.id]
        self.assertGreater(size[0], 1.05)
        self.assertLess(size[0], 1.4)

    def test_where_it_lies_is_told_for_its_handles(self) -> None:
        self.assertEqual({}, extents(self.scene.document, 7 * FRAME, self.sources)["moved"])
        self.hold(closer=False)
        moved = extents(self.scene.document, 7 * FRAME, self.sources)["moved"][self.clip.id]
        turn = np.degrees(np.arctan2(moved[1], moved[0]))
        self.assertAlmostEqual(-4 * np.sin(7 / 5), turn, delta=0.4)

    def test_without_its_tracker_nothing_holds_it(self) -> None:
        plain = self.shown(9)
        self.hold()
        self.assertGreater(np.abs(self.shown(9) - plain).mean(), 3)
        tracker = self.clip.trackers[0].id
        self.scene.do(kind="remove_item", clips=[self.clip.id], item=f"trackers/{tracker}")
        np.testing.assert_array_equal(plain, self.shown(9))

    def test_pieces_are_made_anew_when_what_holds_it_changes(self) -> None:
        def key() -> str:
            return content_key(self.scene.document, Span(0, 9 * FRAME), self.scene.find)

        keys = [key()]
        self.hold()
        keys.append(key())
        path = f"trackers/{self.clip.trackers[0].id}/smooth"
        self.scene.do(kind="adjust", clips=[self.clip.id], values={path: 0.5})
        keys.append(key())
        self.assertEqual(3, len(set(keys)))

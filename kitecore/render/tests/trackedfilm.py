"""A film with a thing that is followed, whose way is known."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any, Final
from unittest import TestCase

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.edits.tests.populated import SECOND
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.tracking.quads import Quad, between, carried
from kitecore.tracking.tests import scenes

FRAME: Final = SECOND // 30
COUNT: Final = 50
LINES: Final = scenes.SIZE[1]
SCALE: Final = SIZE[1] / LINES


def view(quad: Quad, number: int) -> dict[str, Any]:
    corners = (quad - np.array(scenes.SIZE) / 2) / LINES
    return {"at": number * FRAME, "corners": corners.tolist()}


def made_video(made: scenes.Scene, number: int) -> av.VideoFrame:
    grey = made.frame(number)
    return av.VideoFrame.from_ndarray(cv2.cvtColor(grey, cv2.COLOR_GRAY2RGB), format="rgb24")


def turning(degrees: float) -> NDArray[np.float64]:
    cos, sin = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    return np.array([[cos, -sin], [sin, cos]])


class TrackedFilm(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        scene = Scene(cls.root)
        cls.made = {change: scenes.Scene(change) for change in ("turns", "leans")}
        for name, made in cls.made.items():
            scene.video(
                name,
                frames=COUNT,
                size=scenes.SIZE,
                options={"preset": "ultrafast", "crf": "20"},
                draw=lambda number, made=made: made_video(made, number),
            )
        scene.still("red", (255, 0, 0, 255), (30, 40))

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def tracked(self, take: str, **how: Any) -> str:
        """A clip of a take with a tracker on its thing; the id of the clip."""
        self.scene.place(take, COUNT / 30, **how)
        clip = self.scene.document.main.clips[0]
        tracker = {
            "change": take,
            "views": [view(self.made[take].quad(0), 0)],
            "first": 0,
            "last": (COUNT - 1) * FRAME,
        }
        self.scene.do(kind="add_item", clips=[clip.id], list="trackers", item=tracker)
        [self.thing] = [one.id for one in self.scene.document.main.clips[0].trackers]  # type: ignore[attr-defined]
        return clip.id

    def put(self, leader: str, **place: Any) -> str:
        """The red still above, following from the first frame on."""
        self.scene.place("red", COUNT / 30, mode="above", place={"fit": "own", **place})
        [red] = [c for _, c in self.scene.document.clips() if c.name == "red"]
        self.scene.do(kind="follow", clips=[red.id], leader=leader, tracker=self.thing, at=0)
        return red.id

    def reds(self, number: int) -> NDArray[np.bool_]:
        picture = render(self.scene.document, number * FRAME, SIZE, self.sources)
        return np.asarray((picture[..., 0] > 150) & (picture[..., 1] < 90))

    def middle(self, number: int) -> NDArray[np.float64]:
        """Of what is red, in pixels of the canvas."""
        rows, columns = np.nonzero(self.reds(number))
        return np.array([columns.mean() + 0.5, rows.mean() + 0.5])

    def there(self, take: str, number: int) -> NDArray[np.float64]:
        return np.asarray(self.made[take].quad(number).mean(axis=0) * SCALE)

    def on_thing(self, take: str) -> tuple[float, float]:
        x, y = self.there(take, 0) - np.array(SIZE) / 2
        return float(x), float(y)

    def middle_of(self, spot: NDArray[np.float64], number: int) -> NDArray[np.float64]:
        """Where a spot of the first frame (heights, from the middle) is in another, on the canvas."""
        made = self.made["turns"]
        change = between("turns", made.quad(0), made.quad(number))
        there = carried(change, spot[None] * LINES + np.array(scenes.SIZE) / 2)
        return np.asarray(there[0] * SCALE)

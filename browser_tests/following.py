"""A thing that moves by a known way, followed in a video on a phone."""

from __future__ import annotations

from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray
from selenium.webdriver.common.action_chains import ActionChains

from browser_tests.one_take import OneTakeTest
from kitecore.document import Pictured
from kitecore.media.tests.material import make_video
from kitecore.render.tests.trackedfilm import made_video
from kitecore.tracking.tests import scenes

COUNT: Final = 45
WIDE, HIGH = scenes.SIZE


class FollowingCase(OneTakeTest):
    shape = scenes.SIZE
    frames = COUNT

    def scenery(self) -> scenes.Scene:
        return scenes.Scene("turns")

    def made(self, folder: Path) -> Path:
        self.scene = self.scenery()
        return make_video(
            folder / "sign.mp4",
            frames=COUNT,
            size=scenes.SIZE,
            options={"preset": "ultrafast", "crf": "18"},
            draw=lambda number: made_video(self.scene, number),
        )

    def onto(self, name: str, spot: NDArray[np.float64]) -> None:
        """Drag a handle to a spot of the picture, in its pixels."""
        box = self.browser.run(
            "const box = document.querySelector('svg.tracks').getBoundingClientRect();"
            "return [box.x, box.y, box.width]"
        )
        to = np.array(box[:2]) + spot * box[2] / WIDE
        handle = self.browser.test(name)
        at = handle.rect
        middle = (at["x"] + at["width"] / 2, at["y"] + at["height"] / 2)
        by = [round(float(b - a)) for a, b in zip(middle, to, strict=True)]
        ActionChains(self.browser.driver).drag_and_drop_by_offset(handle, *by).perform()

    def followed(self) -> None:
        """Take the video in hand, lay the frame over the thing, and follow it."""
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-follow")
        page.press("track-turns")
        quad = self.scene.quad(0)
        self.onto("track-thing", quad.mean(axis=0))
        self.onto("track-corner-2", quad[2])
        page.press("follow-it")
        page.wait(lambda: len(self.clip.trackers) == 1, what="nothing was followed")

    def follower(self, name: str) -> str | None:
        """The tracker that a clip follows."""
        for _, clip in self.document().clips():
            if isinstance(clip, Pictured) and clip.name == name and clip.moves.follow:
                return clip.moves.follow.tracker
        return None

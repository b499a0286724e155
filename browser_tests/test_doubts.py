"""On a phone: why what is followed is lost is told there, and covers that became too weak are mended."""

from __future__ import annotations

import numpy as np

from browser_tests.following import FollowingCase
from kitecore.tracking.flow import Grey
from kitecore.tracking.quads import Quad
from kitecore.tracking.tests import scenes

DARK = 30
"""The frame from which on nothing is seen any more."""


def dark(frame: Grey, number: int, quad: Quad) -> Grey:
    return frame if number < DARK else np.full_like(frame, 16)


class DoubtsTest(FollowingCase):
    def scenery(self) -> scenes.Scene:
        return scenes.Scene("turns", dark)

    def test_reasons_are_told_and_a_weak_cover_is_mended(self) -> None:
        page = self.browser
        self.followed()
        self.assertIn("Not sure in one stretch", page.test("track-told").text)
        self.assertNotIn("nothing", page.test("track-help").text)
        page.press("doubt-next")
        page.wait(lambda: page.frame() == DARK, what="it does not go there")
        self.assertIn("Next to nothing is to be seen here.", page.test("track-help").text)
        page.press("doubt-mark")
        page.press("control-Cover")
        page.press("cover-it")
        page.wait(lambda: self.follower("Cover"), what="nothing was covered")
        [cover] = [clip for clip in self.others() if clip.name == "Cover"]
        part = {"clips": [cover.id], "list": "effects", "part": cover.effects[0].id}  # type: ignore[attr-defined]
        self.do(kind="set_part", **part, values={"side": 2.0})
        page.driver.refresh()
        page.press("stage-send")
        page.press("send-check")
        said = "can be made out again"
        page.wait(lambda: said in self.told(), 60, "it is not told")
        page.press("mend-finding")
        page.wait(lambda: said not in self.told(), 60, "it is not mended")
        # That it is lost in the dark is a doubt that stays.
        self.assertIn("is not found", self.told())
        self.assert_clean_console()

    def told(self) -> str:
        return " ".join(one.text for one in self.browser.all("[data-test=finding]"))

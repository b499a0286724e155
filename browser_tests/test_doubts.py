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
        # What lies a little below is covered, not the thing itself.
        page.press("control-Below")
        for hundredths in (0.5, 1.0, 1.5, 2.0):
            page.press("more")
            aside = (0, hundredths / 100)
            page.wait(
                lambda aside=aside: self.clip.trackers[0].aside == aside, what="it is not set"
            )
        page.press("control-Cover")
        page.press("cover-it")
        page.wait(lambda: self.follower("Cover"), what="nothing was covered")
        [cover] = [clip for clip in self.others() if clip.name == "Cover"]
        last = self.scene.quad(DARK - 1).mean(axis=0)
        wanted = (last - np.array(scenes.SIZE) / 2) / scenes.SIZE[1] + (0, 0.02)
        np.testing.assert_allclose(wanted, cover.masks[0].centre, atol=0.01)  # type: ignore[attr-defined]
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

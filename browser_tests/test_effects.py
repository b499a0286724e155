"""On a phone: effects are chosen by their moving pictures, one is led by a wave; the film shows them."""

from __future__ import annotations

from pathlib import Path

import av
import numpy as np

from browser_tests.one_take import OneTakeTest
from kitecore.document.properties import NumberKeys
from kitecore.media.tests.material import decoded, make_video

SIZE = (270, 480)


def sheet(number: int) -> av.VideoFrame:
    """An even light grey."""
    return av.VideoFrame.from_ndarray(np.full((SIZE[1], SIZE[0], 3), 190, np.uint8), format="rgb24")


class EffectsTest(OneTakeTest):
    shape = SIZE
    frames = 30

    def made(self, folder: Path) -> Path:
        return make_video(folder / "sheet.mp4", frames=30, size=SIZE, draw=sheet)

    def choose(self) -> None:
        self.browser.press("find-effect")
        self.browser.dialog()

    def kinds(self) -> list[str]:
        return [effect.kind for effect in self.clip.effects]

    def test_a_sheet_bursts_and_has_two_tones(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-effects")
        self.choose()
        page.press("family-form")
        page.wait(
            lambda: page.all("[data-test=effect-shards] img.there"), what="nothing moves in it"
        )
        page.press("effect-shards")
        page.wait(lambda: self.kinds() == ["shards"], what="nothing was added")

        # A favourite is found again under its own family.
        self.choose()
        page.find("[data-test=effect-threshold] + .star").click()
        page.press("family-favourites")
        page.wait(lambda: len(page.all("[data-test^=effect-] .frame")) == 1, what="not alone")
        page.press("effect-threshold")
        page.wait(lambda: self.kinds() == ["shards", "threshold"], what="it was not added")

        self.kept_and_given_again()
        page.press("control-Led")
        page.press("drive")
        page.dialog()
        page.find(".modal.show [data-test=drive-value]").send_keys("Soft")
        page.run(
            "[...document.querySelectorAll('.modal.show button')]"
            ".find((one) => one.textContent.trim() === 'wave').click()"
        )
        page.confirm()
        page.wait(lambda: isinstance(self.soft(), NumberKeys), what="it has no keys")
        self.assert_clean_console()
        self.check(self.exported())

    def kept_and_given_again(self) -> None:
        page = self.browser
        page.press("control-Effects")
        page.find("[data-test=effects-more] button").click()
        page.press("keep-effects")
        page.dialog()
        page.type(".modal.show [data-test=new-name]", "Two tones")
        page.confirm()
        page.wait(lambda: not page.all(".modal.show"), what="the dialog stays")
        page.find("[data-test=effects-more] button").click()
        page.press("effects-Two tones")
        page.wait(lambda: self.kinds() == ["shards", "threshold"] * 2, what="they were not added")
        page.press("undo")
        page.wait(lambda: self.kinds() == ["shards", "threshold"], what="they were not taken back")

    def soft(self) -> object:
        return self.clip.effects[1].soft

    def check(self, film: Path) -> None:
        shots = decoded(film)
        self.assertEqual(30, len(shots))
        # In its middle it has burst; the rest of it is lighter than the level: white.
        self.assertLess(shots[15][200:280, 100:170].mean(), 12)
        self.assertGreater(np.percentile(shots[15], 95), 245)

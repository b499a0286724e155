"""On a phone: a thing is followed, a layer goes along with it, it is covered, and the film is sent."""

from __future__ import annotations

from pathlib import Path
from typing import Final

import av
import cv2
import numpy as np
from numpy.typing import NDArray
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from browser_tests.following import COUNT, HIGH, WIDE, FollowingCase
from kitecore.media.tests.material import decoded
from kitecore.tracking.spots import spots_at
from studio.exports.models import Export
from studio.tests.site import SECOND

MARK: Final = 40
"""Pixels of the red square that goes along."""


class FollowingTest(FollowingCase):
    def setUp(self) -> None:
        super().setUp()
        square = {"kind": "rectangle", "size": [MARK, MARK]}
        x, y = self.scene.quad(0).mean(axis=0) - (WIDE / 2, HIGH / 2)
        mark = {
            "kind": "shape",
            "name": "mark",
            "form": square,
            "fill": {"kind": "plain", "colour": "#ff0000"},
            "place": {"position": [x, y]},
            "length": COUNT * SECOND // 30,
        }
        self.do(kind="place", clip=mark, mode="above", at=0)
        self.browser.driver.refresh()

    def test_a_thing_is_followed_marked_and_covered(self) -> None:
        page = self.browser
        self.followed()
        self.assertIn("Found in every frame", page.test("track-told").text)

        # The square goes along by one tap, a cover lies over the thing.
        page.press("control-Go along")
        page.press("goes-along")
        page.wait(lambda: self.follower("mark") is not None, what="nothing goes along")
        page.press("control-Cover")
        page.press("cover-it")
        page.wait(lambda: self.follower("Cover") is not None, what="nothing was covered")
        self.assert_clean_console()
        self.check(self.exported())
        self.sent_square()

        # A mask goes along as well.
        page.press("stage-layer")
        page.press("layer-part-masks")
        page.press("add-mask")
        page.press("mask-ellipse")
        page.wait(lambda: self.clip.masks, what="no mask was added")
        page.press("control-Goes along")
        choice = page.test("mask-along")
        choice.find_elements("css selector", "option")[1].click()
        tracker = self.clip.trackers[0].id
        page.wait(lambda: self.clip.masks[0].tracker == tracker, what="the mask stays")
        self.assert_clean_console()

        # The clip is held by the thing: it stays where it is.
        page.press("layer-part-follow")
        page.press("control-Steady")
        page.find("[data-test=steady] + label").click()
        page.wait(lambda: self.clip.steady, what="nothing holds the clip")
        page.press("control-Closer")
        page.find("[data-test=steady-closer] + label").click()
        page.wait(lambda: not self.clip.steady.closer, what="it is still closer")
        self.assert_clean_console()

    def test_several_spots_tell_the_way_of_what_goes_along(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-follow")
        page.press("track-points")
        self.assertFalse(page.test("follow-it").is_enabled())
        shares = np.array([[0.15, 0.12], [0.85, 0.15], [0.85, 0.88], [0.15, 0.88]])
        for spot in spots_at(self.scene.quad(0), shares):
            self.tap(spot)
        # One too many is taken back; the last of the others is moved by keys, and back.
        self.tap(self.scene.quad(0).mean(axis=0))
        page.press("last-spot-back")
        knob = page.test("spot-3")
        for key in (Keys.ARROW_LEFT, Keys.ARROW_RIGHT):
            knob.send_keys(key)
        page.press("follow-it")
        page.wait(lambda: len(self.clip.trackers) == 1, what="nothing was followed")
        [tracker] = self.clip.trackers
        self.assertEqual(("turns", 4), (tracker.change, len(tracker.spots)))
        self.assertIn("Found in every frame", page.test("track-told").text)
        self.assertEqual(4, len(page.all("svg.tracks .spot")))
        page.press("control-Go along")
        page.press("goes-along")
        page.wait(lambda: self.follower("mark") is not None, what="nothing goes along")
        self.assert_clean_console()
        self.check_square(frames_of(self.exported()))

    def tap(self, spot: NDArray[np.float64]) -> None:
        """Tap the picture at a spot, in its pixels."""
        surface = self.browser.test("spots-surface")
        box = surface.rect
        x, y = spot * box["width"] / WIDE - np.array([box["width"], box["height"]]) / 2
        chain = ActionChains(self.browser.driver)
        chain.move_to_element_with_offset(
            surface, round(float(x)), round(float(y))
        ).click().perform()

    def sent_square(self) -> None:
        """In another shape the window goes along with the thing."""
        page = self.browser
        page.press("send-file")
        page.press("control-Shape")
        page.press("shape-1-1")
        page.press("control-Lies in it")
        page.press("fit-follow")
        page.press("part-left")
        page.press("export")
        made = Export.objects.filter(job__state="done", settings__fit="follow")
        page.wait(made.exists, 60, "no square film")
        frames = decoded(made.get().path)
        self.assertEqual(COUNT, len(frames))
        side = frames[0].shape[0]
        self.assertEqual((side, side, 3), frames[0].shape)
        scale, long = side / min(WIDE, HIGH), int(HIGH > WIDE)
        for number in (10, 22, 34):
            frame = frames[number].astype(int)
            rows, columns = np.nonzero((frame[..., 0] > 150) & (frame[..., 1] < 90))
            there = (columns, rows)[long].mean()
            where = self.scene.quad(number).mean(axis=0)[long] * scale
            # In the middle, or as near to it as the edges of the canvas let it.
            most = max(WIDE, HIGH) * scale - side
            wanted = where - min(max(where - side / 2, 0), most)
            self.assertAlmostEqual(wanted, there, delta=0.08 * side)

    def check(self, film: Path) -> None:
        frames = frames_of(film)
        for number, middle in self.check_square(frames).items():
            frame, quad = frames[number], self.scene.quad(number)
            inside = np.zeros((HIGH, WIDE), np.uint8)
            cv2.fillConvexPoly(inside, np.rint(quad).astype(np.int32), 1)
            cv2.circle(inside, tuple(np.rint(middle).astype(int).tolist()), MARK, 0, -1)
            self.assertLess(
                _fine(frame)[inside > 0].std(), 0.6 * _fine(self.picture(number))[inside > 0].std()
            )

    def check_square(self, frames: list[NDArray[np.int_]]) -> dict[int, NDArray[np.float64]]:
        """The red square is in the middle of the thing; where it is, by frames."""
        self.assertEqual(COUNT, len(frames))
        found = {}
        for number in (0, 15, 30, COUNT - 1):
            frame, quad = frames[number], self.scene.quad(number)
            rows, columns = np.nonzero((frame[..., 0] > 150) & (frame[..., 1] < 90))
            found[number] = np.array([columns.mean(), rows.mean()]) + 0.5
            self.assertLess(np.hypot(*(found[number] - quad.mean(axis=0))), 3, number)
        return found

    def picture(self, number: int) -> NDArray[np.int_]:
        return np.repeat(self.scene.frame(number)[..., None], 3, axis=2).astype(int)


def frames_of(film: Path) -> list[NDArray[np.int_]]:
    with av.open(str(film)) as container:
        return [one.to_ndarray(format="rgb24").astype(int) for one in container.decode(video=0)]


def _fine(picture: NDArray[np.int_]) -> NDArray[np.float64]:
    """What is finer than a square of the cover."""
    grey = picture.mean(axis=2)
    return np.asarray(grey - cv2.GaussianBlur(grey, (0, 0), 3))

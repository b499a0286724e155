"""Layers that follow what is tracked in a real file: on the picture where the thing is."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np

from kitecore.analysis.track import read_track
from kitecore.document.properties import NumberKeys
from kitecore.document.trackers import Tracked, Tracker, View
from kitecore.errors import EditRefused
from kitecore.media.folder import MediaFolder
from kitecore.motion import value_at
from kitecore.render.driving import driven
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.freeing import freed
from kitecore.render.tests.scene import SIZE
from kitecore.render.tests.trackedfilm import (
    COUNT,
    FRAME,
    LINES,
    SCALE,
    TrackedFilm,
    view,
)
from kitecore.ticks import Span
from kitecore.tracking.tests import scenes


class TrackedTest(TrackedFilm):
    def test_what_is_found_in_a_file_is_where_it_is(self) -> None:
        for take, made in self.made.items():
            wanted = Tracked.model_validate(
                {"change": take, "views": [view(made.quad(20), 20)], "first": 0, "last": 49 * FRAME}
            )
            track = read_track(MediaFolder(self.root / take), wanted)
            self.assertEqual((COUNT, 0), (len(track.quads), track.first))
            for number in range(COUNT):
                quad = track.at(number) * LINES + np.array(scenes.SIZE) / 2
                self.assertLess(np.abs(quad - made.quad(number)).max(), 2.0, (take, number))
            self.assertTrue((track.sure > 128).all())

    def test_a_layer_goes_along(self) -> None:
        self.put(self.tracked("turns"), position=self.on_thing("turns"))
        for number in (0, 12, 30, 49):
            off = np.hypot(*(self.middle(number) - self.there("turns", number)))
            self.assertLess(off, 0.8, number)

    def test_a_tracker_that_is_trimmed_stays_where_it_begins_and_ends(self) -> None:
        leader = self.tracked("turns")
        self.put(leader, position=self.on_thing("turns"))
        ends = {
            f"trackers/{self.thing}/{name}": at
            for name, at in (("begins", 0), ("ends", 20 * FRAME))
        }
        self.scene.do(kind="adjust", clips=[leader], values=ends)
        for number, there in ((12, 12), (20, 20), (35, 20), (49, 20)):
            off = np.hypot(*(self.middle(number) - self.there("turns", there)))
            self.assertLess(off, 0.8, number)
        ends = {
            f"trackers/{self.thing}/{name}": at
            for name, at in (("begins", 60 * FRAME), ("ends", 0))
        }
        self.scene.do(kind="adjust", clips=[leader], values=ends)
        np.testing.assert_allclose(self.middle(0), self.middle(49), atol=0.5)

    def test_it_goes_along_faster_backwards_trimmed_and_moved(self) -> None:
        leader = self.tracked("turns")
        self.put(leader, position=self.on_thing("turns"))
        self.scene.do(kind="set_speed", clips=[leader], factor=2)
        self.assertLess(np.hypot(*(self.middle(10) - self.there("turns", 20))), 0.8)
        self.scene.do(kind="set_speed", clips=[leader], factor=1)
        place = {"place/position": [20, -10], "place/size": [0.8, 0.8]}
        self.scene.do(kind="adjust", clips=[leader], values=place)
        middle = np.array(SIZE) / 2
        for number in (5, 40):
            wanted = (self.there("turns", number) - middle) * 0.8 + (20, -10) + middle
            self.assertLess(np.hypot(*(self.middle(number) - wanted)), 0.8)

    def test_set_free_it_goes_on_by_keys_of_its_own(self) -> None:
        leader = self.tracked("turns")
        red = self.put(leader, position=self.on_thing("turns"), pivot=(8, -5), turn=30)
        numbers = (0, 7, 12, 30, 49)
        before = [render(self.scene.document, n * FRAME, SIZE, self.sources) for n in numbers]
        values = freed(self.scene.document, red, self.sources)
        self.scene.do(kind="adjust", clips=[red], values=values)
        self.scene.do(kind="adjust", clips=[leader], values={"trackers": []})
        for number, was in zip(numbers, before, strict=True):
            now = render(self.scene.document, number * FRAME, SIZE, self.sources)
            off = np.abs(now[..., :3].astype(int) - was[..., :3])
            self.assertLess(float(off.mean()), 0.3, number)
        self.assertLess(len(values["place/position"]["keys"]), COUNT)
        with self.assertRaisesRegex(EditRefused, "follows nothing"):
            freed(self.scene.document, red, self.sources)

    def test_what_leans_in_space_cannot_be_set_free_but_its_place_can(self) -> None:
        leader = self.tracked("leans")
        red = self.put(leader, position=self.on_thing("leans"))
        with self.assertRaisesRegex(EditRefused, "leans in space"):
            freed(self.scene.document, red, self.sources)
        follow = {"kind": "follow", "clips": [red], "leader": leader, "tracker": self.thing}
        self.scene.do(**follow, inherits=["position"], at=0)
        values = freed(self.scene.document, red, self.sources)
        self.assertEqual(0, values["place/turn"])
        self.assertIn("keys", values["place/position"])

    def test_place_alone_leaves_it_upright(self) -> None:
        leader = self.tracked("turns")
        red = self.put(leader, position=self.on_thing("turns"))
        self.scene.do(
            kind="follow",
            clips=[red],
            leader=leader,
            tracker=self.thing,
            inherits=["position"],
            at=0,
        )
        rows, columns = np.nonzero(self.reds(40))
        # A soft edge may or may not count.
        self.assertAlmostEqual(40, np.ptp(rows) + 1, delta=1)
        self.assertAlmostEqual(30, np.ptp(columns) + 1, delta=1)
        self.assertLess(np.hypot(*(self.middle(40) - self.there("turns", 40))), 0.8)

    def test_all_four_corners_go_along_in_perspective(self) -> None:
        leader = self.tracked("leans")
        size = np.ptp(self.made["leans"].quad(0), axis=0) * SCALE / (30, 40)
        low = self.made["leans"].quad(0).min(axis=0) * SCALE
        middle = low + size * (30, 40) / 2 - np.array(SIZE) / 2
        self.put(leader, position=middle.tolist(), size=size.tolist())
        for number in (0, 25, 49):
            quad = self.made["leans"].quad(number) * SCALE
            wanted = cv2.fillConvexPoly(
                np.zeros(SIZE[::-1], np.uint8), np.rint(quad * 16 - 8).astype(np.int32), 1, shift=4
            ).astype(np.bool_)
            red = self.reds(number)
            share = (red & wanted).sum() / (red | wanted).sum()
            self.assertGreater(share, 0.9, number)

    def test_an_even_way_trembles_less(self) -> None:
        views = (View.model_validate(view(self.made["turns"].quad(0), 0)),)
        facts: dict[str, Any] = {"id": "t", "views": views, "first": 0, "last": 49 * FRAME}
        plain, smooth = (
            self.sources.track("turns", Tracker(**facts, smooth=smooth)) for smooth in (0.0, 0.5)
        )
        trembles = [np.abs(np.diff(track.quads, 2, axis=0)).mean() for track in (plain, smooth)]
        self.assertLess(trembles[1], 0.5 * trembles[0])

    def test_what_goes_along_may_lie_aside_of_what_is_followed(self) -> None:
        views = (View.model_validate(view(self.made["turns"].quad(0), 0)),)
        facts: dict[str, Any] = {"id": "t", "views": views, "first": 0, "last": 49 * FRAME}
        plain, aside = (
            self.sources.track("turns", Tracker(**facts, aside=aside))
            for aside in ((0.0, 0.0), (0.1, -0.25))
        )
        apart = (aside.quads - plain.quads).reshape(-1, 2)
        np.testing.assert_allclose(apart, np.tile([0.1, -0.25], (len(apart), 1)), atol=1e-6)
        np.testing.assert_array_equal(plain.sure, aside.sure)

    def test_pieces_depend_on_the_tracker_of_the_leader(self) -> None:
        leader = self.tracked("turns")
        span = Span(0, 10 * FRAME)

        def key() -> str:
            return content_key(self.scene.document, span, self.scene.find)

        alone = key()
        self.scene.do(kind="adjust", clips=[leader], values={f"trackers/{self.thing}/smooth": 1.0})
        self.assertEqual(alone, key())
        self.put(leader)
        before = key()
        self.scene.do(kind="adjust", clips=[leader], values={f"trackers/{self.thing}/smooth": 0.5})
        self.assertNotEqual(before, key())

    def test_a_tracker_that_is_not_there_is_refused_and_one_that_goes_leaves_it_where_it_is(
        self,
    ) -> None:
        leader = self.tracked("turns")
        red = self.put(leader, position=self.on_thing("turns"))
        with self.assertRaises(EditRefused):
            self.scene.do(kind="follow", clips=[red], leader=leader, tracker="other", at=0)
        self.scene.do(kind="remove_item", clips=[leader], item=f"trackers/{self.thing}")
        np.testing.assert_allclose(self.middle(0), self.middle(40), atol=0.1)


class LeadingTest(TrackedFilm):
    """Values that are led by what is followed."""

    def led(self, measure: str, **more: Any) -> list[float]:
        layer = {"kind": "solid", "length": COUNT * FRAME}
        if not any(clip.kind == "solid" for _, clip in self.scene.document.clips()):
            self.scene.do(kind="place", clip=layer, mode="above", at=0, seed="led")
        [ground] = [c for _, c in self.scene.document.clips() if c.kind == "solid"]
        driving = {"by": "followed", "tracker": self.thing, "measure": measure} | more
        found = driven(self.scene.document, ground.id, driving, self.sources)
        keys = NumberKeys.model_validate({"keys": found})
        return [value_at(keys, number * FRAME) for number in range(COUNT)]

    def test_they_go_as_the_thing_goes(self) -> None:
        self.tracked("turns")
        where = np.array([self.made["turns"].quad(number).mean(axis=0) for number in range(COUNT)])
        for measure, way in (("across", where[:, 0]), ("down", where[:, 1])):
            with self.subTest(measure):
                values = np.array(self.led(measure, low=2.0, high=6.0))
                wanted = 2 + 4 * (way - way.min()) / np.ptp(way)
                self.assertLess(np.abs(values - wanted).max(), 0.4)

    def test_what_does_not_change_or_is_not_there_is_refused(self) -> None:
        self.tracked("turns")
        self.thing = "nobody"
        with self.assertRaises(EditRefused):
            self.led("across")
